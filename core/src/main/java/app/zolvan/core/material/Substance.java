package app.zolvan.core.material;

/**
 * A real substance by its index of refraction at 587.56 nm (the helium d line), near room temperature; ice at its
 * melting point. Handbook values; plastics and oils vary by about 0.01 with their make.
 */
public enum Substance {
    ICE("Ice", 1.309),
    WATER("Water", 1.333),
    ETHANOL("Ethanol", 1.361),
    LAMP_OIL("Lamp oil", 1.47),
    ACRYLIC("Acrylic", 1.491),
    WINDOW_GLASS("Window glass", 1.52),
    POLYCARBONATE("Polycarbonate", 1.585),
    LEAD_CRYSTAL("Lead crystal", 1.62),
    SAPPHIRE("Sapphire", 1.77),
    DIAMOND("Diamond", 2.417);

    /** In empty space, in metres per second; exact by the definition of the metre. */
    public static final double LIGHT = 299_792_458;

    private final String label;
    private final double ior;

    Substance(String label, double ior) {
        this.label = label;
        this.ior = ior;
    }

    public String label() {
        return label;
    }

    public double ior() {
        return ior;
    }

    /** How fast light of the helium d line goes in it, in metres per second: c/n. */
    public double lightSpeed() {
        return lightSpeed(ior);
    }

    /** The same for any index of refraction. */
    public static double lightSpeed(double ior) {
        return LIGHT / ior;
    }
}

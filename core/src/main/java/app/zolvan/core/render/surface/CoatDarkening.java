package app.zolvan.core.render.surface;

/** What a coat sends back to the body that it covers, so that the body looks darker and stronger in colour. */
public final class CoatDarkening {
    private CoatDarkening() {}

    /**
     * The share of the body's light that the coat mirrors back to it (OpenPBR 1.1, coat darkening). Of a body that mirrors a
     * share {@code e} of what it gets, (1 − k)/(1 − k e) is left of what would have been seen.
     *
     * @param roughness of the coat, as its parameter has it
     * @param ior       of the coat
     */
    public static double returns(double roughness, double ior) {
        return 1 - (1 - Albedo.clearMean(roughness, ior)) / (ior * ior);
    }
}

package app.zolvan.core.colour;

/**
 * One colour as a shade of another: moved evenly in CIELAB under D65 towards white or black, so that its hue stays.
 *
 * @param share −1 is black, 0 the same colour, 1 white
 */
public record Shade(double share) {
    private static final CieLab WHITE = new CieLab(100, 0, 0);
    private static final CieLab BLACK = new CieLab(0, 0, 0);

    public Shade {
        if (!(share >= -1 && share <= 1)) {
            throw new IllegalArgumentException("a shade lies between -1, black, and 1, white: " + share);
        }
    }

    /** The shade of a colour, as near as sRGB can show it. */
    public LinearRgb of(LinearRgb main) {
        return share == 0
                ? main
                : towards(CieLab.of(main), share < 0 ? BLACK : WHITE, Math.abs(share))
                        .toSrgbGamut();
    }

    private static CieLab towards(CieLab from, CieLab end, double share) {
        return new CieLab(
                from.l() + share * (end.l() - from.l()),
                from.a() + share * (end.a() - from.a()),
                from.b() + share * (end.b() - from.b()));
    }

    /** The shade of one colour that comes nearest to another, as distances in CIELAB go. */
    public static Shade nearest(LinearRgb main, LinearRgb own) {
        CieLab from = CieLab.of(main);
        CieLab to = CieLab.of(own);
        double light = along(from, WHITE, to);
        double dark = along(from, BLACK, to);
        boolean isDarker = distance(towards(from, BLACK, dark), to) < distance(towards(from, WHITE, light), to);
        return new Shade(isDarker ? -dark : light);
    }

    /** How far along the way from one colour to an end the nearest point to a third lies, 0 … 1. */
    private static double along(CieLab from, CieLab end, CieLab to) {
        double l = end.l() - from.l();
        double a = end.a() - from.a();
        double b = end.b() - from.b();
        double squared = l * l + a * a + b * b;
        double share = (l * (to.l() - from.l()) + a * (to.a() - from.a()) + b * (to.b() - from.b())) / squared;
        return squared == 0 ? 0 : Math.max(0, Math.min(1, share));
    }

    private static double distance(CieLab one, CieLab other) {
        return Math.hypot(Math.hypot(one.l() - other.l(), one.a() - other.a()), one.b() - other.b());
    }
}

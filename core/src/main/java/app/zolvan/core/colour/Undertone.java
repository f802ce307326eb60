package app.zolvan.core.colour;

import java.util.Locale;

/**
 * Which way a colour that is nearly grey leans: its place on the CIELAB a*, b* plane under D65, in words and numbers.
 *
 * @param strength C*, the distance from grey
 * @param hue      the direction, in degrees
 */
public record Undertone(double strength, double hue) {
    /** Below this no direction can be told. */
    static final double NONE = 0.5;

    /** From here on a colour is no longer a tinted grey. */
    public static final double FULL = 12;

    /** Undertones of neighbours that lie nearer than this on the a*, b* plane are told apart by nobody. */
    private static final double AGREE = 1.5;

    private static final double CLASH = 4;
    /** From the end of yellow-green to the end of violet. */
    private static final double CAST_FROM = 130;

    private static final double CAST_TO = 340;
    private static final double[] ENDS = {20, 50, 75, 105, 130, 180, 230, 308, 340, 360};
    private static final String[] NAMES = {
        "pink", "red", "orange", "yellow", "yellow-green", "green", "blue-green", "blue", "violet", "pink"
    };

    public static Undertone of(LinearRgb colour) {
        CieLab lab = CieLab.of(colour);
        return new Undertone(lab.chroma(), lab.hue());
    }

    /** The name of the direction, such as "yellow-green". */
    public String name() {
        int i = 0;
        while (hue >= ENDS[i] && i < ENDS.length - 1) {
            i++;
        }
        return NAMES[i];
    }

    /**
     * Whether a grey or white that leans so looks wrong to most: green, blue and violet do, warm tones are what one expects of
     * things that are meant to be neutral.
     */
    public boolean isCast() {
        return strength >= NONE && strength < FULL && hue >= CAST_FROM && hue < CAST_TO;
    }

    /** Such as "a trace of green, 1.2", "no undertone" or "red, 62.0". */
    public String words() {
        if (strength < NONE) {
            return "no undertone";
        }
        String how = strength < 2 ? "a trace of " : strength < 5 ? "a little " : strength < FULL ? "clearly " : "";
        return how + name() + String.format(Locale.ROOT, ", %.1f", strength);
    }

    /** Whether two colours side by side lean the same way: a sentence. */
    public String beside(Undertone o) {
        double apart = apart(o);
        if (apart < AGREE) {
            return String.format(Locale.ROOT, "The undertones agree (%.1f apart).", apart);
        }
        String both = leaning() + " beside " + o.leaning();
        return apart < CLASH
                ? String.format(Locale.ROOT, "The undertones lean a little apart: %s (%.1f apart).", both, apart)
                : String.format(Locale.ROOT, "The undertones quarrel: %s (%.1f apart).", both, apart);
    }

    /** How far apart two lie on the a*, b* plane. */
    public double apart(Undertone o) {
        CieLab mine = CieLab.ofLch(0, strength, hue);
        CieLab theirs = CieLab.ofLch(0, o.strength, o.hue);
        return Math.hypot(mine.a() - theirs.a(), mine.b() - theirs.b());
    }

    private String leaning() {
        return strength < NONE ? "neutral" : name();
    }

    /**
     * The colour of another lightness that leans the same way: a* and b* stay as long as sRGB can show them.
     *
     * @param lightness OKLab's, in [0, 1]
     */
    public static LinearRgb kept(LinearRgb colour, double lightness) {
        CieLab lab = CieLab.of(colour);
        double low = 0;
        double high = 100;
        for (int i = 0; i < 40; i++) {
            double l = (low + high) / 2;
            if (OkLch.of(new CieLab(l, lab.a(), lab.b()).toSrgbGamut()).lightness() < lightness) {
                low = l;
            } else {
                high = l;
            }
        }
        return new CieLab((low + high) / 2, lab.a(), lab.b()).toSrgbGamut();
    }
}

package app.zolvan.core.colour;

import java.util.Locale;

/**
 * The everyday word for a colour: the basic colour terms (Berlin & Kay 1969) with beige and teal, which the trade needs, each
 * a region of CIELAB under D65.
 */
public enum ToneWord {
    WHITE,
    GREY,
    BLACK,
    BEIGE,
    BROWN,
    RED,
    ORANGE,
    YELLOW,
    GREEN,
    TEAL,
    BLUE,
    PURPLE,
    PINK;

    /** As one says it. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    public static ToneWord of(CieLab c) {
        double l = c.l();
        double chroma = c.chroma();
        double hue = c.hue();
        boolean warm = hue >= 35 && hue < 112;
        if (l < 24 && chroma < 7) {
            return BLACK;
        }
        if (chroma < 5 || (chroma < 7 && !warm)) {
            return l > 86 ? WHITE : l < 24 ? BLACK : GREY;
        }
        if (warm && l > 88 && chroma < 11) {
            return WHITE;
        }
        return hued(l, chroma, hue);
    }

    private static ToneWord hued(double l, double chroma, double hue) {
        if (hue < 28) {
            return l > 58 ? PINK : RED;
        }
        if (hue < 48) {
            return l > 66 ? PINK : chroma < 30 ? BROWN : RED;
        }
        if (hue < 76) {
            return l > 66 && chroma < 34 ? BEIGE : l < 50 || chroma < 38 ? BROWN : ORANGE;
        }
        if (hue < 112) {
            return l > 62 && chroma < 30 ? BEIGE : (l < 56 && hue < 98) || l < 40 ? BROWN : YELLOW;
        }
        if (hue < 175) {
            return GREEN;
        }
        if (hue < 220) {
            return TEAL;
        }
        if (hue < 300) {
            return BLUE;
        }
        return hue < 342 ? PURPLE : l > 58 ? PINK : RED;
    }
}

package app.zolvan.core.colour;

import java.util.Locale;

/** The sRGB encoding of IEC 61966-2-1. */
public final class Srgb {
    private static final double[] DECODED = new double[256];

    static {
        for (int i = 0; i < DECODED.length; i++) {
            DECODED[i] = decode(i / 255.0);
        }
    }

    private Srgb() {}

    /** Linear light from an 8-bit code, 0 … 255. */
    public static double fromCode(int code) {
        return DECODED[code];
    }

    /** Linear light from an encoded value, both in [0, 1]. */
    public static double decode(double encoded) {
        return encoded <= 0.04045 ? encoded / 12.92 : Math.pow((encoded + 0.055) / 1.055, 2.4);
    }

    /** Encoded value from linear light, both in [0, 1]. */
    public static double encode(double linear) {
        return linear <= 0.0031308 ? linear * 12.92 : 1.055 * Math.pow(linear, 1 / 2.4) - 0.055;
    }

    /** Linear colour from 8-bit codes, each in 0 … 255. */
    public static LinearRgb fromCodes(int r, int g, int b) {
        return new LinearRgb(DECODED[r], DECODED[g], DECODED[b]);
    }

    /** 8-bit codes nearest to the colour, which is limited to [0, 1] first. */
    public static int[] toCodes(LinearRgb colour) {
        LinearRgb c = colour.clamped();
        return new int[] {code(c.r()), code(c.g()), code(c.b())};
    }

    /** The colour of such a number: red in its third byte, green in its second, blue in its first. */
    public static LinearRgb fromPacked(int rgb) {
        return fromCodes(rgb >> 16 & 255, rgb >> 8 & 255, rgb & 255);
    }

    /** The same as one number, red in its third byte, green in its second, blue in its first. */
    public static int toPacked(LinearRgb colour) {
        LinearRgb c = colour.clamped();
        return code(c.r()) << 16 | code(c.g()) << 8 | code(c.b());
    }

    private static int code(double linear) {
        return (int) Math.round(255 * encode(linear));
    }

    /** "#RRGGBB" in capitals. */
    public static String toHex(LinearRgb colour) {
        int[] c = toCodes(colour);
        return String.format(Locale.ROOT, "#%02X%02X%02X", c[0], c[1], c[2]);
    }
}

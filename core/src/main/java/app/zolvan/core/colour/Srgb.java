package app.zolvan.core.colour;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The sRGB encoding of IEC 61966-2-1 and the notations designers type colours in. */
public final class Srgb {
    private static final Pattern HEX = Pattern.compile("#?([0-9a-fA-F]{3}|[0-9a-fA-F]{6})");
    private static final Pattern TRIPLE = Pattern.compile(
            "(?:rgb\\s*\\(\\s*)?([0-9.]+)(%?)[\\s,;/]+([0-9.]+)(%?)[\\s,;/]+([0-9.]+)(%?)\\s*\\)?",
            Pattern.CASE_INSENSITIVE);

    private Srgb() {}

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
        return new LinearRgb(decode(r / 255.0), decode(g / 255.0), decode(b / 255.0));
    }

    /** 8-bit codes nearest to the colour, which is limited to [0, 1] first. */
    public static int[] toCodes(LinearRgb colour) {
        LinearRgb c = colour.clamped();
        return new int[] {code(c.r()), code(c.g()), code(c.b())};
    }

    private static int code(double linear) {
        return (int) Math.round(255 * encode(linear));
    }

    /** "#RRGGBB" in capitals. */
    public static String toHex(LinearRgb colour) {
        int[] c = toCodes(colour);
        return String.format(Locale.ROOT, "#%02X%02X%02X", c[0], c[1], c[2]);
    }

    /**
     * Reads "#a5281f", "a52", "165, 40, 31", "rgb(165 40 31)", "65% 16% 12%" or "0.65 0.16 0.12". Three numbers of which
     * one has a decimal point and all are at most 1 are taken as 0 … 1, other numbers as 0 … 255.
     *
     * @return the linear colour, or empty when the text is none of these or a number is out of range
     */
    public static Optional<LinearRgb> parse(String text) {
        String trimmed = text.strip();
        Matcher hex = HEX.matcher(trimmed);
        if (hex.matches()) {
            String digits = hex.group(1);
            if (digits.length() == 3) {
                digits = digits.replaceAll("(.)", "$1$1");
            }
            int rgb = Integer.parseInt(digits, 16);
            return Optional.of(fromCodes(rgb >> 16, (rgb >> 8) & 255, rgb & 255));
        }
        Matcher triple = TRIPLE.matcher(trimmed);
        if (!triple.matches()) {
            return Optional.empty();
        }
        double[] v = new double[3];
        try {
            for (int i = 0; i < 3; i++) {
                v[i] = Double.parseDouble(triple.group(1 + 2 * i));
            }
        } catch (NumberFormatException e) {
            return Optional.empty();
        }
        boolean percent = !triple.group(2).isEmpty();
        if (percent != !triple.group(4).isEmpty() || percent != !triple.group(6).isEmpty()) {
            return Optional.empty();
        }
        boolean unit = trimmed.contains(".") && v[0] <= 1 && v[1] <= 1 && v[2] <= 1;
        double scale = percent ? 100 : unit ? 1 : 255;
        if (v[0] > scale || v[1] > scale || v[2] > scale) {
            return Optional.empty();
        }
        return Optional.of(new LinearRgb(decode(v[0] / scale), decode(v[1] / scale), decode(v[2] / scale)));
    }
}

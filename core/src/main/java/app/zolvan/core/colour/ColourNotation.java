package app.zolvan.core.colour;

import java.util.Locale;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * The notations designers type colours in. Three bare numbers are red, green and blue: 0 … 1 where one has a decimal point
 * and all are at most 1, 0 … 255 otherwise, or per cent. Other spaces are named: {@code hsv(…)}, {@code hsl(…)},
 * {@code lab(…)}, {@code lch(…)}, {@code oklab(…)}, {@code oklch(…)}; the name may also stand before bare numbers. CIELAB
 * is counted against D65, L* from 0 to 100; OKLab's lightness from 0 to 1, or in per cent.
 */
public final class ColourNotation {
    private static final Pattern HEX = Pattern.compile("#?([0-9a-fA-F]{3}|[0-9a-fA-F]{6})");
    private static final String NUMBER = "(-?[0-9]*\\.?[0-9]+)(%|°)?";
    private static final String GAP = "[\\s,;/]+";
    private static final Pattern NUMBERS = Pattern.compile(
            "(?:(rgb|hsv|hsl|oklab|oklch|lab|lch)\\s*)?\\(?\\s*" + NUMBER + GAP + NUMBER + GAP + NUMBER + "\\s*\\)?",
            Pattern.CASE_INSENSITIVE);

    private ColourNotation() {}

    /** @return the linear colour, within what sRGB can show; empty when the text is no colour or a number out of range */
    public static Optional<LinearRgb> parse(String text) {
        String trimmed = text.strip();
        Matcher hex = HEX.matcher(trimmed);
        if (hex.matches()) {
            return Optional.of(hex(hex.group(1)));
        }
        Matcher m = NUMBERS.matcher(trimmed);
        if (!m.matches()) {
            return Optional.empty();
        }
        double[] v = {number(m, 2), number(m, 4), number(m, 6)};
        String space = m.group(1) == null ? "rgb" : m.group(1).toLowerCase(Locale.ROOT);
        boolean[] percent = {isPercent(m, 3), isPercent(m, 5), isPercent(m, 7)};
        return switch (space) {
            case "rgb" -> rgb(v, percent, trimmed.contains("."));
            case "hsv" -> hue(v, percent).map(HueColour::fromHsv);
            case "hsl" -> hue(v, percent).map(HueColour::fromHsl);
            case "lab" -> shown(v[0], new CieLab(v[0], v[1], v[2]));
            case "lch" -> v[1] < 0 ? Optional.empty() : shown(v[0], CieLab.ofLch(v[0], v[1], v[2]));
            case "oklab" -> ok(unit(v[0], percent[0]), v[1], v[2]);
            default -> v[1] < 0 ? Optional.empty() : ok(new OkLch(unit(v[0], percent[0]), v[1], v[2]));
        };
    }

    private static LinearRgb hex(String digits) {
        return Srgb.fromPacked(Integer.parseInt(digits.length() == 3 ? digits.replaceAll("(.)", "$1$1") : digits, 16));
    }

    private static double number(Matcher m, int group) {
        return Double.parseDouble(m.group(group));
    }

    private static boolean isPercent(Matcher m, int group) {
        return "%".equals(m.group(group));
    }

    private static Optional<LinearRgb> rgb(double[] v, boolean[] percent, boolean decimal) {
        if (percent[0] != percent[1] || percent[0] != percent[2]) {
            return Optional.empty();
        }
        double high = Math.max(v[0], Math.max(v[1], v[2]));
        double low = Math.min(v[0], Math.min(v[1], v[2]));
        double scale = percent[0] ? 100 : decimal && high <= 1 ? 1 : 255;
        if (low < 0 || high > scale) {
            return Optional.empty();
        }
        return Optional.of(
                new LinearRgb(Srgb.decode(v[0] / scale), Srgb.decode(v[1] / scale), Srgb.decode(v[2] / scale)));
    }

    private static Optional<HueColour> hue(double[] v, boolean[] percent) {
        boolean hundred = percent[1] || percent[2] || v[1] > 1 || v[2] > 1;
        double first = hundred ? v[1] / 100 : v[1];
        double second = hundred ? v[2] / 100 : v[2];
        boolean in = first >= 0 && first <= 1 && second >= 0 && second <= 1 && v[0] >= 0 && v[0] <= 360;
        return in ? Optional.of(new HueColour(v[0] % 360, first, second)) : Optional.empty();
    }

    private static double unit(double v, boolean percent) {
        return percent ? v / 100 : v;
    }

    private static Optional<LinearRgb> shown(double lightness, CieLab colour) {
        return lightness < 0 || lightness > 100 ? Optional.empty() : Optional.of(colour.toSrgbGamut());
    }

    private static Optional<LinearRgb> ok(double lightness, double a, double b) {
        return ok(OkLch.ofLab(lightness, a, b));
    }

    private static Optional<LinearRgb> ok(OkLch c) {
        return c.lightness() < 0 || c.lightness() > 1 ? Optional.empty() : Optional.of(c.toSrgbGamut());
    }
}

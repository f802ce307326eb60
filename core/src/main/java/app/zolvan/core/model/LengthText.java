package app.zolvan.core.model;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Lengths and areas as designers read them. In sentences that are kept they stand in metres between signs that no name
 * holds, until somebody reads them in the unit of a project.
 */
public final class LengthText {
    private static final char LENGTH = '\uE000';
    private static final char AREA = '\uE001';
    private static final char END = '\uE002';
    private static final Pattern KEPT = Pattern.compile("([" + LENGTH + AREA + "])([-+.0-9Ee]+)" + END);
    private static final double INCH = LengthUnit.IN.metres();
    private static final double FOOT = LengthUnit.FT.metres();

    private LengthText() {}

    /** A length to be kept in a sentence. */
    public static String kept(double metres) {
        return LENGTH + String.valueOf(metres) + END;
    }

    /** An area to be kept in a sentence. */
    public static String keptArea(double squareMetres) {
        return AREA + String.valueOf(squareMetres) + END;
    }

    /** A sentence as it reads in a unit. */
    public static String read(String sentence, LengthUnit unit) {
        Matcher m = KEPT.matcher(sentence);
        return m.replaceAll(r -> {
            double value = Double.parseDouble(r.group(2));
            return r.group(1).charAt(0) == LENGTH ? of(value, unit) : ofArea(value, unit);
        });
    }

    /** A length in a unit or one that goes with it, where it would be a very small or a very large number. */
    public static String of(double metres, LengthUnit unit) {
        double size = Math.abs(metres);
        return switch (unit) {
            case IN, FT ->
                size < 10 * FOOT ? said(metres / INCH, size < INCH ? 3 : 2) + " in" : said(metres / FOOT, 1) + " ft";
            default -> {
                if (size >= 10 || (unit == LengthUnit.M && size >= 0.1)) {
                    yield said(metres, size >= 10 ? 1 : 2) + " m";
                }
                yield unit == LengthUnit.CM && size >= 0.01
                        ? said(100 * metres, 1) + " cm"
                        : said(1000 * metres, size < 0.001 ? 2 : size < 0.01 ? 1 : 0) + " mm";
            }
        };
    }

    /** An area in the square of a unit or of one that goes with it. */
    public static String ofArea(double squareMetres, LengthUnit unit) {
        double size = Math.abs(squareMetres);
        return switch (unit) {
            case IN, FT ->
                size < FOOT * FOOT
                        ? said(squareMetres / (INCH * INCH), size < INCH * INCH ? 2 : 0) + " in²"
                        : said(squareMetres / (FOOT * FOOT), 1) + " ft²";
            default ->
                size < 1e-4
                        ? said(1e6 * squareMetres, 0) + " mm²"
                        : size < 0.1
                                ? said(1e4 * squareMetres, 0) + " cm²"
                                : said(squareMetres, size >= 100 ? 0 : size >= 10 ? 1 : 2) + " m²";
        };
    }

    private static String said(double value, int decimals) {
        return String.format(Locale.ROOT, "%,." + decimals + "f", value);
    }
}

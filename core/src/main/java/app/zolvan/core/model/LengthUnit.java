package app.zolvan.core.model;

import java.util.Locale;

/** A unit that lengths are shown in. Inside everything is metres. */
public enum LengthUnit {
    MM(0.001, 1),
    CM(0.01, 1),
    M(1, 3),
    IN(0.0254, 2),
    FT(0.3048, 2);

    private final double metres;
    private final int decimals;

    LengthUnit(double metres, int decimals) {
        this.metres = metres;
        this.decimals = decimals;
    }

    public String symbol() {
        return name().toLowerCase(Locale.ROOT);
    }

    public double metres() {
        return metres;
    }

    /** How many decimals are worth showing. */
    public int decimals() {
        return decimals;
    }

    /** @throws IllegalArgumentException if there is no such unit */
    public static LengthUnit ofSymbol(String symbol) {
        return valueOf(symbol.toUpperCase(Locale.ROOT));
    }
}

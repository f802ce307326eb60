package app.zolvan.core.material;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;

/**
 * How a material is drawn where surfaces are told apart by colour and hatch, whatever it looks like.
 *
 * @param colour as #rrggbb; null for that of its look
 * @param hatch  from 0, for none, to {@link #HATCHES} − 1
 */
public record Drawing(String colour, int hatch) {
    /** So many ways of hatching there are, none among them. */
    public static final int HATCHES = 6;

    /** @throws ParameterException where it can't be drawn */
    void check() {
        if (hatch < 0 || hatch >= HATCHES) {
            throw new ParameterException("drawing", "There are six ways of hatching, numbered from 0 for none.");
        }
        if (colour != null && !colour.matches("#[0-9a-fA-F]{6}")) {
            throw new ParameterException("drawing", "A colour for diagrams is told as #rrggbb.");
        }
    }

    /** The colour it is drawn in. */
    public LinearRgb colour(LinearRgb ofLook) {
        if (colour == null) {
            return ofLook;
        }
        int rgb = Integer.parseInt(colour.substring(1), 16);
        return Srgb.fromCodes(rgb >> 16, rgb >> 8 & 0xFF, rgb & 0xFF);
    }
}

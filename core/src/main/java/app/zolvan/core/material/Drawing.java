package app.zolvan.core.material;

import app.zolvan.core.colour.ColourNotation;
import app.zolvan.core.colour.LinearRgb;
import java.io.Serializable;
import java.util.function.Supplier;

/**
 * How a material is drawn where surfaces are told apart by colour and hatch, whatever it looks like.
 *
 * @param colour in a notation of {@link ColourNotation}, #rrggbb for one; null for that of its look
 * @param hatch  from 0, for none, to {@link #HATCHES} − 1
 */
public record Drawing(String colour, int hatch) implements Serializable {
    /** So many ways of hatching there are, none among them. */
    public static final int HATCHES = 6;

    /** @throws ParameterException where it can't be drawn */
    void check() {
        if (hatch < 0 || hatch >= HATCHES) {
            throw new ParameterException("drawing", "There are six ways of hatching, numbered from 0 for none.");
        }
        if (colour != null && ColourNotation.parse(colour).isEmpty()) {
            throw new ParameterException("drawing", "That is no colour for diagrams: tell it as #rrggbb.");
        }
    }

    /** The colour it is drawn in. */
    public LinearRgb colour(Supplier<LinearRgb> ofLook) {
        return colour == null
                ? ofLook.get()
                : ColourNotation.parse(colour)
                        .orElseThrow(() -> new IllegalStateException(colour + " was not checked"));
    }
}

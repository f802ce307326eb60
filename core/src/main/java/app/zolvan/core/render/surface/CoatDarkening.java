package app.zolvan.core.render.surface;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;

/** What a coat sends back to the body that it covers, so that the body looks darker and stronger in colour (OpenPBR 1.1). */
public final class CoatDarkening {
    private CoatDarkening() {}

    /**
     * The share of the body's light that the coat mirrors back to it.
     *
     * @param roughness of the coat, as its parameter has it
     * @param ior       of the coat
     */
    public static double returns(double roughness, double ior) {
        return 1 - (1 - Albedo.clearMean(roughness, ior)) / (ior * ior);
    }

    /**
     * What is left of the light that would be seen of the body alone.
     *
     * @param returns as {@link #returns} tells it
     * @param albedo  the share of light that the body throws back
     * @param amount  how far that is reckoned with, 0 … 1
     */
    static double left(double returns, double albedo, double amount) {
        return 1 + amount * ((1 - returns) / (1 - returns * albedo) - 1);
    }

    /** The colour that is seen of an opaque body from in front: its own through the coat's, and darkened. */
    public static LinearRgb seen(Surface s, LinearRgb body) {
        double coat = s.number(Parameter.COAT_WEIGHT);
        double amount = coat * s.number(Parameter.COAT_DARKENING);
        double returns = returns(s.number(Parameter.COAT_ROUGHNESS), s.number(Parameter.COAT_IOR));
        LinearRgb dark = new LinearRgb(
                left(returns, body.r(), amount), left(returns, body.g(), amount), left(returns, body.b(), amount));
        return body.times(dark).times(LinearRgb.WHITE.mix(s.colour(Parameter.COAT_COLOR), coat));
    }
}

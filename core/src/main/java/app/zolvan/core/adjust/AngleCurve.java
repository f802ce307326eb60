package app.zolvan.core.adjust;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.surface.Fresnel;

/**
 * How much a surface's own boundary reflects at each angle, below any coat: by its index of refraction, as a metal does, or
 * as drawn.
 */
public final class AngleCurve {
    /** Between two points of {@link #of}, in degrees. */
    public static final int STEP = 5;

    private AngleCurve() {}

    /** Luminance of the reflectance at 0°, 5° … 90°, each in [0, 1]. */
    public static double[] of(Surface s) {
        double[] curve = new double[90 / STEP + 1];
        for (int i = 0; i < curve.length; i++) {
            curve[i] = at(s, Math.cos(Math.toRadians(i * STEP)));
        }
        return curve;
    }

    private static double at(Surface s, double cosine) {
        double metal = s.number(Parameter.BASE_METALNESS);
        double weight = s.number(Parameter.SPECULAR_WEIGHT);
        double[] f0 = s.colour(Parameter.BASE_COLOR)
                .times(s.number(Parameter.BASE_WEIGHT))
                .toArray();
        double[] tint = s.colour(Parameter.SPECULAR_COLOR).toArray();
        double[] facing = s.colour(Parameter.SCHLICK_COLOR0).toArray();
        double[] edge = s.colour(Parameter.SCHLICK_COLOR90).toArray();
        double power = Math.pow(1 - cosine, s.number(Parameter.SCHLICK_EXPONENT));
        double[] sum = new double[3];
        for (int c = 0; c < 3; c++) {
            double body = s.flag(Parameter.GENERALIZED_SCHLICK)
                    ? Fresnel.schlick(facing[c], edge[c], power)
                    : Fresnel.dielectric(cosine, s.number(Parameter.SPECULAR_IOR));
            sum[c] = weight * (metal * Fresnel.metal(cosine, f0[c], tint[c]) + (1 - metal) * tint[c] * body);
        }
        return Math.min(1, LinearRgb.of(sum).luminance());
    }

    /**
     * The surface with its curve drawn by hand through a point.
     *
     * @param degrees 0 moves the curve's beginning, 90 its end, anything between its bend
     * @param value   reflectance there, in [0, 1]
     */
    public static Surface through(Surface s, double degrees, double value) {
        if (!(degrees >= 0 && degrees <= 90 && value >= 0 && value <= 1)) {
            throw new ParameterException("curve", "A curve goes from 0° to 90° and from 0 to 1.");
        }
        Surface own = s.flag(Parameter.GENERALIZED_SCHLICK) ? s : drawn(s);
        if (degrees == 0) {
            return own.with(Parameter.SCHLICK_COLOR0, scaled(own, Parameter.SCHLICK_COLOR0, value));
        }
        if (degrees == 90) {
            return own.with(Parameter.SCHLICK_COLOR90, scaled(own, Parameter.SCHLICK_COLOR90, value));
        }
        double facing = seen(own, own.colour(Parameter.SCHLICK_COLOR0));
        double edge = seen(own, own.colour(Parameter.SCHLICK_COLOR90));
        if (Math.abs(edge - facing) < 1e-6) {
            return own; // a level curve has no bend
        }
        double share = Math.max(1e-6, Math.min(1 - 1e-6, (value - facing) / (edge - facing)));
        double exponent = Math.log(share) / Math.log(1 - Math.cos(Math.toRadians(degrees)));
        Parameter p = Parameter.SCHLICK_EXPONENT;
        return own.with(p, Math.max(p.min(), Math.min(p.max(), exponent)));
    }

    /** The natural curve as the nearest that can be drawn: the same ends, Schlick's bend. */
    private static Surface drawn(Surface s) {
        double facing = Fresnel.facing(s.number(Parameter.SPECULAR_IOR));
        return s.with(Parameter.GENERALIZED_SCHLICK, true)
                .with(Parameter.SCHLICK_COLOR0, facing, facing, facing)
                .with(Parameter.SCHLICK_COLOR90, 1, 1, 1)
                .with(Parameter.SCHLICK_EXPONENT, 5);
    }

    /** What of a reflectance is seen: less where the reflection is weakened or tinted. */
    private static double seen(Surface s, LinearRgb reflectance) {
        return s.number(Parameter.SPECULAR_WEIGHT)
                * s.colour(Parameter.SPECULAR_COLOR).times(reflectance).luminance();
    }

    /** The same hue as bright as is wished, seen, within what reflects no more than comes in. */
    private static LinearRgb scaled(Surface s, Parameter end, double wished) {
        LinearRgb hue = s.colour(end).luminance() > 0 ? s.colour(end) : LinearRgb.WHITE;
        double now = seen(s, hue);
        if (now <= 0) {
            return s.colour(end); // no reflection is seen at all
        }
        double most = Math.max(hue.r(), Math.max(hue.g(), hue.b()));
        return hue.times(Math.min(wished / now, 1 / most)).clamped();
    }
}

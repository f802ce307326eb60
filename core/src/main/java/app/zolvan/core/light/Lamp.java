package app.zolvan.core.light;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Vec3;

/**
 * A source of light that is no surface of the model. Positions in metres, directions of unit length. Each belongs to a
 * circuit: what is switched and dimmed together, numbered from 0.
 */
public sealed interface Lamp {
    int circuit();

    /**
     * Light to all sides.
     *
     * @param intensity candela, as linear Rec. 709 whose luminance is the intensity
     */
    record Point(Vec3 at, LinearRgb intensity, int circuit) implements Lamp {
        /** A bulb of a luminous flux: I = Φ/4π. */
        public static Point ofFlux(Vec3 at, double lumens, LinearRgb colour, int circuit) {
            return new Point(at, colour.times(lumens / (4 * Math.PI)), circuit);
        }
    }

    /**
     * Light within a cone, full up to the inner angle and fading smoothly to the outer one.
     *
     * @param intensity candela along the axis
     * @param inner     half angle, in radians
     * @param outer     half angle, in radians, at least the inner one
     */
    record Spot(Vec3 at, Vec3 axis, double inner, double outer, LinearRgb intensity, int circuit) implements Lamp {}

    /**
     * A luminaire by its measured distribution.
     *
     * @param down  the luminaire's own downward axis
     * @param ahead its direction of horizontal angle 0, perpendicular to that
     * @param scale multiplies the measured candelas, as a colour
     */
    record Measured(Vec3 at, Vec3 down, Vec3 ahead, IesProfile profile, LinearRgb scale, int circuit) implements Lamp {}

    /**
     * The sun, or another disc at infinity.
     *
     * @param towards     the disc's middle
     * @param radius      angular radius in radians; the sun's is 0.00465
     * @param illuminance lux on a face turned to it
     */
    record Sun(Vec3 towards, double radius, LinearRgb illuminance, int circuit) implements Lamp {}
}

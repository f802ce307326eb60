package app.zolvan.server.light;

import app.zolvan.core.light.BrightPatches;
import java.util.Arrays;
import java.util.List;

/**
 * A picture of surroundings parted into lamps and the rest.
 *
 * @param limit  luminance that the rest does not exceed
 * @param mostly where light mostly comes from: x, y, z, not of unit length
 */
record SurroundingsWire(double limit, List<Double> mostly, List<PatchWire> lamps) {
    /**
     * A bright patch.
     *
     * @param direction x, y, z
     * @param light     radiance times solid angle: red, green, blue
     * @param spread    variance of its directions along one axis, in radians²
     */
    record PatchWire(List<Double> direction, List<Double> light, double spread) {
        static PatchWire of(BrightPatches.Patch p) {
            return new PatchWire(boxed(p.direction().toArray()), boxed(p.light().toArray()), p.spread());
        }
    }

    static SurroundingsWire of(BrightPatches p) {
        return new SurroundingsWire(
                p.limit(),
                boxed(p.mostly().toArray()),
                p.patches().stream().map(PatchWire::of).toList());
    }

    private static List<Double> boxed(double[] values) {
        return Arrays.stream(values).boxed().toList();
    }
}

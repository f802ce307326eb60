package app.zolvan.core.texture;

import app.zolvan.core.colour.LinearRgb;
import java.util.List;

/**
 * How a pattern takes colour: one picture a material.
 *
 * @param ramp   from its lowest tone to its highest, evenly
 * @param pieces one of these for each piece by its chance, in the place of the ramp; empty for none
 * @param shade  how much the tone lightens and darkens pieces, as a share
 * @param vary   how much pieces are lighter and darker than each other, as a share
 * @param joint  of joints, binders, veins
 */
public record Colouring(List<LinearRgb> ramp, List<LinearRgb> pieces, double shade, double vary, LinearRgb joint) {

    LinearRgb at(Pattern.Point p) {
        LinearRgb own;
        if (pieces.isEmpty()) {
            own = along(ramp, p.tone);
        } else {
            own = pieces.get((int) (p.piece * pieces.size())).times(1 + shade * (2 * p.tone - 1));
        }
        double other = Chance.unit(Double.doubleToLongBits(p.piece)); // not in step with the piece's colour
        LinearRgb varied = own.times(1 + vary * (2 * other - 1));
        return joint == null ? varied : varied.mix(joint, p.joint);
    }

    private static LinearRgb along(List<LinearRgb> ramp, double tone) {
        double at = tone * (ramp.size() - 1);
        int i = Math.min(ramp.size() - 2, (int) at);
        return ramp.size() == 1 ? ramp.get(0) : ramp.get(i).mix(ramp.get(i + 1), at - i);
    }
}

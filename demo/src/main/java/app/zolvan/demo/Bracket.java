package app.zolvan.demo;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.demo.StepFile.Loop;
import app.zolvan.demo.StepFile.Placing;
import app.zolvan.demo.StepFile.Product;
import app.zolvan.demo.StepFile.Solid;
import java.util.ArrayList;
import java.util.List;

/**
 * The lantern's wall bracket as a STEP assembly: an angle of 60 × 60 × 80 mm, 6 mm thick, with two holes in each leg, and
 * one bolt repeated in the four holes. Planes and cylinders only.
 */
final class Bracket {
    private static final Vec3 X = Vec3.axis(0);
    private static final Vec3 Y = Vec3.axis(1);
    private static final Vec3 Z = Vec3.axis(2);
    private static final double LEG = 60;
    private static final double THICK = 6;
    private static final double LONG = 80;
    private static final double HOLE = 4.5;
    /** Holes: distance along the leg, and along the bracket. */
    private static final double OUT = 38;

    private static final double[] ALONG = {20, 60};

    private Bracket() {}

    static String step() {
        StepFile file = new StepFile();
        Product angle = angle(file);
        Product bolt = bolt(file);
        List<Placing> placings = new ArrayList<>();
        placings.add(new Placing(angle, "Angle", Vec3.ZERO, Z, X));
        int number = 1;
        for (double z : ALONG) {
            placings.add(new Placing(bolt, "Bolt " + number++, new Vec3(OUT, THICK, z), Y, Z));
            placings.add(new Placing(bolt, "Bolt " + number++, new Vec3(THICK, OUT, z), X, Y));
        }
        file.assembly("Wall bracket", placings);
        return file.text("bracket.stp");
    }

    /** An L in the x, y plane, drawn out along z. */
    private static Product angle(StepFile file) {
        Solid solid = file.solid();
        double[][] outline = {{0, 0}, {LEG, 0}, {LEG, THICK}, {THICK, THICK}, {THICK, LEG}, {0, LEG}};
        List<Vec3> near = new ArrayList<>();
        List<Vec3> far = new ArrayList<>();
        for (double[] p : outline) {
            near.add(new Vec3(p[0], p[1], 0));
            far.add(new Vec3(p[0], p[1], LONG));
        }
        List<Vec3> back = new ArrayList<>(near);
        java.util.Collections.reverse(back);
        solid.plane(near.get(0), Z.times(-1), X, solid.polygon(back), List.of());
        solid.plane(far.get(0), Z, X, solid.polygon(far), List.of());
        for (int i = 0; i < outline.length; i++) {
            int j = (i + 1) % outline.length;
            Vec3 along = near.get(j).minus(near.get(i)).normalised();
            Loop rim = solid.polygon(List.of(near.get(i), near.get(j), far.get(j), far.get(i)));
            solid.plane(near.get(i), along.cross(Z), along, rim, holes(solid, i));
        }
        for (double z : ALONG) {
            solid.cylinder(new Vec3(OUT, 0, z), Y, Z, HOLE, THICK, true);
            solid.cylinder(new Vec3(0, OUT, z), X, Y, HOLE, THICK, true);
        }
        return solid.finish("Angle", 0.55, 0.57, 0.6);
    }

    /** The holes that open in side face i: clockwise seen from outside. */
    private static List<Loop> holes(Solid solid, int side) {
        List<Loop> loops = new ArrayList<>();
        for (double z : ALONG) {
            switch (side) {
                case 0 -> loops.add(solid.circle(new Vec3(OUT, 0, z), Y, Z, HOLE, true));
                case 2 -> loops.add(solid.circle(new Vec3(OUT, THICK, z), Y, Z, HOLE, false));
                case 3 -> loops.add(solid.circle(new Vec3(THICK, OUT, z), X, Y, HOLE, false));
                case 5 -> loops.add(solid.circle(new Vec3(0, OUT, z), X, Y, HOLE, true));
                default -> {
                    // the ends have none
                }
            }
        }
        return loops;
    }

    /** Head up along z, the shank below the origin. */
    private static Product bolt(StepFile file) {
        Solid solid = file.solid();
        double head = 7;
        double shank = 4;
        double height = 5;
        double length = 20;
        Vec3 top = Z.times(height);
        Vec3 end = Z.times(-length);
        solid.plane(top, Z, X, solid.circle(top, Z, X, head, true), List.of());
        solid.cylinder(Vec3.ZERO, Z, X, head, height, false);
        solid.plane(
                Vec3.ZERO,
                Z.times(-1),
                X,
                solid.circle(Vec3.ZERO, Z, X, head, false),
                List.of(solid.circle(Vec3.ZERO, Z, X, shank, true)));
        solid.cylinder(end, Z, X, shank, length, false);
        solid.plane(end, Z.times(-1), X, solid.circle(end, Z, X, shank, false), List.of());
        return solid.finish("Bolt", 0.82, 0.72, 0.4);
    }
}

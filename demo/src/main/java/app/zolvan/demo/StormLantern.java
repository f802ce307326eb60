package app.zolvan.demo;

import app.zolvan.core.geometry.Solids;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.function.UnaryOperator;

/**
 * The Pilot storm lantern, about 0.37 m high: enamelled base and hood, glass reservoir with oil as closed overlapping
 * bodies, brass burner and wire cage, glass chimney, wick and flame, leather carry strap, embossed maker's plate, one
 * screw repeated. Modelled in millimetres and, like a real export, with source materials that say little.
 */
public final class StormLantern {
    private static final int ROUND = 52;
    private static final double CREASE = Math.toRadians(38);
    private static final Vec3 UP = Vec3.axis(1);
    /** The reservoir's wall thickness and the height to which oil stands in it, in mm. */
    private static final double WALL = 3;

    private static final double OIL_LEVEL = 81;

    /** The two ways in which designers model a liquid in its vessel. */
    public enum Vessel {
        /** The glass wall and the oil are closed bodies; the oil reaches slightly into the wall. */
        CLOSED_BODIES,
        /** Open surfaces with a medium on either side: air to glass, oil to glass, oil to air. They share their rims. */
        BOUNDARY_SURFACES
    }

    private final ModelDraft draft = new ModelDraft();
    private final Vessel vessel;

    private StormLantern(Vessel vessel) {
        this.vessel = vessel;
    }

    public static Model model(Vessel vessel) {
        return new StormLantern(vessel).build();
    }

    private Model build() {
        draft.source("mat_07", "#B9B9B7", 0.5, 1);
        draft.source("Solid 12 copy", "#C9B37A", 0.4, 1);
        draft.source("mat_03", "#DCE6E6", 0.1, 0.35);
        draft.source("mat_03.001", "#D08A30", 0.1, 0.6);
        draft.source("Default", "#D9D3C4", 0.9, 1);
        draft.source("mat_11", "#FFB050", 0.9, 1);
        draft.source("Material #4", "#7A5A40", 0.7, 1);
        draft.source("Solid 12", "#A0A0A0", 0.4, 1);
        draft.source("mat_09", "#BFBFBF", 0.4, 1);
        if (vessel == Vessel.BOUNDARY_SURFACES) {
            draft.source("mat_03.002", "#E0D2B0", 0.1, 0.4);
        }
        int lantern = group(Model.NONE, "Lantern", Transform.scale(0.001, 0.001, 0.001));
        body(group(lantern, "Body", Transform.IDENTITY));
        lightSource(group(lantern, "Light source", Transform.IDENTITY));
        guard(group(lantern, "Guard", Transform.IDENTITY));
        carry(group(lantern, "Carry strap", Transform.IDENTITY));
        fasteners(group(lantern, "Fasteners", Transform.IDENTITY));
        return draft.finish();
    }

    private void body(int group) {
        part(group, "Base", "mat_07", turned(Solids.wall(base(), 2)));
        part(group, "Base rim", "Solid 12 copy", turned(Solids.circle(58, 47, 2.4, 12)));
        List<double[]> hood =
                new ArrayList<>(Solids.curve(Solids.profile(72, 238, 68, 247, 56, 257, 40, 266, 29, 277, 25, 288), 4));
        part(group, "Hood", "mat_07", turned(Solids.wall(hood, 1.6)));
        part(group, "Hood rim", "Solid 12 copy", turned(Solids.circle(72, 237.5, 2.6, 12)));
        part(group, "Vent collar", "Solid 12 copy", turned(ribbed()));
        List<double[]> cap =
                new ArrayList<>(Solids.curve(Solids.profile(33, 307, 31, 313, 23, 320, 11, 325, 0, 326), 3));
        part(group, "Cap", "mat_07", turned(Solids.wall(cap, 1.6)));
        part(
                group,
                "Cap knob",
                "Solid 12 copy",
                turned(closedOnAxis(
                        Solids.curve(Solids.profile(0, 325, 4, 326, 4.6, 329, 7, 333, 6, 338, 3, 340.5, 0, 341), 2))));
        part(group, "Maker's plate", "mat_09", makersPlate());
    }

    private static List<double[]> base() {
        List<double[]> line = new ArrayList<>(Solids.profile(70, 0, 74, 0.6, 75.4, 2.4, 75.4, 5, 74, 7));
        line.addAll(Solids.profile(73, 8.5, 73, 20, 73, 31));
        line.addAll(Solids.curve(Solids.profile(73, 32, 71, 37, 66, 42, 58, 45.5, 50, 46.5), 3));
        line.addAll(Solids.profile(25, 46.5, 0, 46.5));
        return line;
    }

    /** A collar with three ribs, hollow. */
    private static List<double[]> ribbed() {
        List<double[]> line = new ArrayList<>(Solids.profile(25.5, 286, 27, 287, 27, 290));
        for (int i = 0; i < 3; i++) {
            double h = 291 + 5.0 * i;
            line.addAll(Solids.profile(23.5, h, 23.5, h + 1, 26.5, h + 2.2, 26.5, h + 3.2, 23.5, h + 4.4));
        }
        line.addAll(Solids.profile(23.5, 307, 22, 308.5));
        return Solids.wall(line, 1.5);
    }

    /** The plate follows the base's wall; letters and a border stand up from it. */
    private static TriangleSoup makersPlate() {
        double radius = 73;
        UnaryOperator<Vec3> bend = p -> {
            double a = p.x() / radius;
            double r = radius - 0.1 + p.z();
            return new Vec3(r * Math.sin(a), 20 + p.y(), r * Math.cos(a));
        };
        TriangleSoup soup = Solids.plate(Solids.divided(Solids.roundedRectangle(62, 17, 3, 4), 4), 1.1, 0.35, bend);
        List<Vec3> border = new ArrayList<>();
        for (double[] p : Solids.divided(Solids.roundedRectangle(57, 13, 2.4, 4), 4)) {
            border.add(new Vec3(p[0], p[1], 1.05));
        }
        soup.add(bent(border, true, 0.42, bend), Transform.IDENTITY);
        String[] letters = {
            "M0 0 0 6 3 6 3 3.3 0 3.3 3.4 3.3 3.4 0 0 0",
            "M0 0 0 6 3 6 3 3 0 3 M1.4 3 3.4 0",
            "M0 0 1.8 6 3.6 0 M0.6 2 3 2",
            "M0 0 0 6 3.4 0 3.4 6",
            "M0 0 0 6 3.4 0 3.4 6",
            "M0.6 0 0 0.8 0 5.2 0.6 6 3 6 3.6 5.2 3.6 0.8 3 0 0.6 0",
            "M3.4 5.2 2.8 6 0.7 6 0 5.2 0 0.8 0.7 0 2.8 0 3.4 0.8",
            "M0 0 0 6 M3.4 0 3.4 6 M0 3 3.4 3"
        };
        double x = -22.6;
        for (String letter : letters) {
            for (String stroke : letter.substring(1).split("M")) {
                double[] n = Arrays.stream(stroke.strip().split(" "))
                        .mapToDouble(Double::parseDouble)
                        .toArray();
                List<Vec3> path = new ArrayList<>();
                for (int i = 0; i < n.length; i += 2) {
                    path.add(new Vec3(x + n[i], n[i + 1] - 3, 1.1));
                }
                soup.add(bent(path, false, 0.48, bend), Transform.IDENTITY);
            }
            x += 5.9;
        }
        return soup;
    }

    private static TriangleSoup bent(List<Vec3> path, boolean closed, double radius, UnaryOperator<Vec3> bend) {
        List<Vec3> moved = new ArrayList<>();
        for (Vec3 p : path) {
            moved.add(bend.apply(p));
        }
        return Solids.sweep(moved, Solids.disc(radius, 6), Vec3.axis(2), closed);
    }

    private void lightSource(int group) {
        List<double[]> reservoir = new ArrayList<>(Solids.profile(0, 48.5, 30, 48.5));
        reservoir.addAll(Solids.curve(
                Solids.profile(46, 48.8, 55, 53, 60.5, 64, 60.5, 76, 55, 88, 43, 97, 31, 102, 28, 107, 28, 113), 3));
        if (vessel == Vessel.CLOSED_BODIES) {
            closedBodies(group, Solids.wall(reservoir, WALL));
        } else {
            boundarySurfaces(group, Solids.wall(reservoir, WALL));
        }
        List<double[]> burner = new ArrayList<>(Solids.profile(31, 106, 32.5, 107, 32.5, 116, 31, 117.5));
        burner.addAll(Solids.curve(Solids.profile(29, 118, 27, 122, 30, 128, 40, 132, 44, 134), 4));
        burner.addAll(Solids.profile(45.5, 134.5, 45.5, 140, 44, 140));
        burner.addAll(Solids.profile(44, 136.5, 30, 136.5, 22, 141, 14, 147, 9.5, 149, 9.5, 140, 29, 114, 29, 106));
        part(group, "Burner", "Solid 12 copy", turned(burner));
        List<double[]> chimney = new ArrayList<>(Solids.curve(
                Solids.profile(40.5, 138, 41, 144, 47, 160, 50.5, 178, 48, 198, 41, 220, 36, 238, 35.5, 250), 4));
        part(group, "Chimney", "mat_03", turned(Solids.wall(chimney, 2.2)));
        List<Vec3> wick = List.of(new Vec3(0, 58, 0), new Vec3(0, 100, 0), new Vec3(0, 130, 0), new Vec3(0, 153, 0));
        part(group, "Wick", "Default", Solids.sweep(wick, Solids.roundedRectangle(13, 3, 1.2, 4), Vec3.axis(2), false));
        List<double[]> flame =
                Solids.curve(Solids.profile(0, 151, 5, 153, 8, 160, 7.4, 169, 4.4, 179, 1.6, 188, 0, 193), 3);
        TriangleSoup flat = new TriangleSoup();
        flat.add(turned(closedOnAxis(flame)), Transform.scale(1, 1, 0.62));
        part(group, "Flame", "mat_11", flat);
        List<Vec3> stem = List.of(new Vec3(26, 124, 0), new Vec3(40, 124, 0), new Vec3(53, 124, 0));
        part(group, "Wick stem", "Solid 12 copy", Solids.sweep(stem, Solids.disc(1.8, 14), UP, false));
        TriangleSoup knob = new TriangleSoup();
        knob.add(
                Solids.lathe(Solids.profile(0, 0, 8, 0, 9, 1, 9, 4, 8, 5, 3.4, 5.4, 3, 6.6, 0, 7), 40),
                Transform.translation(51, 124, 0).after(Solids.about(Vec3.axis(2), -90)));
        part(group, "Wick knob", "Solid 12 copy", knob);
    }

    private void closedBodies(int group, List<double[]> wall) {
        part(group, "Reservoir", "mat_03", turned(wall));
        // reaches 0.4 into the glass, as closed bodies should
        List<double[]> oil = new ArrayList<>(Solids.profile(0, 51.1, 30, 51.1));
        oil.addAll(Solids.curve(Solids.profile(44.6, 51.4, 52.8, 55.3, 57.9, 65, 57.9, 75, 55.2, 82), 3));
        oil.addAll(Solids.profile(54, 81.2, 0, OIL_LEVEL));
        part(group, "Lamp oil", "mat_03.001", turned(oil));
    }

    /** The wall's line, from the axis below round the rim and down the inside, cut at the oil's level. */
    private void boundarySurfaces(int group, List<double[]> wall) {
        int cut = wall.size() - 1;
        while (wall.get(cut)[1] < OIL_LEVEL) {
            cut--;
        }
        double[] above = wall.get(cut);
        double[] below = wall.get(cut + 1);
        double t = (above[1] - OIL_LEVEL) / (above[1] - below[1]);
        double[] edge = {above[0] + t * (below[0] - above[0]), OIL_LEVEL};
        List<double[]> dry = new ArrayList<>(wall.subList(0, cut + 1));
        dry.add(edge);
        List<double[]> wet = new ArrayList<>();
        wet.add(edge);
        wet.addAll(wall.subList(cut + 1, wall.size()));
        Collections.reverse(wet); // looks out of the oil, into the glass
        part(group, "Reservoir, air to glass", "mat_03", open(dry));
        part(group, "Reservoir, oil to glass", "mat_03.002", open(wet));
        part(group, "Lamp oil, oil to air", "mat_03.001", open(List.of(edge, new double[] {0, OIL_LEVEL})));
    }

    private void guard(int group) {
        List<double[]> line = Solids.curve(
                Solids.profile(68, 39.5, 70, 48, 74.5, 70, 74, 100, 69, 126, 67.5, 150, 71, 184, 72.5, 215, 70.5, 239),
                5);
        List<Vec3> path = new ArrayList<>();
        for (double[] p : line) {
            path.add(new Vec3(p[0], p[1], 0));
        }
        int wire = mesh(Solids.sweep(path, Solids.disc(1.9, 12), Vec3.axis(2), false));
        for (int i = 0; i < 4; i++) {
            draft.part(group, "Wire " + (i + 1), "Solid 12 copy", wire, Solids.about(UP, 45 + 90.0 * i));
        }
        part(group, "Ring 1", "Solid 12 copy", turned(Solids.circle(74.6, 76, 1.7, 10)));
        part(group, "Ring 2", "Solid 12 copy", turned(Solids.circle(67.8, 138, 1.7, 10)));
        part(group, "Ring 3", "Solid 12 copy", turned(Solids.circle(71.6, 192, 1.7, 10)));
    }

    private void carry(int group) {
        List<double[]> arch = Solids.curve(
                Solids.profile(
                        -77.6, 232, -79, 252, -80, 282, -74, 322, -52, 356, 0, 371, 52, 356, 74, 322, 80, 282, 79, 252,
                        77.6, 232),
                4);
        List<Vec3> path = new ArrayList<>();
        for (double[] p : arch) {
            path.add(new Vec3(p[0], p[1], 0));
        }
        part(
                group,
                "Strap",
                "Material #4",
                Solids.sweep(path, Solids.roundedRectangle(3.4, 21, 1.4, 5), Vec3.axis(2), false));
        List<Vec3> lug = List.of(new Vec3(0, 0, 0), new Vec3(0, 0, 2.4));
        TriangleSoup plate = Solids.sweep(lug, Solids.roundedRectangle(16, 22, 3, 6), UP, false);
        TriangleSoup placed = new TriangleSoup();
        placed.add(plate, Transform.translation(73.4, 244, 0).after(Solids.about(UP, 90)));
        int mesh = mesh(placed);
        draft.part(group, "Lug right", "Solid 12 copy", mesh, Transform.IDENTITY);
        draft.part(group, "Lug left", "Solid 12 copy", mesh, Solids.about(UP, 180));
    }

    private void fasteners(int group) {
        int screw = mesh(screw());
        int number = 1;
        List<Transform> places = new ArrayList<>();
        for (int i = 0; i < 8; i++) {
            places.add(Solids.about(UP, 45.0 * i + 22.5)
                    .after(Transform.translation(0, 14, 72.8))
                    .after(Solids.about(Vec3.axis(0), 90)));
        }
        for (int i = 0; i < 8; i++) {
            places.add(Solids.about(UP, 45.0 * i)
                    .after(Transform.translation(0, 299.2, 26.2))
                    .after(Solids.about(Vec3.axis(0), 90))
                    .after(Transform.scale(0.55, 0.55, 0.55)));
        }
        for (int side : new int[] {90, -90}) {
            for (double h : new double[] {237, 250}) {
                places.add(Solids.about(UP, side)
                        .after(Transform.translation(0, h, 80.2))
                        .after(Solids.about(Vec3.axis(0), 90)));
            }
        }
        for (int side : new int[] {-1, 1}) {
            places.add(Solids.about(UP, side * 21.8)
                    .after(Transform.translation(0, 20, 73.9))
                    .after(Solids.about(Vec3.axis(0), 90))
                    .after(Transform.scale(0.5, 0.5, 0.5)));
        }
        for (Transform t : places) {
            draft.part(group, "Screw " + number++, "Solid 12", screw, t);
        }
    }

    /** A domed head with a slot, and a short shank; axis along y, head at y > 0. */
    private static TriangleSoup screw() {
        TriangleSoup soup = Solids.lathe(
                new ArrayList<>(Solids.profile(
                        0, -3, 1.4, -3, 1.4, 0, 3.6, 0, 3.7, 0.5, 3.2, 1.3, 2.2, 1.8, 1.1, 2.0, 0, 2.05)),
                24);
        List<Vec3> bar = List.of(new Vec3(-2.6, 1.75, 0), new Vec3(2.6, 1.75, 0));
        return soup.add(Solids.sweep(bar, Solids.roundedRectangle(0.8, 0.9, 0.15, 2), UP, false), Transform.IDENTITY);
    }

    private static List<double[]> closedOnAxis(List<double[]> line) {
        List<double[]> out = new ArrayList<>();
        for (double[] p : line) {
            out.add(new double[] {Math.max(0, p[0]), p[1]});
        }
        return out;
    }

    private static TriangleSoup open(List<double[]> line) {
        return Solids.latheOpen(line, ROUND);
    }

    private static TriangleSoup turned(List<double[]> loop) {
        return Solids.lathe(loop, ROUND);
    }

    private int group(int parent, String name, Transform local) {
        return draft.group(parent, name, local);
    }

    private int mesh(TriangleSoup soup) {
        return draft.mesh(soup.toMesh(CREASE));
    }

    private void part(int group, String name, String source, TriangleSoup soup) {
        draft.part(group, name, source, mesh(soup), Transform.IDENTITY);
    }
}

package app.zolvan.demo;

import app.zolvan.core.geometry.Solids;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/**
 * The Lomma floating sauna: a pontoon of 7.2 × 4.8 m with a timber-clad cabin under a pitched roof, glazed front, slatted
 * screen, stove and flue, stepped benches, towels, and a plunge pool with water. Drawn in millimetres, y up, the front
 * towards +z, and as untidy as such files are: source materials without meaning, no texture coordinates, a few flipped
 * and doubled faces, panes drawn twice in one place, groups four deep, slats and boards copied rather than repeated.
 */
final class FloatingSauna {
    private static final double CREASE = Math.toRadians(30);
    private static final Vec3 UP = Vec3.axis(1);
    private static final Vec3 ALONG = Vec3.axis(0);
    private static final Vec3 FRONT = Vec3.axis(2);
    /** The cabin's floor area and the height of its walls. */
    private static final double LEFT = -3200;

    private static final double RIGHT = 600;
    private static final double BACK = -2000;
    private static final double FACE = 800;
    private static final double WALL = 2300;

    private final ModelDraft draft = new ModelDraft();

    static Model model() {
        return new FloatingSauna().build();
    }

    private Model build() {
        draft.source("mat_07", "#8E7355", 0.5, 1);
        draft.source("mat_07.001", "#A98C66", 0.5, 1);
        draft.source("Solid 12 copy", "#5E6062", 0.5, 1);
        draft.source("Material #4", "#C9B79A", 0.5, 1);
        draft.source("mat_03", "#BFD3D6", 0.5, 0.35);
        draft.source("Default", "#B9B9B7", 0.5, 1);
        draft.source("mat_11", "#3A3A3C", 0.5, 1);
        draft.source("mat_14", "#6E8F93", 0.5, 0.6);
        draft.source("mat_02 (2)", "#77716A", 0.5, 1);
        draft.source("Color_A05", "#E6E1D6", 0.5, 1);
        draft.source("mat_19", "#FFD9A0", 0.5, 1);
        int all = group(Model.NONE, "Lomma floating sauna");
        pontoon(group(all, "Pontoon"));
        int cabin = group(all, "Cabin");
        walls(group(cabin, "Walls"));
        front(group(cabin, "Front"));
        roof(group(cabin, "Roof"));
        inside(group(cabin, "Inside"));
        screen(group(all, "Screen"));
        pool(group(all, "Plunge pool"));
        fittings(group(all, "Fittings"));
        return draft.finish();
    }

    private void pontoon(int group) {
        int floats = group(group, "Floats");
        for (int i = 0; i < 4; i++) {
            boolean byThePool = i == 1 || i == 2; // these end where the tub hangs
            double end = byThePool ? 900 : 3400;
            List<double[]> tube = new ArrayList<>(Solids.profile(0, -3400, 300, -3400));
            for (int rib = 0; rib < (byThePool ? 5 : 9); rib++) {
                double at = -3100 + 775.0 * rib;
                tube.addAll(Solids.profile(300, at - 40, 316, at - 25, 316, at + 25, 300, at + 40));
            }
            tube.addAll(Solids.profile(300, end, 0, end));
            TriangleSoup lying = new TriangleSoup()
                    .add(
                            Solids.lathe(tube, 28),
                            Transform.translation(0, -420, -1800 + 1200.0 * i).after(Solids.about(FRONT, -90)));
            part(floats, "Float " + (i + 1), "mat_11", lying);
        }
        int frame = group(group, "Frame");
        for (int i = 0; i < 9; i++) {
            double x = -3560 + 875.0 * i;
            if (x + 120 > 1100 && x < 3300) { // trimmed around the pool
                box(frame, "Beam", "Solid 12 copy", x, -120, -2380, 120, 120, 1080, 4);
                box(frame, "Beam", "Solid 12 copy", x, -120, 1100, 120, 120, 1280, 4);
            } else {
                box(frame, "Beam", "Solid 12 copy", x, -120, -2380, 120, 120, 4760, 4);
            }
        }
        for (int side = 0; side < 2; side++) {
            box(frame, "Edge beam", "Solid 12 copy", -3600, -120, side == 0 ? -2400 : 2320, 7200, 120, 80, 4);
        }
        int deck = group(group, "Deck");
        for (int i = 0; i < 38; i++) {
            double z = -2400 + 126.5 * i;
            boolean atPool = z + 120 > -1300 && z < 1100;
            String name = "Deck board";
            if (atPool) { // the pool's opening cuts these in two
                box(deck, name, "mat_07", -3600, 0, z, 4700, 28, 120, 3);
                box(deck, name, "mat_07", 3300, 0, z, 300, 28, 120, 3);
            } else {
                box(deck, name, "mat_07", -3600, 0, z, 7200, 28, 120, 3);
            }
        }
    }

    private void walls(int group) {
        int cladding = group(group, "Cladding");
        boards(cladding, LEFT, BACK, ALONG, RIGHT - LEFT, false);
        boards(cladding, LEFT, BACK, FRONT, FACE - BACK, true);
        boards(cladding, RIGHT, BACK, FRONT, FACE - BACK, false);
        int lining = group(group, "Lining");
        for (int i = 0; i < 24; i++) {
            double y = 40 + 95.0 * i;
            box(lining, "Panel board", "mat_07.001", LEFT + 130, y, BACK + 120, RIGHT - LEFT - 260, 90, 14, 2);
            // this exporter turned the boards of one wall inside out
            TriangleSoup left = board(LEFT + 120, y, BACK + 140, 14, 90, FACE - BACK - 280, 2);
            part(lining, "Panel board", "mat_07.001", left.reversed());
            box(lining, "Panel board", "mat_07.001", RIGHT - 134, y, BACK + 140, 14, 90, FACE - BACK - 280, 2);
        }
        int posts = group(group, "Posts");
        for (double x : new double[] {LEFT, RIGHT - 100}) {
            for (double z : new double[] {BACK, FACE - 100}) {
                box(posts, "Post", "Solid 12 copy", x, 28, z, 100, WALL, 100, 5);
            }
        }
        box(posts, "Sill", "Solid 12 copy", LEFT, 28, BACK, RIGHT - LEFT, 60, 100, 4);
        box(posts, "Floor", "mat_07.001", LEFT + 60, 28, BACK + 60, RIGHT - LEFT - 120, 40, FACE - BACK - 120, 3);
    }

    /** Upright boards along a wall, every third a little proud of the rest. */
    private void boards(int group, double x, double z, Vec3 along, double length, boolean doubled) {
        int count = (int) (length / 100);
        boolean isX = along.equals(ALONG);
        for (int i = 0; i < count; i++) {
            double out = i % 3 == 1 ? 12 : 0;
            double w = isX ? 94 : 24;
            double d = isX ? 24 : 94;
            double outX = isX ? 0 : x > 0 ? out : -24 - out;
            double outZ = isX ? -24 - out : 0;
            TriangleSoup soup =
                    board(x + outX + (isX ? 100.0 * i : 0), 40, z + outZ + (isX ? 0 : 100.0 * i), w, WALL + 20, d, 3);
            if (doubled && i == 5) { // drawn twice in the same place
                soup.add(board(x + outX, 40, z + 100.0 * i, w, WALL + 20, d, 3), Transform.IDENTITY);
            }
            part(group, "Board", "Default", soup);
        }
    }

    private void front(int group) {
        int frame = group(group, "Frame");
        double[] at = {LEFT + 100, LEFT + 1250, LEFT + 2400, RIGHT - 150};
        for (double x : at) {
            box(frame, "Mullion", "mat_11", x, 28, FACE - 90, 50, WALL, 70, 4);
        }
        box(frame, "Bottom rail", "mat_11", LEFT + 100, 28, FACE - 90, RIGHT - LEFT - 200, 60, 70, 4);
        box(frame, "Top rail", "mat_11", LEFT + 100, WALL - 32, FACE - 90, RIGHT - LEFT - 200, 60, 70, 4);
        int panes = group(group, "Panes");
        for (int i = 0; i < 3; i++) {
            double w = at[i + 1] - at[i] - 50;
            box(panes, "Pane " + (i + 1), "mat_03", at[i] + 50, 88, FACE - 66, w, WALL - 120, 12, 0);
            box(panes, "Pane " + (i + 1) + " copy", "mat_03", at[i] + 50, 88, FACE - 66, w, WALL - 120, 12, 0);
        }
        int door = group(group, "Door");
        List<Vec3> bow = List.of(
                new Vec3(at[2] - 40, 900, FACE - 40),
                new Vec3(at[2] - 40, 905, FACE + 20),
                new Vec3(at[2] - 40, 1295, FACE + 20),
                new Vec3(at[2] - 40, 1300, FACE - 40));
        part(door, "Handle", "mat_07", Solids.sweep(smooth(bow, 5), Solids.disc(16, 14), ALONG, false));
        for (double y : new double[] {400, 1200, 2000}) {
            part(
                    door,
                    "Hinge",
                    "Solid 12 copy",
                    new TriangleSoup()
                            .add(
                                    Solids.lathe(Solids.profile(0, -50, 9, -50, 9, 50, 0, 50), 20),
                                    Transform.translation(at[1] + 25, y, FACE - 14)));
        }
    }

    private void roof(int group) {
        double middle = (BACK + FACE) / 2;
        double half = (FACE - BACK) / 2 + 350;
        double rise = 900;
        double slope = Math.atan2(rise, half);
        double length = Math.hypot(rise, half);
        for (int side = 0; side < 2; side++) {
            int plane = group(group, side == 0 ? "Back slope" : "Front slope");
            Transform lie = Transform.translation((LEFT + RIGHT) / 2, WALL + 40 + rise, middle)
                    .after(Solids.about(UP, side == 0 ? 180 : 0))
                    .after(Transform.rotation(ALONG, slope));
            double width = RIGHT - LEFT + 700;
            TriangleSoup sheet = new TriangleSoup().add(board(-width / 2, 0, 0, width, 6, length, 0), lie);
            part(plane, "Roof sheet", "mat_02 (2)", side == 0 ? sheet.reversed() : sheet);
            part(
                    plane,
                    "Boarding",
                    "mat_07.001",
                    new TriangleSoup().add(board(-width / 2 + 20, -30, 0, width - 40, 26, length - 30, 2), lie));
            for (int i = 0; i < 12; i++) {
                double x = -width / 2 + (width - 24) * i / 11;
                part(plane, "Seam", "mat_02 (2)", new TriangleSoup().add(board(x, 6, 0, 24, 28, length, 3), lie));
            }
            for (int i = 0; i < 6; i++) {
                double x = -width / 2 + 300 + (width - 660) * i / 5;
                part(
                        plane,
                        "Rafter",
                        "mat_07.001",
                        new TriangleSoup().add(board(x, -170, 40, 60, 138, length - 300, 3), lie));
            }
        }
        List<Vec3> ridge = List.of(
                new Vec3(LEFT - 350, WALL + 60 + rise, middle), new Vec3(RIGHT + 350, WALL + 60 + rise, middle));
        part(group, "Ridge cap", "mat_02 (2)", Solids.sweep(ridge, Solids.roundedRectangle(240, 40, 18, 4), UP, false));
        for (int side = 0; side < 2; side++) {
            double x = side == 0 ? LEFT : RIGHT - 60;
            TriangleSoup gable = new TriangleSoup();
            Vec3 a = new Vec3(x, WALL + 28, BACK + 20);
            Vec3 b = new Vec3(x, WALL + 28, FACE - 20);
            Vec3 c = new Vec3(x, WALL - 10 + rise * 0.8, middle);
            Vec3 t = new Vec3(60, 0, 0);
            gable.triangle(a, b, c).triangle(a.plus(t), c.plus(t), b.plus(t));
            gable.quad(b, a, a.plus(t), b.plus(t));
            gable.quad(c, b, b.plus(t), c.plus(t)).quad(a, c, c.plus(t), a.plus(t));
            part(group, "Gable", "Default", gable);
        }
    }

    private void inside(int group) {
        int benches = group(group, "Benches");
        for (int tier = 0; tier < 3; tier++) {
            int bench = group(benches, "Tier " + (tier + 1));
            double y = 480 + 420.0 * tier;
            double z = -300 - 560.0 * tier;
            for (int i = 0; i < 5; i++) {
                box(bench, "Bench slat", "Material #4", LEFT + 150, y, z - 110.0 * i, 2500, 28, 92, 8);
            }
            for (int i = 0; i < 4; i++) {
                box(bench, "Bearer", "Material #4", LEFT + 200 + 790.0 * i, y - 70, z - 460, 45, 70, 570, 3);
            }
            box(bench, "Fascia", "Material #4", LEFT + 150, y - 90, z + 92, 2500, 90, 22, 4);
            box(bench, "Light strip", "mat_19", LEFT + 200, y - 14, z + 70, 2400, 10, 14, 2);
        }
        stove(group(group, "Stove"));
        towels(group(group, "Towels"));
        int pail = group(group, "Pail");
        List<double[]> side = new ArrayList<>(Solids.profile(0, 0, 105, 0, 112, 6, 135, 240, 132, 246));
        part(pail, "Pail", "mat_07", moved(Solids.lathe(Solids.wall(side, 12), 36), -250, 68, 150));
        part(pail, "Hoop", "Solid 12 copy", moved(Solids.lathe(Solids.circle(119, 70, 4, 8), 36), -250, 68, 150));
        part(pail, "Hoop", "Solid 12 copy", moved(Solids.lathe(Solids.circle(133, 200, 4, 8), 36), -250, 68, 150));
        List<Vec3> ladle = smooth(
                List.of(
                        new Vec3(-250, 330, 150),
                        new Vec3(-190, 420, 150),
                        new Vec3(-90, 640, 150),
                        new Vec3(-60, 720, 150)),
                4);
        part(pail, "Ladle", "mat_07", Solids.sweep(ladle, Solids.disc(9, 10), FRONT, false));
    }

    private void stove(int group) {
        double x = 150;
        double z = -1350;
        box(group, "Body", "mat_11", x - 300, 68, z - 280, 600, 760, 560, 22);
        box(group, "Door", "mat_03", x - 180, 240, z + 276, 360, 300, 14, 6);
        box(group, "Plinth", "mat_02 (2)", x - 420, 62, z - 400, 840, 26, 800, 4);
        Random random = new Random(12);
        int stones = group(group, "Stones");
        for (int i = 0; i < 46; i++) {
            double r = 48 + 22 * random.nextDouble();
            int layer = i / 20;
            double px = x - 220 + 440 * random.nextDouble();
            double pz = z - 200 + 400 * random.nextDouble();
            part(stones, "Stone", "mat_02 (2)", moved(stone(r, random), px, 850 + 62.0 * layer + r * 0.4, pz));
        }
        List<double[]> pipe = new ArrayList<>(Solids.profile(75, 820, 75, 3900, 70, 3905));
        part(group, "Flue", "mat_11", moved(Solids.lathe(Solids.wall(pipe, 4), 32), x, 0, z - 180));
        part(
                group,
                "Flue collar",
                "Solid 12 copy",
                moved(Solids.lathe(Solids.circle(84, 2760, 14, 10), 32), x, 0, z - 180));
        List<double[]> hat = new ArrayList<>(Solids.profile(150, 3990, 148, 3996, 20, 4080, 0, 4084));
        part(group, "Rain cap", "mat_11", moved(Solids.lathe(Solids.wall(hat, 3), 32), x, 0, z - 180));
        for (int i = 0; i < 3; i++) {
            double a = 2 * Math.PI * i / 3;
            box(
                    group,
                    "Cap leg",
                    "mat_11",
                    x + 66 * Math.cos(a) - 5,
                    3890,
                    z - 180 + 66 * Math.sin(a) - 5,
                    10,
                    110,
                    10,
                    1);
        }
    }

    /** A ball knocked out of shape. */
    private static TriangleSoup stone(double radius, Random random) {
        double[] bumps = new double[6];
        for (int i = 0; i < 6; i++) {
            bumps[i] = random.nextDouble() * 2 * Math.PI;
        }
        int rows = 7;
        int columns = 11;
        TriangleSoup soup = new TriangleSoup();
        for (int r = 0; r < rows; r++) {
            for (int c = 0; c < columns; c++) {
                Vec3 a = onStone(radius, r, c, rows, columns, bumps);
                Vec3 b = onStone(radius, r + 1, c, rows, columns, bumps);
                Vec3 d = onStone(radius, r, c + 1, rows, columns, bumps);
                Vec3 e = onStone(radius, r + 1, c + 1, rows, columns, bumps);
                soup.quad(a, d, e, b);
            }
        }
        return soup;
    }

    private static Vec3 onStone(double radius, int row, int column, int rows, int columns, double[] bumps) {
        double t = Math.PI * row / rows;
        double f = 2 * Math.PI * (column % columns) / columns;
        double x = Math.sin(t) * Math.cos(f);
        double y = Math.cos(t);
        double z = Math.sin(t) * Math.sin(f);
        double r = radius
                * (1
                        + 0.12 * Math.sin(2.3 * x + bumps[0]) * Math.cos(2 * y + bumps[1])
                        + 0.1 * Math.sin(3.1 * z + bumps[2])
                        + 0.06 * Math.cos(4 * y + 2 * x + bumps[3]));
        return new Vec3(r * x, 0.72 * r * y, r * z);
    }

    /** Cloths hung over the middle bench's edge: thin sheets, open, as cloth is drawn. */
    private void towels(int group) {
        for (int k = 0; k < 3; k++) {
            double left = LEFT + 500 + 720.0 * k;
            int across = 14;
            int down = 30;
            TriangleSoup cloth = new TriangleSoup();
            for (int i = 0; i < across; i++) {
                for (int j = 0; j < down; j++) {
                    cloth.quad(
                            onTowel(left, k, i, j + 1, across, down),
                            onTowel(left, k, i + 1, j + 1, across, down),
                            onTowel(left, k, i + 1, j, across, down),
                            onTowel(left, k, i, j, across, down));
                }
            }
            part(group, "Towel " + (k + 1), "Color_A05", cloth);
        }
    }

    private static Vec3 onTowel(double left, int k, int i, int j, int across, int down) {
        double u = (double) i / across;
        double s = 900.0 * j / down; // along the cloth, from its upper end
        double top = 480 + 420 + 28 + 4;
        double edge = -300 - 560 + 92 + 26;
        double flat = 380 + 60 * k;
        double ripple = 9 * Math.sin(6.3 * u + k) * Math.min(1, Math.max(0, (s - flat) / 200));
        double x = left + 420 * u + 8 * Math.sin(s / 140 + k);
        if (s <= flat) {
            return new Vec3(x, top + 2 * Math.sin(9 * u), edge - flat + s);
        }
        return new Vec3(x, top - (s - flat), edge + 6 + ripple);
    }

    private void screen(int group) {
        double x = 700;
        box(group, "Screen post", "Solid 12 copy", x, 28, 1500, 70, 1900, 70, 4);
        box(group, "Screen post", "Solid 12 copy", x + 2400, 28, 1500, 70, 1900, 70, 4);
        box(group, "Screen rail", "Solid 12 copy", x + 70, 60, 1515, 2330, 40, 40, 3);
        box(group, "Screen rail", "Solid 12 copy", x + 70, 1860, 1515, 2330, 40, 40, 3);
        TriangleSoup slat = board(-14, 0, -45, 28, 1760, 90, 3);
        int slats = group(group, "Slats");
        for (int i = 0; i < 24; i++) { // copied by the modelling program, not repeated
            Transform at = Transform.translation(x + 120 + 97.0 * i, 100, 1535).after(Solids.about(UP, 35));
            part(slats, "Slat " + (i + 1), "Material #4", new TriangleSoup().add(slat, at));
        }
    }

    private void pool(int group) {
        double x = 1100;
        double z = -1300;
        double w = 2200;
        double d = 2400;
        TriangleSoup tub = new TriangleSoup();
        tub.add(board(x, -1250, z, 60, 1320, d, 6), Transform.IDENTITY);
        tub.add(board(x + w - 60, -1250, z, 60, 1320, d, 6), Transform.IDENTITY);
        tub.add(board(x + 60, -1250, z, w - 120, 1320, 60, 6), Transform.IDENTITY);
        tub.add(board(x + 60, -1250, z + d - 60, w - 120, 1320, 60, 6), Transform.IDENTITY);
        tub.add(board(x + 60, -1250, z + 60, w - 120, 60, d - 120, 0), Transform.IDENTITY);
        part(group, "Tub", "mat_07.001", tub);
        part(group, "Water", "mat_14", water(x + 58, z + 58, w - 116, d - 116));
        int ladder = group(group, "Ladder");
        for (int side = 0; side < 2; side++) {
            double lx = x + 240 + 420.0 * side;
            List<Vec3> rail = smooth(
                    List.of(
                            new Vec3(lx, 40, z + d + 120),
                            new Vec3(lx, 700, z + d + 110),
                            new Vec3(lx, 860, z + d + 20),
                            new Vec3(lx, 800, z + d - 110),
                            new Vec3(lx, 400, z + d - 130),
                            new Vec3(lx, -900, z + d - 130)),
                    6);
            part(ladder, "Rail", "Solid 12 copy", Solids.sweep(rail, Solids.disc(20, 14), ALONG, false));
        }
        for (int i = 0; i < 4; i++) {
            box(ladder, "Rung", "mat_07", x + 240, -120 - 240.0 * i, z + d - 170, 420, 30, 80, 5);
        }
    }

    /** The pool's water: a closed body that reaches a little into the tub, its surface softly waved. */
    private static TriangleSoup water(double x, double z, double w, double d) {
        int n = 24;
        TriangleSoup soup = new TriangleSoup();
        for (int i = 0; i < n; i++) {
            for (int j = 0; j < n; j++) {
                soup.quad(
                        wave(x, z, w, d, i, j, n),
                        wave(x, z, w, d, i, j + 1, n),
                        wave(x, z, w, d, i + 1, j + 1, n),
                        wave(x, z, w, d, i + 1, j, n));
            }
            double y = -1192;
            Vec3[] rim = {
                wave(x, z, w, d, i, 0, n),
                wave(x, z, w, d, i + 1, 0, n),
                wave(x, z, w, d, i, n, n),
                wave(x, z, w, d, i + 1, n, n),
                wave(x, z, w, d, 0, i, n),
                wave(x, z, w, d, 0, i + 1, n),
                wave(x, z, w, d, n, i, n),
                wave(x, z, w, d, n, i + 1, n)
            };
            soup.quad(rim[0], rim[1], low(rim[1], y), low(rim[0], y));
            soup.quad(rim[3], rim[2], low(rim[2], y), low(rim[3], y));
            soup.quad(rim[5], rim[4], low(rim[4], y), low(rim[5], y));
            soup.quad(rim[6], rim[7], low(rim[7], y), low(rim[6], y));
            for (int j = 0; j < n; j++) {
                soup.quad(
                        low(wave(x, z, w, d, i, j, n), y),
                        low(wave(x, z, w, d, i + 1, j, n), y),
                        low(wave(x, z, w, d, i + 1, j + 1, n), y),
                        low(wave(x, z, w, d, i, j + 1, n), y));
            }
        }
        return soup;
    }

    private static Vec3 wave(double x, double z, double w, double d, int i, int j, int n) {
        double u = (double) i / n;
        double v = (double) j / n;
        return new Vec3(x + w * u, -90 + 5 * Math.sin(11 * u + 3 * v) + 4 * Math.sin(9 * v - 5 * u), z + d * v);
    }

    private static Vec3 low(Vec3 p, double y) {
        return new Vec3(p.x(), y, p.z());
    }

    private void fittings(int group) {
        double[][] at = {{-3450, 2250}, {3450, 2250}, {3450, -2250}, {-3450, -2250}};
        int lamps = group(group, "Deck lamps");
        for (double[] p : at) {
            List<double[]> stem = new ArrayList<>(Solids.profile(0, 28, 48, 28, 48, 40, 30, 46, 30, 560, 0, 560));
            part(lamps, "Bollard", "mat_11", moved(Solids.lathe(stem, 24), p[0], 0, p[1]));
            List<double[]> head = new ArrayList<>(Solids.profile(0, 561, 42, 561, 44, 570, 44, 650, 40, 660, 0, 662));
            part(lamps, "Lamp", "mat_19", moved(Solids.lathe(head, 24), p[0], 0, p[1]));
            List<double[]> lid = new ArrayList<>(Solids.profile(0, 663, 60, 663, 62, 668, 58, 676, 0, 684));
            part(lamps, "Lamp lid", "mat_11", moved(Solids.lathe(lid, 24), p[0], 0, p[1]));
        }
        int moorings = group(group, "Moorings");
        for (int side = -1; side <= 1; side += 2) {
            List<double[]> pole = new ArrayList<>(Solids.profile(0, -1600, 110, -1600, 110, 1500, 96, 1530, 0, 1545));
            part(moorings, "Pile", "mat_07", moved(Solids.lathe(pole, 26), side * 3820.0, 0, -1500));
            part(
                    moorings,
                    "Pile ring",
                    "Solid 12 copy",
                    moved(Solids.lathe(Solids.circle(132, 60, 16, 10), 26), side * 3820.0, 0, -1500));
        }
        int bench = group(group, "Outdoor bench");
        for (int i = 0; i < 4; i++) {
            box(bench, "Seat slat", "mat_07", -3000, 440, 1500 + 100.0 * i, 1900, 34, 88, 8);
        }
        for (double x : new double[] {-2850, -1350}) {
            box(bench, "Leg", "Solid 12 copy", x, 28, 1510, 60, 412, 380, 5);
        }
        for (int i = 0; i < 6; i++) {
            double x = LEFT + 300 + 560.0 * i;
            TriangleSoup hook = Solids.sweep(
                    smooth(
                            List.of(
                                    new Vec3(x, 1700, FACE + 2),
                                    new Vec3(x, 1690, FACE + 50),
                                    new Vec3(x, 1650, FACE + 70),
                                    new Vec3(x, 1640, FACE + 90),
                                    new Vec3(x, 1670, FACE + 100)),
                            4),
                    Solids.disc(7, 10),
                    ALONG,
                    false);
            if (i < 1 || i > 4) {
                part(group, "Hook", "Solid 12 copy", hook);
            }
        }
    }

    /** A box from its lower left back corner, its edges along x, y and z rounded off by a bevel in millimetres. */
    private static TriangleSoup board(double x, double y, double z, double w, double h, double d, double bevel) {
        TriangleSoup soup = new TriangleSoup();
        if (bevel <= 0) {
            List<double[]> section = List.of(
                    new double[] {w / 2, h / 2},
                    new double[] {-w / 2, h / 2},
                    new double[] {-w / 2, -h / 2},
                    new double[] {w / 2, -h / 2});
            return soup.add(along(section, d), Transform.translation(x + w / 2, y + h / 2, z));
        }
        // the section lies across the longest side, so that long edges are the bevelled ones
        if (w >= h && w >= d) {
            return soup.add(
                    along(chamfered(d, h, bevel), w),
                    Transform.translation(x, y + h / 2, z + d / 2).after(Solids.about(UP, 90)));
        }
        if (h >= d) {
            return soup.add(
                    along(chamfered(w, d, bevel), h),
                    Transform.translation(x + w / 2, y + h, z + d / 2).after(Solids.about(ALONG, 90)));
        }
        return soup.add(along(chamfered(w, h, bevel), d), Transform.translation(x + w / 2, y + h / 2, z));
    }

    private static List<double[]> chamfered(double w, double h, double bevel) {
        double b = Math.min(bevel, Math.min(w, h) / 3);
        double x = w / 2;
        double y = h / 2;
        return List.of(
                new double[] {x, y - b},
                new double[] {x - b, y},
                new double[] {b - x, y},
                new double[] {-x, y - b},
                new double[] {-x, b - y},
                new double[] {b - x, -y},
                new double[] {x - b, -y},
                new double[] {x, b - y});
    }

    /** A section in the (x, y) plane carried straight along +z. */
    private static TriangleSoup along(List<double[]> section, double length) {
        TriangleSoup soup = new TriangleSoup();
        int n = section.size();
        for (int i = 0; i < n; i++) {
            double[] a = section.get(i);
            double[] b = section.get((i + 1) % n);
            Vec3 a0 = new Vec3(a[0], a[1], 0);
            Vec3 b0 = new Vec3(b[0], b[1], 0);
            Vec3 go = new Vec3(0, 0, length);
            soup.quad(a0, b0, b0.plus(go), a0.plus(go));
            if (i > 0 && i + 1 < n) {
                Vec3 first = new Vec3(section.get(0)[0], section.get(0)[1], 0);
                soup.triangle(first, b0, a0);
                soup.triangle(first.plus(go), a0.plus(go), b0.plus(go));
            }
        }
        return soup;
    }

    private static List<Vec3> smooth(List<Vec3> points, int steps) {
        List<double[]> flat = new ArrayList<>();
        points.forEach(p -> flat.add(new double[] {p.x(), p.y(), p.z()}));
        return Solids.curve(flat, steps).stream()
                .map(p -> new Vec3(p[0], p[1], p[2]))
                .toList();
    }

    private static TriangleSoup moved(TriangleSoup soup, double x, double y, double z) {
        return new TriangleSoup().add(soup, Transform.translation(x, y, z));
    }

    private int group(int parent, String name) {
        return draft.group(parent, name, Transform.IDENTITY);
    }

    private void box(
            int group,
            String name,
            String source,
            double x,
            double y,
            double z,
            double w,
            double h,
            double d,
            double bevel) {
        part(group, name, source, board(x, y, z, w, h, d, bevel));
    }

    private void part(int group, String name, String source, TriangleSoup millimetres) {
        int mesh = draft.mesh(millimetres.toMesh(CREASE).scaled(0.001));
        draft.part(group, name, source, mesh, Transform.IDENTITY);
    }
}

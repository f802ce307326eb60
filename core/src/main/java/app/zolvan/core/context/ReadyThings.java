package app.zolvan.core.context;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Solids;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import java.util.List;
import java.util.Random;

/** Things of everyday size that give a design scale and company. Metres; each stands on its foot at the origin. */
final class ReadyThings {
    private static final double CREASE = Math.toRadians(35);
    private static final int ROUND = 40;
    /** Of a rod. */
    private static final int SIDES = 12;
    /** A slanting leg stands on its lower edge. */
    private static final double FOOT = 0.0027;

    /** Lays down what stands upright. */
    private static final Transform LEVEL = Solids.about(Vec3.axis(0), -90);

    private static final double GOLDEN = Math.PI * (3 - Math.sqrt(5));

    private ReadyThings() {}

    /** Of a stool 45 cm high: a round seat. */
    static Mesh seat() {
        return turned(0, 0.418, 0.15, 0.418, 0.165, 0.424, 0.17, 0.434, 0.165, 0.445, 0.15, 0.45, 0, 0.45);
    }

    /** Its three legs and the ring that joins them. */
    static Mesh legs() {
        TriangleSoup soup = Solids.lathe(Solids.circle(0.163, 0.14, 0.008, 10), ROUND);
        for (int i = 0; i < 3; i++) {
            double a = 2 * Math.PI * i / 3;
            Vec3 foot = new Vec3(0.19 * Math.cos(a), FOOT, 0.19 * Math.sin(a));
            Vec3 head = new Vec3(0.11 * Math.cos(a), 0.424, 0.11 * Math.sin(a));
            rod(soup, foot, head, 0.014, 0.017);
        }
        return soup.toMesh(CREASE);
    }

    /** Of a chair 82 cm high: a seat of 44 × 42 cm and a back that leans. */
    static Mesh chairBoards() {
        TriangleSoup soup = new TriangleSoup();
        soup.add(board(0.44, 0.42), Transform.translation(0, 0.432, 0.02).after(LEVEL));
        soup.add(board(0.42, 0.18), Transform.translation(0, 0.73, -0.222).after(Solids.about(Vec3.axis(0), -10)));
        return soup.toMesh(CREASE);
    }

    /** Its four legs, of which those behind carry the back. */
    static Mesh chairFrame() {
        TriangleSoup soup = new TriangleSoup();
        for (int side : new int[] {-1, 1}) {
            double x = 0.19 * side;
            rod(soup, new Vec3(x, 0, 0.19), new Vec3(x, 0.434, 0.19), 0.011, 0.012);
            rod(soup, new Vec3(x, 0, -0.2), new Vec3(x, 0.44, -0.185), 0.011, 0.012);
            rod(soup, new Vec3(x, 0.43, -0.185), new Vec3(x, 0.815, -0.253), 0.012, 0.01);
            rod(soup, new Vec3(x, 0.22, -0.19), new Vec3(x, 0.22, 0.19), 0.008, 0.008);
        }
        return soup.toMesh(CREASE);
    }

    /** Of a table 74 cm high: 160 × 80 cm. */
    static Mesh tableTop() {
        TriangleSoup soup = new TriangleSoup();
        soup.add(board(1.6, 0.8), Transform.translation(0, 0.722, 0).after(LEVEL));
        return soup.toMesh(CREASE);
    }

    static Mesh tableLegs() {
        TriangleSoup soup = new TriangleSoup();
        for (int i = 0; i < 4; i++) {
            double x = i % 2 == 0 ? -0.72 : 0.72;
            double z = i < 2 ? -0.32 : 0.32;
            rod(soup, new Vec3(x, 0, z), new Vec3(x, 0.722, z), 0.018, 0.024);
        }
        return soup.toMesh(CREASE);
    }

    /** 18 mm thick, upright, about the origin; its corners and edges are round. */
    private static TriangleSoup board(double width, double height) {
        return Solids.plate(Solids.roundedRectangle(width, height, 0.03, 6), 0.018, 0.003, p -> p);
    }

    /** 24 cm wide and 9 cm high, 5 mm thick. */
    static Mesh bowl() {
        List<double[]> outer = Solids.profile(0, 0, 0.045, 0);
        outer.addAll(Solids.curve(Solids.profile(0.05, 0.002, 0.085, 0.024, 0.11, 0.054, 0.12, 0.08, 0.12, 0.09), 8));
        return Solids.lathe(Solids.wall(outer, 0.005), ROUND).toMesh(CREASE);
    }

    /** 22 cm wide and 20 cm high, with a rim. */
    static Mesh pot() {
        return turned(0, 0, 0.075, 0, 0.08, 0.005, 0.1, 0.165, 0.11, 0.167, 0.112, 0.2, 0.1, 0.2, 0.098, 0.17, 0, 0.17);
    }

    static Mesh soil() {
        return Solids.latheOpen(Solids.profile(0.0975, 0.171, 0.06, 0.178, 0, 0.18), ROUND)
                .toMesh(CREASE);
    }

    /** Arching leaves out of a pot, up to 70 cm high. */
    static Mesh leaves() {
        Random drawn = new Random(11);
        TriangleSoup soup = new TriangleSoup();
        for (int i = 0; i < 34; i++) {
            double a = i * GOLDEN;
            double rise = 0.75 - 0.5 * i / 34 + 0.06 * drawn.nextGaussian();
            double length = 0.34 + 0.14 * drawn.nextDouble();
            blade(soup, new Vec3(0.02 * Math.cos(a), 0.17, 0.02 * Math.sin(a)), a, rise, length, 0.055);
        }
        return soup.toMesh(CREASE);
    }

    /** A leaf that bends over towards its tip, a little folded along its rib. */
    private static void blade(TriangleSoup soup, Vec3 from, double turn, double rise, double length, double width) {
        int steps = 9;
        Vec3 out = new Vec3(Math.cos(turn), 0, Math.sin(turn));
        Vec3 across = new Vec3(-Math.sin(turn), 0, Math.cos(turn));
        Vec3[][] rows = new Vec3[steps + 1][];
        Vec3 at = from;
        for (int i = 0; i <= steps; i++) {
            double t = i / (double) steps;
            double angle = Math.PI / 2 * (0.35 + 0.65 * rise) - 1.5 * t * t;
            double half = width / 2 * Math.sin(Math.PI * (0.06 + 0.94 * t)) * (1 - 0.3 * t);
            Vec3 fold = Vec3.axis(1).times(0.35 * half);
            rows[i] = new Vec3[] {
                at.plus(across.times(-half)).plus(fold),
                at,
                at.plus(across.times(half)).plus(fold)
            };
            at = at.plus(out.times(Math.cos(angle) * length / steps))
                    .plus(Vec3.axis(1).times(Math.sin(angle) * length / steps));
        }
        for (int i = 0; i < steps; i++) {
            for (int k = 0; k < 2; k++) {
                soup.quad(rows[i][k], rows[i + 1][k], rows[i + 1][k + 1], rows[i][k + 1]);
            }
        }
    }

    /** Of a tree 5 m high: its trunk and boughs. */
    static Mesh trunk() {
        TriangleSoup soup = new TriangleSoup();
        boughs((from, to, thick, thin) -> rod(soup, from, to, thick, thin));
        return soup.toMesh(CREASE);
    }

    /** Its leaves, about the ends of its boughs. */
    static Mesh crown() {
        Random drawn = new Random(23);
        TriangleSoup soup = new TriangleSoup();
        boughs((from, to, thick, thin) -> {
            if (thin > 0.02) {
                return;
            }
            for (int i = 0; i < 90; i++) {
                Vec3 at = from.plus(to.minus(from).times(0.3 + 0.8 * drawn.nextDouble()))
                        .plus(new Vec3(drawn.nextGaussian(), drawn.nextGaussian(), drawn.nextGaussian()).times(0.26));
                double turn = 2 * Math.PI * drawn.nextDouble();
                double tilt = 0.9 * drawn.nextDouble();
                Vec3 u = new Vec3(Math.cos(turn) * Math.cos(tilt), Math.sin(tilt), Math.sin(turn) * Math.cos(tilt))
                        .times(0.075);
                Vec3 v = new Vec3(-Math.sin(turn), 0, Math.cos(turn)).times(0.045);
                soup.quad(at.minus(u), at.plus(v), at.plus(u), at.minus(v));
            }
        });
        return soup.toMesh(CREASE);
    }

    private interface Bough {
        void grow(Vec3 from, Vec3 to, double thick, double thin);
    }

    private static void boughs(Bough made) {
        Random drawn = new Random(5);
        Vec3 at = Vec3.ZERO;
        for (int i = 0; i < 8; i++) {
            Vec3 next = new Vec3(0.05 * drawn.nextGaussian(), 0.55 * (i + 1), 0.05 * drawn.nextGaussian());
            double thick = 0.11 * (1 - i / 9.0);
            made.grow(at, next, thick, 0.11 * (1 - (i + 1) / 9.0));
            for (int k = 0; i >= 2 && k < 5; k++) {
                double turn = (5 * i + k) * GOLDEN;
                double reach = 1.35 * (1 - 0.09 * i) * (0.8 + 0.4 * drawn.nextDouble());
                Vec3 end = next.plus(new Vec3(
                        reach * Math.cos(turn), reach * (0.35 + 0.1 * i) * drawn.nextDouble(), reach * Math.sin(turn)));
                made.grow(next, end, 0.4 * thick, 0.012);
            }
            at = next;
        }
    }

    private static Mesh turned(double... profile) {
        return Solids.lathe(Solids.profile(profile), ROUND).toMesh(CREASE);
    }

    /** A round rod, closed at both ends. */
    private static void rod(TriangleSoup soup, Vec3 from, Vec3 to, double thick, double thin) {
        Vec3 way = to.minus(from);
        Vec3 y = way.normalised();
        Vec3 x = y.cross(Math.abs(y.x()) < 0.9 ? Vec3.axis(0) : Vec3.axis(1)).normalised();
        Vec3 z = x.cross(y);
        Transform along = Transform.ofColumns(new double[] {
            x.x(), x.y(), x.z(), 0, y.x(), y.y(), y.z(), 0, z.x(), z.y(), z.z(), 0, from.x(), from.y(), from.z(), 1
        });
        soup.add(Solids.lathe(Solids.profile(0, 0, thick, 0, thin, way.length(), 0, way.length()), SIDES), along);
    }
}

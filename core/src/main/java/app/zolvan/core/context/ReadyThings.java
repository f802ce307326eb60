package app.zolvan.core.context;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import java.util.Random;

/** Things of everyday size that give a design scale and company. Metres; each stands on its foot at the origin. */
final class ReadyThings {
    private static final double CREASE = Math.toRadians(35);
    private static final int ROUND = 40;
    /** A slanting leg stands on its lower edge. */
    private static final double FOOT = 0.0027;

    private static final double GOLDEN = Math.PI * (3 - Math.sqrt(5));

    private ReadyThings() {}

    /** Of a stool 45 cm high: a round seat. */
    static Mesh seat() {
        return turned(new double[][] {
            {0, 0.418}, {0.15, 0.418}, {0.165, 0.424}, {0.17, 0.434}, {0.165, 0.445}, {0.15, 0.45}, {0, 0.45}
        });
    }

    /** Its three legs and the ring that joins them. */
    static Mesh legs() {
        TriangleSoup soup = new TriangleSoup();
        for (int i = 0; i < 3; i++) {
            double a = 2 * Math.PI * i / 3;
            Vec3 foot = new Vec3(0.19 * Math.cos(a), FOOT, 0.19 * Math.sin(a));
            Vec3 head = new Vec3(0.11 * Math.cos(a), 0.424, 0.11 * Math.sin(a));
            rod(soup, foot, head, 0.014, 0.017, 16);
        }
        int ring = 48;
        for (int i = 0; i < ring; i++) {
            rod(soup, onRing(i, ring), onRing(i + 1, ring), 0.008, 0.008, 10);
        }
        return soup.toMesh(CREASE);
    }

    private static Vec3 onRing(int i, int of) {
        double a = 2 * Math.PI * i / of;
        return new Vec3(0.163 * Math.cos(a), 0.14, 0.163 * Math.sin(a));
    }

    /** 24 cm wide and 9 cm high, 5 mm thick. */
    static Mesh bowl() {
        int steps = 20;
        double[][] profile = new double[2 * steps + 5][];
        int n = 0;
        profile[n++] = new double[] {0, 0};
        profile[n++] = new double[] {0.045, 0};
        for (int i = 0; i <= steps; i++) {
            double a = 0.5 * Math.PI * (0.12 + 0.88 * i / steps);
            profile[n++] = new double[] {0.12 * Math.sin(a) + 0.001, 0.09 - 0.084 * Math.cos(a)};
        }
        for (int i = steps; i >= 0; i--) {
            double a = 0.5 * Math.PI * (0.12 + 0.88 * i / steps);
            profile[n++] = new double[] {0.115 * Math.sin(a), 0.09 - 0.079 * Math.cos(a)};
        }
        profile[n] = new double[] {0, 0.011};
        return turned(profile);
    }

    /** 22 cm wide and 20 cm high, with a rim. */
    static Mesh pot() {
        return turned(new double[][] {
            {0, 0},
            {0.075, 0},
            {0.08, 0.005},
            {0.1, 0.165},
            {0.11, 0.167},
            {0.112, 0.2},
            {0.1, 0.2},
            {0.098, 0.17},
            {0, 0.17}
        });
    }

    static Mesh soil() {
        return turned(new double[][] {{0.0975, 0.171}, {0.06, 0.178}, {0, 0.18}});
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
        boughs((from, to, thick, thin) -> rod(soup, from, to, thick, thin, 12));
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

    /** A body turned about the upright axis: its outline from below outwards and up, as radius and height. */
    private static Mesh turned(double[][] profile) {
        TriangleSoup soup = new TriangleSoup();
        for (int i = 0; i < ROUND; i++) {
            for (int k = 0; k + 1 < profile.length; k++) {
                Vec3 a = about(profile[k], i);
                Vec3 b = about(profile[k], i + 1);
                Vec3 c = about(profile[k + 1], i + 1);
                Vec3 d = about(profile[k + 1], i);
                soup.triangle(a, d, c).triangle(a, c, b);
            }
        }
        return soup.toMesh(CREASE);
    }

    private static Vec3 about(double[] at, int step) {
        double a = 2 * Math.PI * (step % ROUND) / ROUND;
        return new Vec3(at[0] * Math.cos(a), at[1], at[0] * Math.sin(a));
    }

    /** A round rod, closed at both ends. */
    private static void rod(TriangleSoup soup, Vec3 from, Vec3 to, double thick, double thin, int sides) {
        Vec3 way = to.minus(from).normalised();
        Vec3 u =
                way.cross(Math.abs(way.y()) < 0.9 ? Vec3.axis(1) : Vec3.axis(0)).normalised();
        Transform turn = Transform.rotation(way, 2 * Math.PI / sides);
        Vec3 v = u;
        for (int i = 0; i < sides; i++) {
            Vec3 next = i == sides - 1 ? u : turn.point(v);
            soup.quad(
                    from.plus(v.times(thick)),
                    from.plus(next.times(thick)),
                    to.plus(next.times(thin)),
                    to.plus(v.times(thin)));
            soup.triangle(from, from.plus(next.times(thick)), from.plus(v.times(thick)));
            soup.triangle(to, to.plus(v.times(thin)), to.plus(next.times(thin)));
            v = next;
        }
    }
}

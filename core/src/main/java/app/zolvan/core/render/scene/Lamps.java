package app.zolvan.core.render.scene;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Triangles;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Lamp;
import app.zolvan.core.render.sample.Directions;
import app.zolvan.core.render.surface.SurfaceValues;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Predicate;

/**
 * All that shines from a place: triangles that glow and lamps. One is chosen by a tree of lights (Conty Estevez & Kulla
 * 2018): at each fork by chance in proportion to what either side may send to the place that asks, by its power, distance
 * and direction. A point on a triangle is chosen evenly by area.
 */
public final class Lamps {
    private final Source[] sources;
    private final int[][] numberOf;
    // the tree: forks have two children, leaves one source
    private final double[] box;
    /** Of each node the middle of its box and half its diagonal, squared: no light in it is thought nearer than that. */
    private final double[] ball;

    private final double[] power;
    private final double[] cone;
    private final int[] child;
    private final int[] parent;
    private final int[] leafOf;
    private int nodes;

    /** A place that shines, a direction of unit length, and the light along it. */
    abstract static class Beam {
        public double x;
        public double y;
        public double z;
        public double dx;
        public double dy;
        public double dz;
        public double r;
        public double g;
        public double b;
        public int circuit;
        int source;
        double chance;
        /** Weights of a triangle's second and third corner. */
        double b1;

        double b2;
    }

    /**
     * A sampled point, seen from the place that asked: the direction leads to it. Its light is in cd/m² for a surface, in lux
     * on a face turned to it for a lamp without extent.
     */
    public static final class Point extends Beam {
        public double distance;
        /** Density per steradian, or for a lamp without extent the chance that it was chosen. */
        public double pdf;

        public boolean isPoint;
        int instance;
        int primitive;
        /** What glows there. */
        Skin skin;

        boolean textured;
    }

    /** Light that sets out from a lamp: its flux in lumens, if this were all that is sent out. */
    public static final class Departure extends Beam {
        private final double[] turned = new double[3];

        /** The number of the lamp. */
        public int source() {
            return source;
        }
    }

    /**
     * A triangle (three corners in the world) or a lamp.
     *
     * @param mirrored whether the triangle's corners run the other way round than they do in its mesh
     */
    private record Source(
            double[] corners, double area, Skin skin, boolean mirrored, int instance, int primitive, Lamp lamp) {
        /** What is worn where light goes in a direction from it. */
        Skin worn(double dx, double dy, double dz) {
            if (!skin.hasTwoSides()) {
                return skin;
            }
            double[] c = corners;
            double ux = c[3] - c[0];
            double uy = c[4] - c[1];
            double uz = c[5] - c[2];
            double vx = c[6] - c[0];
            double vy = c[7] - c[1];
            double vz = c[8] - c[2];
            double out = dx * (uy * vz - uz * vy) + dy * (uz * vx - ux * vz) + dz * (ux * vy - uy * vx);
            return skin.side((out < 0) != mirrored);
        }

        double power() {
            if (lamp == null) {
                return Math.PI * area * (Math.max(brightness(skin.values), brightness(skin.side(true).values)) + 1e-12);
            }
            if (lamp instanceof Lamp.Point p) {
                return 4 * Math.PI * p.intensity().luminance() + 1e-12;
            }
            if (lamp instanceof Lamp.Spot s) {
                double solid = 2 * Math.PI * (1 - (StrictMath.cos(s.inner()) + StrictMath.cos(s.outer())) / 2);
                return solid * s.intensity().luminance() + 1e-12;
            }
            Lamp.Measured m = (Lamp.Measured) lamp;
            return m.profile().flux() * m.scale().luminance() + 1e-12;
        }
    }

    private static double brightness(SurfaceValues s) {
        return 0.2126 * s.emissionR + 0.7152 * s.emissionG + 0.0722 * s.emissionB;
    }

    Lamps(List<RenderScene.Instance> instances, List<Lamp> lamps) {
        this(instances, lamps, SurfaceValues::emits);
    }

    /** The panes of a scene, as if they shone evenly. */
    static Lamps ofPanes(List<RenderScene.Instance> instances) {
        return new Lamps(instances, List.of(), SurfaceValues::isPane);
    }

    private Lamps(List<RenderScene.Instance> instances, List<Lamp> lamps, Predicate<SurfaceValues> shines) {
        numberOf = new int[instances.size()][];
        List<Source> all = new ArrayList<>();
        for (int i = 0; i < instances.size(); i++) {
            gather(instances.get(i), i, shines, all);
        }
        for (Lamp lamp : lamps) {
            if (!(lamp instanceof Lamp.Sun)) {
                all.add(new Source(position(lamp), 0, null, false, -1, -1, lamp));
            }
        }
        sources = all.toArray(new Source[0]);
        int n = sources.length;
        int room = Math.max(1, 2 * n);
        box = new double[6 * room];
        ball = new double[4 * room];
        power = new double[room];
        cone = new double[4 * room];
        child = new int[2 * room];
        parent = new int[room];
        leafOf = new int[n];
        if (n > 0) {
            Integer[] order = new Integer[n];
            Arrays.setAll(order, i -> i);
            build(order, 0, n, -1);
        }
    }

    private void gather(RenderScene.Instance in, int instance, Predicate<SurfaceValues> shines, List<Source> all) {
        Mesh mesh = in.mesh();
        boolean mirrored = Transform.ofColumns(in.toWorld()).determinant() < 0;
        for (int span = 0; span < in.skins().length; span++) {
            Skin skin = in.skins()[span];
            if (!shines.test(skin.values) && !shines.test(skin.side(true).values)) {
                continue;
            }
            if (numberOf[instance] == null) {
                numberOf[instance] = new int[mesh.triangleCount()];
                Arrays.fill(numberOf[instance], -1);
            }
            for (int t = mesh.spanStarts()[span]; t < mesh.spanStarts()[span + 1]; t++) {
                Vec3 a = RenderScene.world(in.toWorld(), mesh.positions(), mesh.indices()[3 * t]);
                Vec3 b = RenderScene.world(in.toWorld(), mesh.positions(), mesh.indices()[3 * t + 1]);
                Vec3 c = RenderScene.world(in.toWorld(), mesh.positions(), mesh.indices()[3 * t + 2]);
                double area = Triangles.area(a, b, c);
                if (area > 0) {
                    numberOf[instance][t] = all.size();
                    double[] corners = {a.x(), a.y(), a.z(), b.x(), b.y(), b.z(), c.x(), c.y(), c.z()};
                    all.add(new Source(corners, area, skin, mirrored, instance, t, null));
                }
            }
        }
    }

    private static double[] position(Lamp lamp) {
        Vec3 p = lamp instanceof Lamp.Point a
                ? a.at()
                : lamp instanceof Lamp.Spot s ? s.at() : ((Lamp.Measured) lamp).at();
        return new double[] {p.x(), p.y(), p.z()};
    }

    private double middle(int source, int axis) {
        double[] c = sources[source].corners;
        return c.length == 3 ? c[axis] : (c[axis] + c[axis + 3] + c[axis + 6]) / 3;
    }

    /** Halves a run of sources at the middle of its longest side, and gives the node's number. */
    private int build(Integer[] order, int from, int to, int above) {
        int node = nodes++;
        parent[node] = above;
        if (to - from == 1) {
            leaf(node, order[from]);
            return node;
        }
        int axis = longest(order, from, to);
        Arrays.sort(order, from, to, (p, q) -> {
            int c = Double.compare(middle(p, axis), middle(q, axis));
            return c != 0 ? c : Integer.compare(p, q);
        });
        int mid = (from + to) >>> 1;
        int left = build(order, from, mid, node);
        int right = build(order, mid, to, node);
        child[2 * node] = left;
        child[2 * node + 1] = right;
        power[node] = power[left] + power[right];
        for (int k = 0; k < 3; k++) {
            box[6 * node + k] = Math.min(box[6 * left + k], box[6 * right + k]);
            box[6 * node + 3 + k] = Math.max(box[6 * left + 3 + k], box[6 * right + 3 + k]);
        }
        joinCones(node, left, right);
        setBall(node);
        return node;
    }

    private int longest(Integer[] order, int from, int to) {
        int best = 0;
        double most = -1;
        for (int axis = 0; axis < 3; axis++) {
            double lo = Double.POSITIVE_INFINITY;
            double hi = Double.NEGATIVE_INFINITY;
            for (int i = from; i < to; i++) {
                double m = middle(order[i], axis);
                lo = Math.min(lo, m);
                hi = Math.max(hi, m);
            }
            if (hi - lo > most) {
                most = hi - lo;
                best = axis;
            }
        }
        return best;
    }

    private void leaf(int node, int source) {
        Source s = sources[source];
        child[2 * node] = -1;
        child[2 * node + 1] = source;
        leafOf[source] = node;
        power[node] = s.power();
        for (int k = 0; k < 3; k++) {
            double lo = s.corners[k];
            double hi = lo;
            for (int i = k + 3; i < s.corners.length; i += 3) {
                lo = Math.min(lo, s.corners[i]);
                hi = Math.max(hi, s.corners[i]);
            }
            box[6 * node + k] = lo;
            box[6 * node + 3 + k] = hi;
        }
        Vec3 axis = Vec3.axis(1);
        double spread = Math.PI;
        if (s.lamp instanceof Lamp.Spot spot) {
            axis = spot.axis();
            spread = spot.outer();
        }
        setCone(node, axis, spread);
        setBall(node);
    }

    private void setBall(int node) {
        double radius2 = 0;
        for (int k = 0; k < 3; k++) {
            double low = box[6 * node + k];
            double high = box[6 * node + 3 + k];
            ball[4 * node + k] = (low + high) / 2;
            radius2 += (high - low) * (high - low) / 4;
        }
        ball[4 * node + 3] = Math.max(radius2, 1e-12);
    }

    private void setCone(int node, Vec3 axis, double spread) {
        cone[4 * node] = axis.x();
        cone[4 * node + 1] = axis.y();
        cone[4 * node + 2] = axis.z();
        cone[4 * node + 3] = spread;
    }

    private void joinCones(int node, int a, int b) {
        Vec3 x = new Vec3(cone[4 * a], cone[4 * a + 1], cone[4 * a + 2]);
        Vec3 y = new Vec3(cone[4 * b], cone[4 * b + 1], cone[4 * b + 2]);
        double between = StrictMath.acos(Math.max(-1, Math.min(1, x.dot(y))));
        double wide = Math.max(cone[4 * a + 3], cone[4 * b + 3]);
        Vec3 axis = x.plus(y).normalised();
        double spread = between / 2 + wide;
        setCone(node, axis, axis.length() > 0.5 ? Math.min(Math.PI, spread) : Math.PI);
    }

    public boolean isEmpty() {
        return sources.length == 0;
    }

    /** The square of how far a node's lights are taken to be from a place. */
    private double distance2(int node, double x, double y, double z) {
        double cx = ball[4 * node] - x;
        double cy = ball[4 * node + 1] - y;
        double cz = ball[4 * node + 2] - z;
        return Math.max(cx * cx + cy * cy + cz * cz, ball[4 * node + 3]);
    }

    /** Whether a node's lights may shine on a place at all, by the cone they shine into. */
    private boolean faces(int node, double x, double y, double z) {
        double spread = cone[4 * node + 3];
        if (spread >= Math.PI) {
            return true;
        }
        double cx = ball[4 * node] - x;
        double cy = ball[4 * node + 1] - y;
        double cz = ball[4 * node + 2] - z;
        double d2 = cx * cx + cy * cy + cz * cz;
        double radius2 = ball[4 * node + 3];
        if (d2 <= radius2) {
            return true;
        }
        double cosine = -(cone[4 * node] * cx + cone[4 * node + 1] * cy + cone[4 * node + 2] * cz) / Math.sqrt(d2);
        double off = StrictMath.acos(Math.max(-1, Math.min(1, cosine))) - StrictMath.asin(Math.sqrt(radius2 / d2));
        return off <= spread;
    }

    /** Chance of going to the first child: by power over distance squared. */
    private double first(int node, double x, double y, double z) {
        int left = child[2 * node];
        int right = child[2 * node + 1];
        double a = faces(left, x, y, z) ? power[left] * distance2(right, x, y, z) : 0;
        double b = faces(right, x, y, z) ? power[right] * distance2(left, x, y, z) : 0;
        return a + b > 0 ? a / (a + b) : 0.5;
    }

    /** Chooses a source, by what may reach a place or by power alone. */
    private void choose(double w, boolean byPlace, double x, double y, double z, Beam out) {
        int node = 0;
        double chance = 1;
        double rest = w;
        while (child[2 * node] >= 0) {
            double p = byPlace ? first(node, x, y, z) : power[child[2 * node]] / power[node];
            boolean left = rest < p;
            rest = left ? rest / p : Math.min(1 - 1e-12, (rest - p) / (1 - p));
            chance *= left ? p : 1 - p;
            node = child[2 * node + (left ? 0 : 1)];
        }
        out.source = child[2 * node + 1];
        out.chance = chance;
    }

    /** Chooses a point of a triangle, evenly. */
    private static void spread(double[] o, double u, double v, Beam out) {
        double root = Math.sqrt(u);
        double b = root * (1 - v);
        double c = root * v;
        double a = 1 - b - c;
        out.x = a * o[0] + b * o[3] + c * o[6];
        out.y = a * o[1] + b * o[4] + c * o[7];
        out.z = a * o[2] + b * o[5] + c * o[8];
        out.b1 = b;
        out.b2 = c;
    }

    /** Cosine between the beam and the triangle's normal, on either side. */
    private static double cosine(Source s, Beam beam) {
        double[] o = s.corners;
        double nx = (o[4] - o[1]) * (o[8] - o[2]) - (o[5] - o[2]) * (o[7] - o[1]);
        double ny = (o[5] - o[2]) * (o[6] - o[0]) - (o[3] - o[0]) * (o[8] - o[2]);
        double nz = (o[3] - o[0]) * (o[7] - o[1]) - (o[4] - o[1]) * (o[6] - o[0]);
        return Math.abs(beam.dx * nx + beam.dy * ny + beam.dz * nz) / (2 * s.area);
    }

    private static void shine(Beam beam, double r, double g, double b, double share, int circuit) {
        beam.r = share * r;
        beam.g = share * g;
        beam.b = share * b;
        beam.circuit = circuit;
    }

    /** Samples what shines on a place; false where nothing does. */
    public boolean sample(double x, double y, double z, double u, double v, double w, Point out) {
        choose(w, true, x, y, z, out);
        Source s = sources[out.source];
        out.isPoint = s.lamp != null;
        if (out.isPoint) {
            out.x = s.corners[0];
            out.y = s.corners[1];
            out.z = s.corners[2];
        } else {
            spread(s.corners, u, v, out);
        }
        if (!look(x, y, z, out)) {
            return false;
        }
        if (out.isPoint) {
            LinearRgb c = colour(s.lamp);
            double share = towards(s.lamp, -out.dx, -out.dy, -out.dz);
            shine(out, c.r(), c.g(), c.b(), share / (out.distance * out.distance), s.lamp.circuit());
            out.pdf = out.chance;
            out.textured = false;
            return share > 0;
        }
        double cosine = cosine(s, out);
        if (cosine < 1e-6) {
            return false;
        }
        Skin worn = s.worn(-out.dx, -out.dy, -out.dz);
        SurfaceValues values = worn.values;
        shine(out, values.emissionR, values.emissionG, values.emissionB, 1, worn.circuit);
        out.skin = worn;
        out.pdf = out.chance / s.area * out.distance * out.distance / cosine;
        out.instance = s.instance;
        out.primitive = s.primitive;
        out.textured = !worn.isPlain();
        return true;
    }

    private static boolean look(double x, double y, double z, Point out) {
        double dx = out.x - x;
        double dy = out.y - y;
        double dz = out.z - z;
        double d = Math.sqrt(dx * dx + dy * dy + dz * dz);
        out.distance = d;
        out.dx = dx / d;
        out.dy = dy / d;
        out.dz = dz / d;
        return d > 1e-9;
    }

    /** Light of a lamp without extent in its brightest unit direction, as a colour to be multiplied. */
    private static LinearRgb colour(Lamp lamp) {
        if (lamp instanceof Lamp.Point p) {
            return p.intensity();
        }
        return lamp instanceof Lamp.Spot s ? s.intensity() : ((Lamp.Measured) lamp).scale();
    }

    /** By what its colour is to be multiplied in a direction that leads away from it. */
    private static double towards(Lamp lamp, double x, double y, double z) {
        if (lamp instanceof Lamp.Point) {
            return 1;
        }
        if (lamp instanceof Lamp.Spot s) {
            return within(s, x * s.axis().x() + y * s.axis().y() + z * s.axis().z());
        }
        return measured((Lamp.Measured) lamp, x, y, z);
    }

    /** 1 within the inner cone, 0 beyond the outer one, smooth between (Hermite). */
    private static double within(Lamp.Spot s, double cosine) {
        double angle = StrictMath.acos(Math.max(-1, Math.min(1, cosine)));
        if (angle <= s.inner()) {
            return 1;
        }
        if (angle >= s.outer()) {
            return 0;
        }
        double t = (s.outer() - angle) / (s.outer() - s.inner());
        return t * t * (3 - 2 * t);
    }

    private static double measured(Lamp.Measured m, double x, double y, double z) {
        Vec3 d = m.down();
        Vec3 a = m.ahead();
        Vec3 side = d.cross(a);
        double down = StrictMath.acos(Math.max(-1, Math.min(1, d.x() * x + d.y() * y + d.z() * z)));
        double around = StrictMath.atan2(side.x() * x + side.y() * y + side.z() * z, a.x() * x + a.y() * y + a.z() * z);
        return m.profile().candela(down, around);
    }

    // --- light on its way out -------------------------------------------------------------------------------------

    /** How many lamps and glowing triangles there are. */
    public int size() {
        return sources.length;
    }

    /** The power of all, in lumens or their like; 0 for none. */
    public double power() {
        return sources.length == 0 ? 0 : power[0];
    }

    /** Where a source stands: the lamp, or the middle of its triangle. */
    public Vec3 place(int source) {
        return new Vec3(middle(source, 0), middle(source, 1), middle(source, 2));
    }

    /**
     * Sends light out towards a ball, from a lamp chosen by its power.
     *
     * @return false where the direction chosen has no light
     */
    public boolean depart(Vec3 middle, double radius, double u, double v, double w, double s, double t, Departure out) {
        choose(w, false, 0, 0, 0, out);
        Source source = sources[out.source];
        if (source.lamp == null) {
            spread(source.corners, s, t, out);
            double flux = aim(middle, radius, u, v, out) * source.area / out.chance;
            double cosine = cosine(source, out);
            Skin worn = source.worn(out.dx, out.dy, out.dz);
            SurfaceValues e = worn.values;
            shine(out, e.emissionR, e.emissionG, e.emissionB, flux * cosine, worn.circuit);
            return cosine > 0;
        }
        out.x = source.corners[0];
        out.y = source.corners[1];
        out.z = source.corners[2];
        double flux = aim(middle, radius, u, v, out) / out.chance;
        double share = towards(source.lamp, out.dx, out.dy, out.dz);
        LinearRgb c = colour(source.lamp);
        shine(out, c.r(), c.g(), c.b(), flux * share, source.lamp.circuit());
        return share > 0;
    }

    /** A direction from the departure's place that meets the ball; gives the solid angle of all such, in steradians. */
    private static double aim(Vec3 middle, double radius, double u, double v, Departure out) {
        Vec3 way = middle.minus(new Vec3(out.x, out.y, out.z));
        double d2 = way.dot(way);
        double least = d2 > radius * radius ? Math.sqrt(1 - radius * radius / d2) : -1;
        Vec3 axis = d2 > 0 ? way.normalised() : Vec3.axis(1);
        Directions.about(axis.x(), axis.y(), axis.z(), 1 - u * (1 - least), 2 * Math.PI * v, out.turned);
        out.dx = out.turned[0];
        out.dy = out.turned[1];
        out.dz = out.turned[2];
        return 2 * Math.PI * (1 - least);
    }

    /**
     * The density per square metre with which {@link #sample}, asked from a place, gives points of a triangle; 0 where it
     * does not glow.
     */
    public double density(double x, double y, double z, int instance, int primitive) {
        int[] numbers = numberOf[instance];
        if (numbers == null || numbers[primitive] < 0) {
            return 0;
        }
        int source = numbers[primitive];
        double chance = 1 / sources[source].area;
        for (int node = leafOf[source]; parent[node] >= 0; node = parent[node]) {
            int above = parent[node];
            double p = first(above, x, y, z);
            chance *= child[2 * above] == node ? p : 1 - p;
        }
        return chance;
    }
}

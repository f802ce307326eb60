package app.zolvan.core.render.scene;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Lamp;
import app.zolvan.core.material.ShapedRelief;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.surface.SurfaceValues;
import app.zolvan.core.render.texture.Textures;
import app.zolvan.core.render.trace.Kernel;
import app.zolvan.core.render.trace.Placed;
import app.zolvan.core.render.trace.PlacedShapes;
import app.zolvan.core.render.trace.Ray;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/**
 * A model ready to be traced: each mesh once, placed wherever a part shows it, with the surface of each span. Immutable;
 * many threads may trace it at once, each with a {@link Ray} and a {@link Hit} of its own.
 *
 * <p>Clear bodies overlap by priority (Schmidt & Budge 2002): where several contain a point, the one with the highest
 * priority fills it, and boundaries of the others there are passed over.
 */
public final class RenderScene {
    private final Instance[] instances;
    private final PlacedShapes placed;
    /** The instance that each placed shape is; {@link Merged#MANY} for the one that is many. */
    private final int[] owners;

    private final Merged merged;
    private final Box3 bounds;
    private final double size;
    private final Lamps lamps;
    private final Lamps panes;

    /**
     * A placed mesh, and what each of its spans wears.
     *
     * @param outer its triangles that face the outside, where an eye looks into it; null where it is solid from anywhere
     */
    record Instance(Mesh mesh, double[] toWorld, double[] toObject, Skin[] skins, BitSet outer) {}

    private final List<Lamp.Sun> suns;
    private final boolean seeThrough;
    private final int circuits;

    private RenderScene(List<Instance> instances, List<Lamp> lamps, Gathered gathered, Box3 bounds) {
        this.instances = instances.toArray(new Instance[0]);
        this.suns = lamps.stream()
                .filter(Lamp.Sun.class::isInstance)
                .map(Lamp.Sun.class::cast)
                .toList();
        boolean clear = false;
        int most = 0;
        for (Instance in : instances) {
            for (Skin s : in.skins) {
                clear |= s.letsThrough();
                most = Math.max(most, s.circuit);
            }
        }
        for (Lamp lamp : lamps) {
            most = Math.max(most, lamp.circuit());
        }
        this.seeThrough = clear;
        this.circuits = most + 2;
        this.placed = PlacedShapes.of(gathered.placed);
        this.owners = gathered.owners;
        this.merged = gathered.merged;
        this.bounds = bounds;
        this.size = bounds.size().length();
        this.lamps = new Lamps(instances, lamps);
        this.panes = Lamps.ofPanes(instances);
    }

    /** Gathers what a scene is made of. */
    public static final class Builder {
        /** Triangles, each placing counted, up to which all shapes lie in one tree: some 200 MB. */
        private static final int MERGED_TRIANGLES = 2_000_000;

        private final Kernel.Kind kind;
        private final Textures textures;
        private final List<Lamp> lamps = new ArrayList<>();
        private final List<Instance> instances = new ArrayList<>();
        private final Map<Surface, SurfaceValues> surfaces = new HashMap<>();
        private final Map<Surface, Integer> materials = new HashMap<>();
        private final Map<Shaping, Shaped> shapes = new HashMap<>();
        private Box3 bounds = Box3.EMPTY;

        /** A scene without pictures on its surfaces. */
        public Builder(Kernel.Kind kind) {
            this(kind, new Textures(digest -> null, 0));
        }

        public Builder(Kernel.Kind kind, Textures textures) {
            this.kind = kind;
            this.textures = textures;
        }

        /** Adds a part by surfaces alone, the priority of each span's medium beside it or 0. */
        public Builder add(Mesh mesh, Transform toWorld, List<Surface> spans, int... priority) {
            List<Dress> dresses = new ArrayList<>();
            for (int i = 0; i < spans.size(); i++) {
                dresses.add(Dress.of(spans.get(i)).priority(priority.length > 0 ? priority[i] : 0));
            }
            return addDressed(mesh, toWorld, dresses);
        }

        /**
         * Adds a part. One that is flattened to nothing by its placement, or has no triangles, adds nothing.
         *
         * @param spans what each span wears
         */
        public Builder addDressed(Mesh mesh, Transform toWorld, List<Dress> spans) {
            return addDressed(mesh, toWorld, spans, null);
        }

        /**
         * Adds a part that an eye looks into: what faces the outside is there only from behind, all else only from its front.
         * Its reliefs stay flat.
         *
         * @param outer the triangles that face the outside, see {@link app.zolvan.core.prepare.OuterFaces}; null for a part
         *              that is solid from anywhere
         */
        public Builder addDressed(Mesh mesh, Transform toWorld, List<Dress> spans, BitSet outer) {
            if (mesh.triangleCount() == 0 || !(Math.abs(toWorld.determinant()) > 1e-30)) {
                return this;
            }
            Shaped shaped = outer == null ? shaped(mesh, toWorld, spans) : new Shaped(mesh, spans);
            Skin[] skins = shaped.spans.stream().map(this::skin).toArray(Skin[]::new);
            Transform inverse = toWorld.inverse();
            instances.add(new Instance(shaped.mesh, toWorld.columns(), inverse.columns(), skins, outer));
            bounds = bounds.with(shaped.mesh.bounds(toWorld));
            return this;
        }

        /** A mesh with its reliefs as shapes, and what its spans wear then. */
        private record Shaped(Mesh mesh, List<Dress> spans) {}

        private record Shaping(Mesh mesh, Vec3 stretch, List<Dress> spans) {}

        /** What is repeated is shaped once for each size that it has. */
        private Shaped shaped(Mesh mesh, Transform toWorld, List<Dress> spans) {
            if (spans.stream().allMatch(d -> ShapedRelief.of(d.surface()) == null)) {
                return new Shaped(mesh, spans);
            }
            return shapes.computeIfAbsent(new Shaping(mesh, toWorld.stretch(), spans), this::shape);
        }

        private Shaped shape(Shaping s) {
            AgeFields age = s.spans.stream()
                    .map(Dress::age)
                    .filter(Objects::nonNull)
                    .findFirst()
                    .orElse(null);
            List<Displacement.Relief> reliefs = new ArrayList<>();
            for (Dress d : s.spans) {
                reliefs.add(Displacement.Relief.of(d.surface(), d.metric(), textures.of(d.surface())));
            }
            Mesh raised = Displacement.of(s.mesh, s.stretch, reliefs, age, Displacement.MOST);
            AgeFields onRaised = age == null ? null : age.over(raised);
            return new Shaped(
                    raised,
                    s.spans.stream()
                            .map(d -> d.showing(ShapedRelief.done(d.surface())).aged(d.age() == null ? null : onRaised))
                            .toList());
        }

        public Builder lamp(Lamp lamp) {
            lamps.add(lamp);
            return this;
        }

        private Skin skin(Dress d) {
            Dress.Boundary sides = d.boundary();
            return new Skin(
                    d,
                    number(d.surface()),
                    values(d.surface()),
                    sides == null || sides.front() == null ? null : values(sides.front()),
                    sides == null || sides.back() == null ? null : values(sides.back()),
                    textures.of(d.surface()),
                    d.behind() == null ? null : skin(d.behind()));
        }

        private int number(Surface s) {
            Integer known = materials.putIfAbsent(s, materials.size());
            return known == null ? materials.size() - 1 : known;
        }

        private SurfaceValues values(Surface s) {
            return surfaces.computeIfAbsent(s, SurfaceValues::of);
        }

        /** The scene; at least one part must have been added. */
        public RenderScene build() {
            return new RenderScene(List.copyOf(instances), List.copyOf(lamps), gather(), bounds);
        }

        /**
         * All shapes in one tree in world space while their triangles are few: one tree is searched faster than a tree of
         * trees. Beyond that only what stands in one place is merged; what is repeated is kept once and placed.
         */
        private Gathered gather() {
            Map<Mesh, Integer> uses = new HashMap<>();
            instances.forEach(i -> uses.merge(i.mesh, 1, Integer::sum));
            boolean few =
                    instances.stream().mapToLong(i -> i.mesh.triangleCount()).sum() <= MERGED_TRIANGLES;
            Map<Mesh, Kernel> kernels = new HashMap<>();
            List<Placed> placed = new ArrayList<>();
            List<Integer> owners = new ArrayList<>();
            List<Integer> single = new ArrayList<>();
            for (int i = 0; i < instances.size(); i++) {
                Instance in = instances.get(i);
                if (few || uses.get(in.mesh) == 1) {
                    single.add(i);
                    continue;
                }
                Kernel kernel = kernels.computeIfAbsent(in.mesh, m -> Kernel.of(kind, m.positions(), m.indices()));
                placed.add(new Placed(kernel, in.toObject, in.mesh.bounds(Transform.ofColumns(in.toWorld))));
                owners.add(i);
            }
            Merged merged = Merged.of(instances, single);
            if (merged != null) {
                placed.add(new Placed(
                        Kernel.of(kind, merged.positions(), merged.indices()),
                        Transform.IDENTITY.columns(),
                        merged.bounds()));
                owners.add(Merged.MANY);
            }
            return new Gathered(
                    placed, owners.stream().mapToInt(Integer::intValue).toArray(), merged);
        }
    }

    private record Gathered(List<Placed> placed, int[] owners, Merged merged) {}

    /**
     * Several placed meshes as one in world space.
     *
     * @param owners which instance each triangle is of
     * @param firsts the first triangle of each instance
     */
    private record Merged(float[] positions, int[] indices, int[] owners, int[] firsts, Box3 bounds) {
        static final int MANY = -1;

        /** Null for none. */
        static Merged of(List<Instance> all, List<Integer> which) {
            if (which.isEmpty()) {
                return null;
            }
            int vertices = 0;
            int corners = 0;
            for (int i : which) {
                vertices += all.get(i).mesh.vertexCount();
                corners += all.get(i).mesh.indices().length;
            }
            float[] positions = new float[3 * vertices];
            int[] indices = new int[corners];
            int[] owners = new int[corners / 3];
            int[] firsts = new int[all.size()];
            Box3 box = Box3.EMPTY;
            int vertex = 0;
            int corner = 0;
            for (int k = 0; k < which.size(); k++) {
                Instance in = all.get(which.get(k));
                box = box.with(in.mesh.bounds(Transform.ofColumns(in.toWorld)));
                for (int v = 0; v < in.mesh.vertexCount(); v++) {
                    Vec3 p = world(in.toWorld, in.mesh.positions(), v);
                    positions[3 * (vertex + v)] = (float) p.x();
                    positions[3 * (vertex + v) + 1] = (float) p.y();
                    positions[3 * (vertex + v) + 2] = (float) p.z();
                }
                for (int c : in.mesh.indices()) {
                    indices[corner++] = vertex + c;
                }
                vertex += in.mesh.vertexCount();
                firsts[which.get(k)] = corner / 3 - in.mesh.triangleCount();
                Arrays.fill(owners, firsts[which.get(k)], corner / 3, which.get(k));
            }
            return new Merged(positions, indices, owners, firsts, box);
        }

        /** Names the instance and its own triangle instead of the merged one's. */
        void resolve(Ray ray) {
            ray.instance = owners[ray.primitive];
            ray.primitive -= firsts[ray.instance];
        }
    }

    public Box3 bounds() {
        return bounds;
    }

    public Lamps lamps() {
        return lamps;
    }

    /** The panes, as if they shone: the surroundings may be looked for through them. */
    public Lamps panes() {
        return panes;
    }

    /** The box around all that mirrors or bends light sharply; empty for none. */
    public Box3 focusing() {
        Box3 box = Box3.EMPTY;
        for (Instance in : instances) {
            for (Skin s : in.skins) {
                if (s.isFocusing()) {
                    box = box.with(in.mesh.bounds(Transform.ofColumns(in.toWorld)));
                    break;
                }
            }
        }
        return box;
    }

    public List<Lamp.Sun> suns() {
        return suns;
    }

    /** How many circuits there are: its lamps', at least one, and the surroundings' own. */
    public int circuits() {
        return circuits;
    }

    /** The circuit of the surroundings, and of the backdrop before them: the last one. */
    public int surroundings() {
        return circuits - 1;
    }

    /** Whether light goes straight through some surface: a pane without thickness, or one that is partly not there. */
    public boolean isSeeThrough() {
        return seeThrough;
    }

    /**
     * Works out what pictures and painted colours make of a hit's surface, and its tangent.
     *
     * @param footprint width of what the ray sees there, in metres
     */
    public void dress(Hit hit, double footprint) {
        if (!hit.skin.isPlain()) {
            Instance in = instances[hit.instance];
            hit.skin.apply(in.mesh, in.toWorld, hit, footprint);
        }
    }

    /** The same for a sampled point of a glowing surface: what its pictures leave of its glow. */
    public void dress(Lamps.Point point, Hit scratch) {
        if (!point.textured) {
            return;
        }
        Instance in = instances[point.instance];
        Skin skin = point.skin;
        scratch.instance = point.instance;
        scratch.primitive = point.primitive;
        scratch.b1 = point.b1;
        scratch.b2 = point.b2;
        scratch.surface = skin.values;
        skin.apply(in.mesh, in.toWorld, scratch, 0);
        point.r = scratch.surface.emissionR;
        point.g = scratch.surface.emissionG;
        point.b = scratch.surface.emissionB;
    }

    /** The nearest hit; fills {@code hit} and tells whether there was one. */
    public boolean closest(Ray ray, Hit hit) {
        if (!meet(ray)) {
            return false;
        }
        fill(instances[ray.instance], ray, hit);
        return true;
    }

    /** First hit of a ray towards a light. */
    public enum Obstacle {
        NONE,
        /** Light never goes straight on through it; the hit is not filled. */
        OPAQUE,
        /** Light may go straight on through it somewhere. */
        SEE_THROUGH
    }

    /** The nearest obstacle of a ray; fills {@code hit} where light may go on through it. */
    public Obstacle obstacle(Ray ray, Hit hit) {
        if (!meet(ray)) {
            return Obstacle.NONE;
        }
        Instance in = instances[ray.instance];
        if (!in.skins[spanOf(in.mesh, ray.primitive)].letsThrough()) {
            return Obstacle.OPAQUE;
        }
        fill(in, ray, hit);
        return Obstacle.SEE_THROUGH;
    }

    /** Finds the nearest triangle of a ray, named by its instance and its index in that instance's mesh. */
    private boolean meet(Ray ray) {
        if (!placed.closest(ray)) {
            return false;
        }
        int owner = owners[ray.instance];
        if (owner == Merged.MANY) {
            merged.resolve(ray);
        } else {
            ray.instance = owner;
        }
        return true;
    }

    /** How far from a surface a ray starts, in metres, so that it does not meet the surface it leaves. */
    public double offset(Hit of) {
        double most = Math.max(Math.abs(of.x), Math.max(Math.abs(of.y), Math.abs(of.z)));
        return Math.max(2e-6 * most, lift());
    }

    /** The same for what starts anywhere. */
    public double lift() {
        return 2e-7 * size;
    }

    /** Whether anything lies on the way; also what is clear or partly see-through counts. */
    public boolean occluded(Ray ray) {
        return placed.occluded(ray);
    }

    private static int spanOf(Mesh mesh, int primitive) {
        int[] starts = mesh.spanStarts();
        if (starts.length == 2) {
            return 0;
        }
        int at = Arrays.binarySearch(starts, primitive);
        int span = at >= 0 ? at : -at - 2;
        while (span + 1 < starts.length - 1 && starts[span + 1] <= primitive) { // empty spans share their start
            span++;
        }
        return span;
    }

    /** Where the ray meets the triangle, worked out again in double precision, the same for either kernel. */
    private static void fill(Instance in, Ray ray, Hit hit) {
        Mesh mesh = in.mesh;
        double[] w = in.toWorld;
        double[] o = in.toObject;
        int span = spanOf(mesh, ray.primitive);
        hit.instance = ray.instance;
        hit.primitive = ray.primitive;
        Skin front = in.skins[span];
        hit.medium = front.values;
        hit.priority = front.priority;
        hit.isBoundary = front.isBoundary;
        hit.front = front.front;
        hit.back = front.back;
        hit.hasTangent = false;
        hit.raised = false;
        int[] index = mesh.indices();
        float[] p = mesh.positions();
        int a = index[3 * ray.primitive];
        int b = index[3 * ray.primitive + 1];
        int c = index[3 * ray.primitive + 2];
        double ox = o[0] * ray.ox + o[4] * ray.oy + o[8] * ray.oz + o[12];
        double oy = o[1] * ray.ox + o[5] * ray.oy + o[9] * ray.oz + o[13];
        double oz = o[2] * ray.ox + o[6] * ray.oy + o[10] * ray.oz + o[14];
        double dx = o[0] * ray.dx + o[4] * ray.dy + o[8] * ray.dz;
        double dy = o[1] * ray.dx + o[5] * ray.dy + o[9] * ray.dz;
        double dz = o[2] * ray.dx + o[6] * ray.dy + o[10] * ray.dz;
        double e1x = (double) p[3 * b] - p[3 * a];
        double e1y = (double) p[3 * b + 1] - p[3 * a + 1];
        double e1z = (double) p[3 * b + 2] - p[3 * a + 2];
        double e2x = (double) p[3 * c] - p[3 * a];
        double e2y = (double) p[3 * c + 1] - p[3 * a + 1];
        double e2z = (double) p[3 * c + 2] - p[3 * a + 2];
        // Möller & Trumbore 1997
        double hx = dy * e2z - dz * e2y;
        double hy = dz * e2x - dx * e2z;
        double hz = dx * e2y - dy * e2x;
        double det = e1x * hx + e1y * hy + e1z * hz;
        boolean behind = det < 0; // the ray runs along the triangle's normal
        hit.isLookedThrough = in.outer != null && in.outer.get(ray.primitive) != behind;
        Skin skin = front.side(behind);
        hit.skin = skin;
        hit.surface = skin.values;
        hit.circuit = skin.circuit;
        hit.reflection = skin.reflection;
        hit.material = skin.material;
        double sx = ox - p[3 * a];
        double sy = oy - p[3 * a + 1];
        double sz = oz - p[3 * a + 2];
        double qx = sy * e1z - sz * e1y;
        double qy = sz * e1x - sx * e1z;
        double qz = sx * e1y - sy * e1x;
        double u = det == 0 ? 0 : clamp((sx * hx + sy * hy + sz * hz) / det);
        double v = det == 0 ? 0 : Math.min(1 - u, clamp((dx * qx + dy * qy + dz * qz) / det));
        hit.b1 = u;
        hit.b2 = v;
        hit.distance = det == 0 ? ray.tMax : (e2x * qx + e2y * qy + e2z * qz) / det;
        double px = p[3 * a] + u * e1x + v * e2x;
        double py = p[3 * a + 1] + u * e1y + v * e2y;
        double pz = p[3 * a + 2] + u * e1z + v * e2z;
        hit.x = w[0] * px + w[4] * py + w[8] * pz + w[12];
        hit.y = w[1] * px + w[5] * py + w[9] * pz + w[13];
        hit.z = w[2] * px + w[6] * py + w[10] * pz + w[14];
        // a normal goes by the inverse's transpose, which leaves outside outside in a mirrored place, too
        double nx = e1y * e2z - e1z * e2y;
        double ny = e1z * e2x - e1x * e2z;
        double nz = e1x * e2y - e1y * e2x;
        hit.setGeometric(
                o[0] * nx + o[1] * ny + o[2] * nz,
                o[4] * nx + o[5] * ny + o[6] * nz,
                o[8] * nx + o[9] * ny + o[10] * nz);
        float[] n = mesh.normals();
        double k = 1 - u - v;
        double mx = k * n[3 * a] + u * n[3 * b] + v * n[3 * c];
        double my = k * n[3 * a + 1] + u * n[3 * b + 1] + v * n[3 * c + 1];
        double mz = k * n[3 * a + 2] + u * n[3 * b + 2] + v * n[3 * c + 2];
        hit.setShading(
                o[0] * mx + o[1] * my + o[2] * mz,
                o[4] * mx + o[5] * my + o[6] * mz,
                o[8] * mx + o[9] * my + o[10] * mz);
    }

    private static double clamp(double v) {
        return v < 0 ? 0 : v > 1 ? 1 : v;
    }

    /** A point of the world as its vector. */
    static Vec3 world(double[] m, float[] p, int vertex) {
        double x = p[3 * vertex];
        double y = p[3 * vertex + 1];
        double z = p[3 * vertex + 2];
        return new Vec3(
                m[0] * x + m[4] * y + m[8] * z + m[12],
                m[1] * x + m[5] * y + m[9] * z + m[13],
                m[2] * x + m[6] * y + m[10] * z + m[14]);
    }
}

package app.zolvan.core.prepare;

import app.zolvan.core.geometry.DisjointSets;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.IntPredicate;

/**
 * Tells apart the kinds of surface within a matching set, where the modelling program used one material for several
 * things. The first kind has the most area.
 *
 * @param kinds  what there is, most area first
 * @param kindOf for each region of the set the kind of each of its triangles
 */
public record Splitting(List<Kind> kinds, Map<Model.Region, int[]> kindOf) {
    /** More kinds than this are of no use to anybody. */
    public static final int MOST = 64;

    private static final double LEVEL = Math.cos(Math.toRadians(20));
    private static final double UPRIGHT = Math.sin(Math.toRadians(20));

    /** By what to tell kinds apart. */
    public enum By {
        /** Connected pieces; pieces of one shape are one kind. */
        PIECE,
        /** Where the surface faces: up, down, aside or aslant. */
        DIRECTION
    }

    /**
     * @param pieces how many regions or pieces are of it
     * @param area   m²
     */
    public record Kind(String name, int pieces, double area) {}

    private record MeshSpan(int mesh, int span) {}

    /** How a set's regions would be told apart. */
    public static Splitting of(Model model, List<Model.Region> regions, By by) {
        return by == By.PIECE ? byPiece(model, regions) : byDirection(model, regions);
    }

    /** Some faces of a part apart from the rest of it; the rest is the first kind. */
    public static Splitting ofFaces(Model model, int part, Set<Integer> faces) {
        Mesh mesh = model.meshOf(model.parts().get(part));
        return ofTriangles(mesh, part, t -> faces.contains(mesh.faces()[t]));
    }

    /**
     * Some triangles of a part apart from the rest of it; the rest is the first kind.
     *
     * @param mesh the part's
     */
    public static Splitting ofTriangles(Mesh mesh, int part, IntPredicate picked) {
        Map<Model.Region, int[]> kindOf = new LinkedHashMap<>();
        for (int s = 0; s < mesh.spanCount(); s++) {
            int from = mesh.spanStarts()[s];
            int[] kind = new int[mesh.spanStarts()[s + 1] - from];
            for (int t = 0; t < kind.length; t++) {
                kind[t] = picked.test(from + t) ? 1 : 0;
            }
            kindOf.put(new Model.Region(part, s), kind);
        }
        return new Splitting(List.of(new Kind("rest", 1, 0), new Kind("picked", 1, 0)), kindOf);
    }

    private static Splitting byDirection(Model model, List<Model.Region> regions) {
        String[] names = {"facing up", "facing down", "upright", "aslant"};
        double[] areas = new double[4];
        int[] pieces = new int[4];
        Map<Model.Region, int[]> kindOf = new LinkedHashMap<>();
        for (Model.Region r : regions) {
            Model.Part part = model.parts().get(r.part());
            Mesh mesh = model.meshOf(part);
            Transform toWorld = model.partToWorld(part);
            int from = mesh.spanStarts()[r.span()];
            int[] kind = new int[mesh.spanStarts()[r.span() + 1] - from];
            boolean[] has = new boolean[4];
            for (int t = 0; t < kind.length; t++) {
                Vec3 n = normal(mesh, toWorld, from + t);
                double length = n.length();
                double up = length > 0 ? n.y() / length : 0;
                kind[t] = up >= LEVEL ? 0 : up <= -LEVEL ? 1 : Math.abs(up) <= UPRIGHT ? 2 : 3;
                areas[kind[t]] += length / 2;
                has[kind[t]] = true;
            }
            for (int k = 0; k < 4; k++) {
                pieces[k] += has[k] ? 1 : 0;
            }
            kindOf.put(r, kind);
        }
        List<Kind> kinds = new ArrayList<>();
        for (int k = 0; k < 4; k++) {
            kinds.add(new Kind(names[k], pieces[k], areas[k]));
        }
        return sorted(kinds, kindOf);
    }

    private static Vec3 normal(Mesh mesh, Transform toWorld, int t) {
        Vec3 a = toWorld.point(mesh.position(mesh.indices()[3 * t]));
        Vec3 b = toWorld.point(mesh.position(mesh.indices()[3 * t + 1]));
        Vec3 c = toWorld.point(mesh.position(mesh.indices()[3 * t + 2]));
        Vec3 n = b.minus(a).cross(c.minus(a));
        return toWorld.determinant() < 0 ? n.times(-1) : n;
    }

    private static Splitting byPiece(Model model, List<Model.Region> regions) {
        List<ShapeSignature> shapes = new ArrayList<>();
        List<Integer> pieces = new ArrayList<>();
        List<Double> areas = new ArrayList<>();
        Map<Model.Region, int[]> kindOf = new LinkedHashMap<>();
        Map<MeshSpan, int[]> piecesOfMesh = new HashMap<>();
        for (Model.Region r : regions) {
            Model.Part part = model.parts().get(r.part());
            Mesh mesh = model.meshOf(part);
            int from = mesh.spanStarts()[r.span()];
            int[] piece =
                    piecesOfMesh.computeIfAbsent(new MeshSpan(part.mesh(), r.span()), k -> pieces(mesh, r.span()));
            int[] kind = new int[piece.length];
            for (int[] triangles : byNumber(piece)) {
                int[] ofMesh = Arrays.stream(triangles).map(t -> from + t).toArray();
                ShapeSignature shape = ShapeSignature.of(mesh, ofMesh, model.partToWorld(part));
                int k = 0;
                while (k < shapes.size() && k < MOST && !shapes.get(k).isLike(shape)) {
                    k++;
                }
                if (k == shapes.size()) {
                    shapes.add(shape);
                    pieces.add(0);
                    areas.add(0.0);
                }
                pieces.set(k, pieces.get(k) + 1);
                areas.set(k, areas.get(k) + shape.area());
                for (int t : triangles) {
                    kind[t] = k;
                }
            }
            kindOf.put(r, kind);
        }
        List<Kind> kinds = new ArrayList<>();
        for (int k = 0; k < shapes.size(); k++) {
            kinds.add(new Kind(form(shapes.get(k)), pieces.get(k), areas.get(k)));
        }
        return sorted(kinds, kindOf);
    }

    /** What a shape is in a word, for want of a better one. */
    static String form(ShapeSignature s) {
        return s.isRod() ? "rod" : s.isSheet() ? "sheet" : "block";
    }

    /** The connected piece of each triangle of a span, numbered from 0. */
    private static int[] pieces(Mesh mesh, int span) {
        int[] place = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
        int from = mesh.spanStarts()[span];
        int to = mesh.spanStarts()[span + 1];
        DisjointSets joined = new DisjointSets(mesh.vertexCount());
        for (int i = 3 * from; i < 3 * to; i += 3) {
            joined.join(place[mesh.indices()[i]], place[mesh.indices()[i + 1]]);
            joined.join(place[mesh.indices()[i]], place[mesh.indices()[i + 2]]);
        }
        Map<Integer, Integer> numbers = new HashMap<>();
        int[] out = new int[to - from];
        for (int t = from; t < to; t++) {
            out[t - from] = numbers.computeIfAbsent(joined.find(place[mesh.indices()[3 * t]]), k -> numbers.size());
        }
        return out;
    }

    private static int[][] byNumber(int[] numbers) {
        int count = Arrays.stream(numbers).max().orElse(-1) + 1;
        int[] sizes = new int[count];
        for (int n : numbers) {
            sizes[n]++;
        }
        int[][] out = new int[count][];
        Arrays.setAll(out, n -> new int[sizes[n]]);
        int[] fill = new int[count];
        for (int i = 0; i < numbers.length; i++) {
            out[numbers[i]][fill[numbers[i]]++] = i;
        }
        return out;
    }

    private static Splitting sorted(List<Kind> kinds, Map<Model.Region, int[]> kindOf) {
        Integer[] order = new Integer[kinds.size()];
        Arrays.setAll(order, k -> k);
        Arrays.sort(order, Comparator.comparingDouble(k -> -kinds.get(k).area));
        int[] place = new int[order.length];
        List<Kind> out = new ArrayList<>();
        for (int k : order) {
            place[k] = out.size();
            if (kinds.get(k).pieces > 0) {
                out.add(kinds.get(k));
            }
        }
        kindOf.replaceAll((r, kind) -> Arrays.stream(kind).map(k -> place[k]).toArray());
        return new Splitting(List.copyOf(out), kindOf);
    }

    /** The kinds that a region has, in ascending order; 0 alone for one that is not told apart. */
    public int[] kindsIn(Model.Region r) {
        int[] kinds = kindOf.get(r);
        return kinds == null
                ? new int[] {0}
                : Arrays.stream(kinds).distinct().sorted().toArray();
    }

    /** A part's mesh with each of its spans' kinds in a span of its own: where span i stood, its kinds follow each other. */
    public Mesh apply(Mesh mesh, int part) {
        int[] spanOf = new int[mesh.triangleCount()];
        int spans = 0;
        for (int s = 0; s < mesh.spanCount(); s++) {
            Model.Region r = new Model.Region(part, s);
            int from = mesh.spanStarts()[s];
            int to = mesh.spanStarts()[s + 1];
            if (!kindOf.containsKey(r)) {
                Arrays.fill(spanOf, from, to, spans++);
                continue;
            }
            int[] kinds = kindsIn(r);
            for (int t = from; t < to; t++) {
                spanOf[t] = spans + Arrays.binarySearch(kinds, kindOf.get(r)[t - from]);
            }
            spans += kinds.length;
        }
        return mesh.regrouped(spanOf, spans);
    }
}

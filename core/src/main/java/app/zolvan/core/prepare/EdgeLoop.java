package app.zolvan.core.prepare;

import app.zolvan.core.geometry.EdgePairs;
import app.zolvan.core.geometry.IntList;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Triangles;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.PriorityQueue;
import java.util.Set;

/**
 * Ways along the edges of a mesh, and the pieces into which a closed one parts its surface. Vertices at exactly one place
 * count as one.
 */
public final class EdgeLoop {
    /** An edge that runs across a smooth region counts as so many times its length: ways keep to edges one can see. */
    static final double UNSEEN = 2;

    private final Mesh mesh;
    private final Transform toWorld;
    private final int[] place;
    private final int[] corners;
    /** The half-edges at a place, outgoing or incoming: of place p from {@code first[p]} up to {@code first[p + 1]}. */
    private final int[] edges;

    private final int[] first;

    /** @param toWorld gives lengths their measure */
    public EdgeLoop(Mesh mesh, Transform toWorld) {
        this.mesh = mesh;
        this.toWorld = toWorld;
        place = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
        corners = Arrays.stream(mesh.indices()).map(v -> place[v]).toArray();
        first = new int[mesh.vertexCount() + 1];
        for (int e = 0; e < corners.length; e++) {
            first[corners[e] + 1]++;
            first[corners[EdgePairs.next(e)] + 1]++;
        }
        for (int p = 0; p < mesh.vertexCount(); p++) {
            first[p + 1] += first[p];
        }
        edges = new int[2 * corners.length];
        int[] fill = first.clone();
        for (int e = 0; e < corners.length; e++) {
            edges[fill[corners[e]]++] = e;
            edges[fill[corners[EdgePairs.next(e)]]++] = e;
        }
    }

    private int otherEnd(int edge, int p) {
        return corners[edge] == p ? corners[EdgePairs.next(edge)] : corners[edge];
    }

    private Vec3 point(int vertex) {
        return toWorld.point(mesh.position(vertex));
    }

    private double distance(int p, int q) {
        return point(p).minus(point(q)).length();
    }

    /** Whether an edge runs across a smooth region: all triangles at it are of one. */
    private boolean isUnseen(int edge) {
        int p = corners[edge];
        int q = corners[EdgePairs.next(edge)];
        int at = 0;
        for (int i = first[p]; i < first[p + 1]; i++) {
            int t = edges[i] / 3;
            if (otherEnd(edges[i], p) == q) {
                at++;
                if (mesh.faces()[t] != mesh.faces()[edge / 3]) {
                    return false;
                }
            }
        }
        return at > 1;
    }

    /** @param least what the way there and on to the end costs at least: no way is shorter than the straight one */
    private record Reached(int at, double cost, double least) {}

    /**
     * The best way from one vertex to another: short, and along edges of smooth regions rather than across these.
     *
     * @return vertices from the first to the last, the lowest number of each place; empty where there is no way
     */
    public List<Integer> way(int fromVertex, int toVertex) {
        int from = place[fromVertex];
        int to = place[toVertex];
        double[] cost = new double[mesh.vertexCount()];
        int[] before = new int[mesh.vertexCount()];
        Arrays.fill(cost, Double.POSITIVE_INFINITY);
        Arrays.fill(before, -1);
        PriorityQueue<Reached> open =
                new PriorityQueue<>(Comparator.comparingDouble(Reached::least).thenComparingInt(Reached::at));
        cost[from] = 0;
        open.add(new Reached(from, 0, distance(from, to)));
        while (!open.isEmpty()) {
            Reached r = open.remove();
            if (r.at == to) {
                break;
            }
            if (r.cost > cost[r.at]) {
                continue;
            }
            for (int i = first[r.at]; i < first[r.at + 1]; i++) {
                int e = edges[i];
                int next = otherEnd(e, r.at);
                double far = r.cost + distance(r.at, next) * (isUnseen(e) ? UNSEEN : 1);
                if (far < cost[next]) {
                    cost[next] = far;
                    before[next] = r.at;
                    open.add(new Reached(next, far, far + distance(next, to)));
                }
            }
        }
        if (Double.isInfinite(cost[to])) {
            return List.of();
        }
        List<Integer> way = new ArrayList<>();
        for (int p = to; p >= 0; p = before[p]) {
            way.add(p);
        }
        Collections.reverse(way);
        return way;
    }

    /**
     * A way through several vertices, one after the other.
     *
     * @param closed whether it goes back to the first in the end
     * @return as {@link #way}; empty where there is none
     */
    public List<Integer> through(List<Integer> vertices, boolean closed) {
        List<Integer> out = new ArrayList<>(List.of(place[vertices.get(0)]));
        int legs = closed ? vertices.size() : vertices.size() - 1;
        for (int i = 0; i < legs; i++) {
            List<Integer> leg = way(vertices.get(i), vertices.get((i + 1) % vertices.size()));
            if (leg.isEmpty()) {
                return List.of();
            }
            out.addAll(leg.subList(1, leg.size()));
        }
        return out;
    }

    /**
     * Some of the triangles.
     *
     * @param triangles in ascending order
     * @param area      in world units
     */
    public record Piece(int[] triangles, double area) {}

    /**
     * The connected pieces of the surface that lie along a closed way, which nothing crosses: least area first; one alone
     * where the way does not part the surface.
     *
     * @param loop vertices, the last the same place as the first
     */
    public List<Piece> pieces(List<Integer> loop) {
        Set<Long> fence = new HashSet<>();
        for (int i = 1; i < loop.size(); i++) {
            fence.add(key(place[loop.get(i - 1)], place[loop.get(i)]));
        }
        EdgePairs pairs = EdgePairs.of(corners, this::isDegenerate);
        BitSet taken = new BitSet();
        List<Piece> pieces = new ArrayList<>();
        for (int p : loop) {
            for (int i = first[place[p]]; i < first[place[p] + 1]; i++) {
                int e = edges[i];
                if (fence.contains(key(e)) && !taken.get(e / 3) && !isDegenerate(e / 3)) {
                    pieces.add(piece(e / 3, taken, fence, pairs));
                }
            }
        }
        pieces.sort(Comparator.comparingDouble(Piece::area));
        return pieces;
    }

    /** All that can be reached from a triangle without crossing the fence. */
    private Piece piece(int seed, BitSet taken, Set<Long> fence, EdgePairs pairs) {
        IntList out = new IntList();
        out.add(seed);
        taken.set(seed);
        for (int i = 0; i < out.size(); i++) {
            for (int e = 3 * out.get(i); e < 3 * out.get(i) + 3; e++) {
                int o = pairs.across()[e];
                if (o >= 0 && !taken.get(o / 3) && !fence.contains(key(e))) {
                    taken.set(o / 3);
                    out.add(o / 3);
                }
            }
        }
        int[] triangles = out.toArray();
        Arrays.sort(triangles);
        return new Piece(
                triangles, Arrays.stream(triangles).mapToDouble(this::area).sum());
    }

    /** Whether two corners are at one place: such a triangle parts nothing and joins nothing. */
    private boolean isDegenerate(int t) {
        int a = corners[3 * t];
        int b = corners[3 * t + 1];
        int c = corners[3 * t + 2];
        return a == b || b == c || c == a;
    }

    private long key(int edge) {
        return key(corners[edge], corners[EdgePairs.next(edge)]);
    }

    private static long key(int a, int b) {
        return (long) Math.min(a, b) << 32 | Math.max(a, b);
    }

    private double area(int t) {
        return Triangles.area(point(corners[3 * t]), point(corners[3 * t + 1]), point(corners[3 * t + 2]));
    }
}

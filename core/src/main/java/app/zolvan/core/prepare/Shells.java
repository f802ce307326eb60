package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.BoxTree;
import app.zolvan.core.geometry.EdgePairs;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Triangles;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * How the triangles of a mesh hang together: its connected shells, which of their edges are open or shared by too many,
 * and which triangles face the wrong way. Vertices at exactly one place count as one.
 *
 * <p>Within a shell, triangles should run along a common edge in opposite directions. A shell that encloses something
 * should face outward, or inward where it is the wall of a hollow within another shell of the mesh.
 */
final class Shells {
    /** A shell whose holes are smaller than this share of its area encloses something. */
    private static final double NEARLY_CLOSED = 0.3;
    /** Lower triangles than this, in metres, have no area to speak of. */
    private static final double LOWEST = 1e-6;

    /** In place of a triangle's shell. */
    private static final int UNSEEN = -1;

    private static final int LEFT_OUT = -2;

    private final Mesh mesh;
    private final double scale;
    private final int[] place;
    private final int[] corners;
    /** As {@link EdgePairs} has them. */
    private int[] across;

    private boolean[] alike;

    private final int[] shellOf;
    private final boolean[] turned;
    private int shellCount;
    private boolean enclosing;

    private final List<int[]> openLoops = new ArrayList<>();
    private final List<Integer> crowded = new ArrayList<>();
    private final List<Integer> flipped = new ArrayList<>();
    private final List<Integer> duplicates = new ArrayList<>();
    private final List<Integer> degenerate = new ArrayList<>();

    /** @param scale metres in the world along one unit of the mesh */
    static Shells of(Mesh mesh, double scale) {
        Shells s = new Shells(mesh, scale);
        s.sortOut();
        s.connect();
        s.walk();
        s.judge();
        return s;
    }

    private Shells(Mesh mesh, double scale) {
        this.mesh = mesh;
        this.scale = scale;
        place = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
        corners = new int[mesh.indices().length];
        for (int i = 0; i < corners.length; i++) {
            corners[i] = place[mesh.indices()[i]];
        }
        shellOf = new int[corners.length / 3];
        Arrays.fill(shellOf, UNSEEN);
        turned = new boolean[corners.length / 3];
    }

    /** Open edges of shells that otherwise enclose something: each loop as half-edges. */
    List<int[]> openLoops() {
        return openLoops;
    }

    /** Half-edges on edges where more than two triangles meet, one an edge. */
    List<Integer> crowded() {
        return crowded;
    }

    /** Triangles that face the wrong way. */
    List<Integer> flipped() {
        return flipped;
    }

    /** Triangles with the same corners as an earlier one. */
    List<Integer> duplicates() {
        return duplicates;
    }

    List<Integer> degenerate() {
        return degenerate;
    }

    /** Whether every shell encloses something, small holes aside. */
    boolean encloses() {
        return enclosing;
    }

    Vec3 corner(int halfEdge) {
        return mesh.position(corners[halfEdge]);
    }

    Vec3 end(int halfEdge) {
        return mesh.position(corners[EdgePairs.next(halfEdge)]);
    }

    /**
     * The corners of a loop of open edges, in the order in which what closes it would run along them; empty where the edges
     * do not come back to where they began.
     */
    int[] rim(int[] loop) {
        int n = loop.length;
        if (finish(loop[n - 1]) != begin(loop[0])) {
            return new int[0];
        }
        int[] out = new int[n];
        for (int i = 0; i < n; i++) {
            out[i] = begin(loop[n - 1 - i]);
        }
        return out;
    }

    /** Bounds of some triangles, in the mesh's own space. */
    Box3 boundsOf(List<Integer> triangles) {
        Box3 box = Box3.EMPTY;
        for (int t : triangles) {
            for (int k = 0; k < 3; k++) {
                box = box.with(corner(3 * t + k));
            }
        }
        return box;
    }

    /** Sets aside triangles without area and those that are there already. */
    private void sortOut() {
        int triangles = corners.length / 3;
        int mask = Integer.highestOneBit(Math.max(triangles, 4)) * 4 - 1;
        int[] slots = new int[mask + 1];
        Arrays.fill(slots, -1);
        int[] own = new int[3];
        int[] other = new int[3];
        for (int t = 0; t < triangles; t++) {
            if (height(t) * scale < LOWEST) {
                degenerate.add(t);
                shellOf[t] = LEFT_OUT;
                continue;
            }
            sorted(t, own);
            int h = VertexWeld.hash(own[0], own[1], own[2]) & mask;
            boolean known = false;
            while (slots[h] >= 0 && !known) {
                sorted(slots[h], other);
                known = Arrays.equals(own, other);
                h = known ? h : (h + 1) & mask;
            }
            if (known) {
                duplicates.add(t);
                shellOf[t] = LEFT_OUT;
            } else {
                slots[h] = t;
            }
        }
    }

    private void sorted(int t, int[] out) {
        System.arraycopy(corners, 3 * t, out, 0, 3);
        Arrays.sort(out);
    }

    /** The height over the longest side; 0 where two corners are at one place. */
    private double height(int t) {
        Vec3 a = corner(3 * t);
        Vec3 b = corner(3 * t + 1);
        Vec3 c = corner(3 * t + 2);
        double longest = Math.max(
                b.minus(a).length(), Math.max(c.minus(b).length(), a.minus(c).length()));
        return longest > 0 ? b.minus(a).cross(c.minus(a)).length() / longest : 0;
    }

    private boolean isLeftOut(int t) {
        return shellOf[t] == LEFT_OUT;
    }

    /** Finds what lies across each edge. */
    private void connect() {
        EdgePairs pairs = EdgePairs.of(corners, this::isLeftOut);
        across = pairs.across();
        alike = pairs.alike();
        Set<Long> told = new HashSet<>();
        for (int e = 0; e < corners.length; e++) {
            long a = Math.min(corners[e], corners[EdgePairs.next(e)]);
            long b = Math.max(corners[e], corners[EdgePairs.next(e)]);
            if (across[e] == EdgePairs.SEVERAL && told.add(a << 32 | b)) {
                crowded.add(e);
            }
        }
    }

    /** Numbers the shells, and notes which triangles of each run against its first one. */
    private void walk() {
        int[] stack = new int[corners.length / 3];
        for (int seed = 0; seed < shellOf.length; seed++) {
            if (shellOf[seed] != UNSEEN) {
                continue;
            }
            int top = 0;
            stack[top++] = seed;
            shellOf[seed] = shellCount;
            while (top > 0) {
                int t = stack[--top];
                for (int e = 3 * t; e < 3 * t + 3; e++) {
                    int o = across[e] / 3;
                    if (across[e] >= 0 && shellOf[o] == UNSEEN) {
                        shellOf[o] = shellCount;
                        turned[o] = turned[t] ^ alike[e];
                        stack[top++] = o;
                    }
                }
            }
            shellCount++;
        }
    }

    /** What is known of one shell. */
    private static final class Shell {
        final List<Integer> triangles = new ArrayList<>();
        double area;
        double turnedArea;
        /** Six times the volume, once all its triangles run like the first. */
        double volume;

        double holes;
        boolean crowded;
        Box3 box = Box3.EMPTY;
        Vec3 origin;

        boolean encloses() {
            return holes < NEARLY_CLOSED * area && !crowded;
        }
    }

    private void judge() {
        Shell[] shells = new Shell[shellCount];
        for (int i = 0; i < shellCount; i++) {
            shells[i] = new Shell();
        }
        for (int t = 0; t < shellOf.length; t++) {
            if (!isLeftOut(t)) {
                add(shells[shellOf[t]], t);
            }
        }
        List<int[]> loops = loops();
        for (int[] loop : loops) {
            shells[shellOf[loop[0] / 3]].holes += areaOf(loop);
        }
        for (int[] loop : loops) {
            if (shells[shellOf[loop[0] / 3]].encloses()) {
                openLoops.add(loop);
            }
        }
        enclosing = shellCount > 0 && Arrays.stream(shells).allMatch(Shell::encloses);
        BoxTree tree = tree(shells);
        for (int i = 0; i < shellCount; i++) {
            Shell s = shells[i];
            boolean right; // whether the way of its first triangle is the right one
            if (s.encloses()) {
                boolean outward = depth(shells, tree, i) % 2 == 0;
                // within another shell both a hollow and a body of its own make sense, so the greater part decides
                right = outward ? s.volume > 0 : s.turnedArea <= s.area / 2;
            } else {
                right = s.turnedArea <= s.area / 2;
            }
            for (int t : s.triangles) {
                if (turned[t] == right) {
                    flipped.add(t);
                }
            }
        }
        flipped.sort(null);
    }

    private void add(Shell s, int t) {
        Vec3 a = corner(3 * t);
        Vec3 b = corner(3 * t + 1);
        Vec3 c = corner(3 * t + 2);
        s.origin = s.origin == null ? a : s.origin;
        s.triangles.add(t);
        double area = Triangles.area(a, b, c);
        s.area += area;
        s.turnedArea += turned[t] ? area : 0;
        double six = a.minus(s.origin).dot(b.minus(s.origin).cross(c.minus(s.origin)));
        s.volume += turned[t] ? -six : six;
        s.box = s.box.with(a).with(b).with(c);
        for (int e = 3 * t; e < 3 * t + 3; e++) {
            s.crowded |= across[e] == EdgePairs.SEVERAL;
        }
    }

    /** Runs of open edges, end to end; where several begin at one place, any of them goes on. */
    private List<int[]> loops() {
        List<Integer> open = new ArrayList<>();
        for (int e = 0; e < corners.length; e++) {
            if (across[e] == EdgePairs.NONE && !isLeftOut(e / 3)) {
                open.add(e);
            }
        }
        // by the place they begin at: turned triangles run backwards
        int[] firstAt = new int[place.length];
        int[] following = new int[corners.length];
        Arrays.fill(firstAt, -1);
        for (int i = open.size() - 1; i >= 0; i--) {
            int e = open.get(i);
            following[e] = firstAt[begin(e)];
            firstAt[begin(e)] = e;
        }
        boolean[] used = new boolean[corners.length];
        List<int[]> loops = new ArrayList<>();
        for (int seed : open) {
            if (used[seed]) {
                continue;
            }
            List<Integer> loop = new ArrayList<>();
            for (int e = seed; e >= 0; ) {
                used[e] = true;
                loop.add(e);
                int n = firstAt[finish(e)];
                while (n >= 0 && used[n]) {
                    n = following[n];
                }
                e = n;
            }
            loops.add(loop.stream().mapToInt(Integer::intValue).toArray());
        }
        return loops;
    }

    private int begin(int e) {
        return turned[e / 3] ? corners[EdgePairs.next(e)] : corners[e];
    }

    private int finish(int e) {
        return turned[e / 3] ? corners[e] : corners[EdgePairs.next(e)];
    }

    /** The area of the flat hole a loop would be. */
    private double areaOf(int[] loop) {
        Vec3 origin = mesh.position(begin(loop[0]));
        Vec3 sum = Vec3.ZERO;
        for (int e : loop) {
            Vec3 a = mesh.position(begin(e)).minus(origin);
            Vec3 b = mesh.position(finish(e)).minus(origin);
            sum = sum.plus(a.cross(b));
        }
        return sum.length() / 2;
    }

    private static BoxTree tree(Shell[] shells) {
        double[] boxes = new double[6 * shells.length];
        for (int i = 0; i < shells.length; i++) {
            shells[i].box.put(boxes, 6 * i);
        }
        return new BoxTree(boxes);
    }

    /** How many other enclosing shells of the mesh hold this one. */
    private int depth(Shell[] shells, BoxTree tree, int which) {
        Shell s = shells[which];
        double[] box = new double[6];
        s.box.put(box, 0);
        int[] depth = {0};
        tree.touching(box, i -> {
            Shell o = shells[i];
            if (i != which && o.encloses() && holds(o.box, s.box) && isWithin(o, corner(3 * s.triangles.get(0)))) {
                depth[0]++;
            }
        });
        return depth[0];
    }

    private static boolean holds(Box3 outer, Box3 inner) {
        for (int k = 0; k < 3; k++) {
            if (inner.min().get(k) < outer.min().get(k)
                    || inner.max().get(k) > outer.max().get(k)) {
                return false;
            }
        }
        return true;
    }

    /** By the winding number, the solid angle over 4π: small holes do not spoil it. */
    private boolean isWithin(Shell s, Vec3 p) {
        double angle = 0;
        for (int t : s.triangles) {
            double w = Triangles.solidAngle(
                    corner(3 * t).minus(p),
                    corner(3 * t + 1).minus(p),
                    corner(3 * t + 2).minus(p));
            angle += turned[t] ? -w : w;
        }
        return Math.abs(angle) > 2 * Math.PI;
    }
}

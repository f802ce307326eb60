package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

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

    private final Mesh mesh;
    private final double scale;
    private final int[] place;
    private final int[] corners;
    /** The half-edge across each half-edge's edge where just two triangles meet; −1 for none, −2 for several. */
    private final int[] across;
    /** Whether the two run the same way. */
    private final boolean[] alike;

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
        across = new int[corners.length];
        Arrays.fill(across, -1);
        alike = new boolean[corners.length];
        shellOf = new int[corners.length / 3];
        Arrays.fill(shellOf, -1);
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
        return mesh.position(corners[next(halfEdge)]);
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

    private static int next(int e) {
        return e % 3 == 2 ? e - 2 : e + 1;
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
                shellOf[t] = -2;
                continue;
            }
            sorted(t, own);
            int h = (own[0] * 0x9E3779B1 ^ own[1] * 0x85EBCA77 ^ own[2] * 0xC2B2AE3D) & Integer.MAX_VALUE;
            h = (h ^ h >>> 15) & mask;
            boolean known = false;
            while (slots[h] >= 0 && !known) {
                sorted(slots[h], other);
                known = Arrays.equals(own, other);
                h = known ? h : h + 1 & mask;
            }
            if (known) {
                duplicates.add(t);
                shellOf[t] = -2;
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
        return shellOf[t] == -2;
    }

    /** Finds what lies across each edge. */
    private void connect() {
        int mask = Integer.highestOneBit(Math.max(corners.length, 4)) * 4 - 1;
        long[] keys = new long[mask + 1];
        int[] firsts = new int[mask + 1];
        Arrays.fill(keys, -1);
        for (int e = 0; e < corners.length; e++) {
            if (isLeftOut(e / 3)) {
                continue;
            }
            int a = corners[e];
            int b = corners[next(e)];
            long key = (long) Math.min(a, b) << 32 | Math.max(a, b);
            int h = Long.hashCode(key * 0x9E3779B97F4A7C15L);
            h = (h ^ h >>> 15) & mask;
            while (keys[h] != -1 && keys[h] != key) {
                h = h + 1 & mask;
            }
            if (keys[h] == -1) {
                keys[h] = key;
                firsts[h] = e;
                continue;
            }
            int o = firsts[h];
            if (across[o] == -1) {
                across[o] = e;
                across[e] = o;
                alike[o] = alike[e] = corners[o] == a;
            } else {
                if (across[o] >= 0) {
                    crowded.add(o);
                    across[across[o]] = -2;
                    across[o] = -2;
                }
                across[e] = -2;
            }
        }
    }

    /** Numbers the shells, and notes which triangles of each run against its first one. */
    private void walk() {
        int[] stack = new int[corners.length / 3];
        for (int seed = 0; seed < shellOf.length; seed++) {
            if (shellOf[seed] != -1) {
                continue;
            }
            int top = 0;
            stack[top++] = seed;
            shellOf[seed] = shellCount;
            while (top > 0) {
                int t = stack[--top];
                for (int e = 3 * t; e < 3 * t + 3; e++) {
                    int o = across[e] / 3;
                    if (across[e] >= 0 && shellOf[o] == -1) {
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
        for (int i = 0; i < shellCount; i++) {
            Shell s = shells[i];
            boolean right; // whether the way of its first triangle is the right one
            if (s.encloses()) {
                boolean outward = depth(shells, i) % 2 == 0;
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
        double area = b.minus(a).cross(c.minus(a)).length() / 2;
        s.area += area;
        s.turnedArea += turned[t] ? area : 0;
        double six = a.minus(s.origin).dot(b.minus(s.origin).cross(c.minus(s.origin)));
        s.volume += turned[t] ? -six : six;
        s.box = s.box.with(a).with(b).with(c);
        for (int e = 3 * t; e < 3 * t + 3; e++) {
            s.crowded |= across[e] == -2;
        }
    }

    /** Runs of open edges, end to end; where several begin at one place, any of them goes on. */
    private List<int[]> loops() {
        List<Integer> open = new ArrayList<>();
        for (int e = 0; e < corners.length; e++) {
            if (across[e] == -1 && !isLeftOut(e / 3)) {
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
        return turned[e / 3] ? corners[next(e)] : corners[e];
    }

    private int finish(int e) {
        return turned[e / 3] ? corners[e] : corners[next(e)];
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

    /** How many other enclosing shells of the mesh hold this one. */
    private int depth(Shell[] shells, int which) {
        Shell s = shells[which];
        int depth = 0;
        for (int i = 0; i < shells.length; i++) {
            Shell o = shells[i];
            if (i != which && o.encloses() && holds(o.box, s.box) && isWithin(o, corner(3 * s.triangles.get(0)))) {
                depth++;
            }
        }
        return depth;
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

    /** By the winding number, the solid angle over 4π (Van Oosterom & Strackee 1983): small holes do not spoil it. */
    private boolean isWithin(Shell s, Vec3 p) {
        double angle = 0;
        for (int t : s.triangles) {
            double w = solidAngle(
                    corner(3 * t).minus(p),
                    corner(3 * t + 1).minus(p),
                    corner(3 * t + 2).minus(p));
            angle += turned[t] ? -w : w;
        }
        return Math.abs(angle) > 2 * Math.PI;
    }

    static double solidAngle(Vec3 a, Vec3 b, Vec3 c) {
        double la = a.length();
        double lb = b.length();
        double lc = c.length();
        double down = la * lb * lc + a.dot(b) * lc + b.dot(c) * la + c.dot(a) * lb;
        return 2 * Math.atan2(a.dot(b.cross(c)), down);
    }
}

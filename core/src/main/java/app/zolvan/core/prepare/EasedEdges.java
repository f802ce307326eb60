package app.zolvan.core.prepare;

import app.zolvan.core.geometry.DisjointSets;
import app.zolvan.core.geometry.EdgePairs;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Patchwork;
import app.zolvan.core.geometry.PolygonTriangulation;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import app.zolvan.core.model.Preparation;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiPredicate;

/**
 * Lets sharp outer edges catch light as eased ones do, without another shape: along each a strip is parted off on either
 * side whose normals turn from the surface's own to halfway round the edge. The surface stays where it is, so that
 * outlines, measures and contacts do. Where a strip would not fit it is narrower.
 *
 * <p>A <em>fan</em> is all corners at one place that meet over smooth edges: it is moved inward from its eased edges as a
 * whole. Where an eased edge meets one that stays sharp, or ends, the strip ends in a point.
 *
 * <p>{@link #rounded} does change the shape: what lay on the edge is drawn in to the middle of the arc that touches both
 * surfaces where the strips end.
 */
public final class EasedEdges {
    private static final double SHARP = Math.cos(Preparation.CREASE_ANGLE);
    /** Normals that differ less than this, as a cosine, are drawn as one round surface whatever its triangles say. */
    private static final double ROUND = Math.cos(Math.toRadians(2));
    /** Edges that go on within this angle, as a cosine, are one edge. */
    private static final double ON = Math.cos(Math.toRadians(40));
    /** A fan moves no farther than so many widths. */
    private static final double MITRE = 3;
    /** What a triangle keeps of its area at least. */
    private static final double KEPT = 0.1;
    /** A strip that begins in a point takes so many times its width to get as wide, or longer. */
    private static final double POINT = 1.2;
    /** How much of an edge its two ends take at most. */
    private static final double ENDS = 0.9;

    /** Moved, it looks within this angle of where it did, as a cosine. */
    private static final double TURNED = Math.cos(Math.toRadians(5));
    /** A share that the area may change by: strips cut across the facets of round surfaces. */
    private static final double SAME = 0.01;
    /** Strips are no narrower than this share of the mesh's size. */
    private static final double LEAST = 1e-5;

    private static final int HALVINGS = 6;
    /** What of a rounded edge looks farther away from its surface than this, as a cosine, has folded over. */
    private static final double FOLDED = 0.2;

    /** The widest strip, in metres. */
    public static final double WIDEST = 0.02;

    /** Why a width in metres makes no sense; nothing where it does, 0 for sharp edges too. */
    public static Optional<String> requireWidth(double metres) {
        return metres >= 0 && metres <= WIDEST
                ? Optional.empty()
                : Optional.of("Edges can be eased by up to 20 mm; 0 leaves them sharp.");
    }

    /** That edges would be as they are modelled, in a sentence. */
    public static String sharpened(int parts) {
        return "Leave the edges of " + counted(parts) + " sharp";
    }

    private static String counted(int parts) {
        return parts == 1 ? "1 part" : parts + " parts";
    }

    /**
     * What was done, or would be, in a sentence.
     *
     * @param eased how many parts get eased edges
     * @param less  in how many of them some edges get less than was asked for
     */
    public static String sentence(int eased, int less) {
        if (eased == 0) {
            return "There is no sharp outer edge with room for it.";
        }
        return "Ease the edges of " + partly(eased, less);
    }

    /** How many parts, and in how many of them some edges get less than was asked for. */
    static String partly(int parts, int less) {
        String where = less == parts ? "partly" : "in " + less + " of them partly";
        return less == 0 ? counted(parts) : counted(parts) + ", " + where + " by less for want of room";
    }

    /**
     * @param mesh  with strips along its edges
     * @param width that they have; less than was asked for where the shape can't bear more
     * @param full  how much of the eased edges' length has the width that was asked for, in [0, 1]
     */
    public record Outcome(Mesh mesh, double width, double full) {
        /** Whether some edges have less than was asked for. */
        public boolean isLess() {
            return full < 1;
        }
    }

    /**
     * @param width of each strip, in the mesh's unit
     * @return nothing where no edge is sharp and outer, or where the shape can't bear a strip worth the name
     */
    public static Optional<Outcome> of(Mesh mesh, double width) {
        double area = mesh.area();
        return widest(mesh, width, width, false, (e, made) -> Math.abs(made.area() - area) <= SAME * area);
    }

    /**
     * The same with the edges taken off in truth, round in two facets on either side of the middle of the arc.
     *
     * @param width from the edge to where the rounding begins, in the mesh's unit
     */
    public static Optional<Outcome> rounded(Mesh mesh, double width) {
        return of(mesh, width).flatMap(flat -> widest(mesh, flat.width, width, true, (e, made) -> !e.folded));
    }

    /** Tries narrower and narrower strips, from a width on, until one leaves closed what is closed, and is sound. */
    private static Optional<Outcome> widest(
            Mesh mesh, double from, double asked, boolean rounds, BiPredicate<EasedEdges, Mesh> isSound) {
        boolean closed = Topology.of(mesh).isClosed();
        double least = LEAST * mesh.bounds().size().length();
        double wide = Double.isFinite(from) ? from : 0; // of a part that is flattened to nothing
        for (int turn = 0; turn <= HALVINGS && wide >= least; turn++) {
            EasedEdges e = new EasedEdges(mesh, wide, rounds);
            if (!e.findEdges()) {
                return Optional.empty();
            }
            Mesh made = e.eased();
            if (Topology.of(made).isClosed() == closed && isSound.test(e, made)) {
                return Optional.of(new Outcome(made, wide, wide == asked ? e.full() : 0));
            }
            wide /= 2;
        }
        return Optional.empty();
    }

    private Mesh eased() {
        gatherFans();
        limit();
        ends();
        if (rounds) {
            drawIn();
        }
        for (int t = 0; t < mesh.triangleCount(); t++) {
            lay(t);
        }
        return work.toMesh();
    }

    /** All corners at one place that meet over smooth edges. */
    private static final class Fan {
        /** The eased half-edges that end here and begin here, −1 for none, and how many there are of each. */
        private int in = -1;

        private int out = -1;
        private int ins;
        private int outs;
        /** Whether it also has an edge that is neither smooth nor eased, or lies all around the end of one that is. */
        private boolean stopped;

        private Vec3 normal = Vec3.ZERO;
        private double width;

        boolean isEased() {
            return ins + outs > 0;
        }

        boolean isRegular() {
            return ins == 1 && outs == 1 && !stopped;
        }
    }

    private final Mesh mesh;
    private final Topology topology;
    private final Patchwork work;
    private final int[] place;
    private final int[] spans;
    private final Vec3[] normals;
    private final boolean[] smooth;
    private final boolean[] eased;
    private final double width;
    private final Fan[] fans;
    /** How far from its start and from its end an edge is eased in full, by half-edge: the same on both sides. */
    private final double[] start;

    private final Map<Integer, Vec3> edgeNormals = new HashMap<>();
    /** Whether edges are taken off, and by how much what lies at a place is drawn in then. */
    private final boolean rounds;

    private final Map<Integer, Vec3> drawnIn = new HashMap<>();
    /** Whether a triangle no longer looks where the one it is part of did. */
    private boolean folded;

    private final Map<Integer, Vec3> placeNormals = new HashMap<>();
    private final Map<Integer, Integer> inner = new HashMap<>();
    private final Map<Integer, Integer> outer = new HashMap<>();

    private EasedEdges(Mesh mesh, double width, boolean rounds) {
        this.mesh = mesh;
        this.width = width;
        this.rounds = rounds;
        topology = Topology.of(mesh);
        work = new Patchwork(mesh);
        place = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
        spans = Patchwork.spans(mesh);
        normals = new Vec3[mesh.triangleCount()];
        for (int t = 0; t < normals.length; t++) {
            normals[t] = at(3 * t + 1)
                    .minus(at(3 * t))
                    .cross(at(3 * t + 2).minus(at(3 * t)))
                    .normalised();
        }
        int corners = mesh.indices().length;
        smooth = new boolean[corners];
        eased = new boolean[corners];
        fans = new Fan[corners];
        start = new double[corners];
    }

    private int vertex(int corner) {
        return mesh.indices()[corner];
    }

    private int placeOf(int corner) {
        return place[vertex(corner)];
    }

    private Vec3 at(int corner) {
        return mesh.position(vertex(corner));
    }

    private static int next(int e) {
        return EdgePairs.next(e);
    }

    private static int previous(int e) {
        return next(next(e));
    }

    private Vec3 along(int e) {
        return at(next(e)).minus(at(e));
    }

    /** Into the triangle, at right angles to one of its edges. */
    private Vec3 inward(int e) {
        return normals[e / 3].cross(along(e)).normalised();
    }

    private boolean findEdges() {
        boolean any = false;
        for (int e = 0; e < smooth.length; e++) {
            int o = topology.opposite(e);
            if (o < 0) {
                continue;
            }
            Vec3 n = normals[e / 3];
            boolean sharp = n.dot(normals[o / 3]) < SHARP && !isDrawnRound(e, o);
            smooth[e] = !sharp;
            eased[e] = sharp
                    && n.length() > 0
                    && normals[o / 3].length() > 0
                    && n.dot(at(previous(o)).minus(at(e))) < 0
                    && normals[o / 3].dot(at(previous(e)).minus(at(o))) < 0;
            any |= eased[e];
        }
        return any;
    }

    private boolean isDrawnRound(int e, int o) {
        return mesh.normal(vertex(e)).dot(mesh.normal(vertex(next(o)))) > ROUND
                && mesh.normal(vertex(next(e))).dot(mesh.normal(vertex(o))) > ROUND;
    }

    private void gatherFans() {
        DisjointSets corners = new DisjointSets(fans.length);
        for (int e = 0; e < fans.length; e++) {
            if (smooth[e]) {
                int o = topology.opposite(e);
                corners.join(e, next(o));
                corners.join(next(e), o);
            }
        }
        for (int c = 0; c < fans.length; c++) {
            int root = corners.find(c);
            if (fans[root] == null) {
                fans[root] = new Fan();
                fans[root].width = width;
            }
            fans[c] = fans[root];
            Fan f = fans[c];
            f.normal = f.normal.plus(normals[c / 3].times(angle(c)));
            int before = previous(c);
            if (eased[c]) {
                f.out = c;
                f.outs++;
            }
            if (eased[before]) {
                f.in = before;
                f.ins++;
            }
            f.stopped |= isStop(c) || isStop(before);
        }
        for (Fan f : fans) {
            f.stopped |= f.out >= 0 && topology.opposite(f.out) == f.in;
        }
        for (int c = 0; c < fans.length; c++) {
            if (fans[c].isEased()) {
                placeNormals.merge(placeOf(c), normals[c / 3].times(angle(c)), Vec3::plus);
            }
        }
        for (int c = 0; c < fans.length; c++) { // a place where any strip ends in a point keeps its normals
            if (fans[c].isEased() && !fans[c].isRegular()) {
                placeNormals.put(placeOf(c), Vec3.ZERO);
            }
        }
    }

    /** Corners go to the ball that touches all surfaces around them where their strips end. */
    private void drawIn() {
        Map<Integer, Set<Fan>> around = new HashMap<>();
        for (int c = 0; c < fans.length; c++) {
            if (fans[c].isEased()) {
                around.computeIfAbsent(placeOf(c), k -> new LinkedHashSet<>()).add(fans[c]);
            }
        }
        around.forEach((at, of) -> {
            List<Vec3> touching = of.stream().map(this::move).toList();
            if (touching.stream().noneMatch(m -> m.equals(Vec3.ZERO))) {
                drawnIn.put(
                        at,
                        toArc(
                                touching,
                                of.stream().map(f -> f.normal.normalised()).toList()));
            }
        });
    }

    /**
     * From an edge or corner to the middle of the arc or ball that touches surfaces at places seen from there, p = c + r n;
     * c and r by least squares.
     */
    private static Vec3 toArc(List<Vec3> places, List<Vec3> normals) {
        int n = places.size();
        Vec3 place = places.stream().reduce(Vec3.ZERO, Vec3::plus).times(1.0 / n);
        Vec3 normal = normals.stream().reduce(Vec3.ZERO, Vec3::plus).times(1.0 / n);
        double both = 0;
        double square = 0;
        for (int i = 0; i < n; i++) {
            Vec3 turned = normals.get(i).minus(normal);
            both += places.get(i).minus(place).dot(turned);
            square += turned.dot(turned);
        }
        double radius = square > 0 ? both / square : 0;
        Vec3 centre = place.minus(normal.times(radius));
        double away = centre.length();
        return radius > 0 && radius < away ? centre.times(1 - radius / away) : Vec3.ZERO;
    }

    /** From where an edge is eased in full to the middle of the arc there. */
    private Vec3 toArc(int e) {
        int o = topology.opposite(e);
        double here = depth(e, e);
        double there = depth(o, next(o));
        return here == 0 || there == 0
                ? Vec3.ZERO
                : toArc(
                        List.of(inward(e).times(here), inward(o).times(there)),
                        List.of(normals[e / 3], normals[o / 3]));
    }

    /** How wide the strip along an edge is where it is eased in full, at one of its corners. */
    private double depth(int e, int corner) {
        double wide = wide(e);
        double from = corner == e ? start[e] : start[topology.opposite(e)];
        return isMoved(corner) && wide > 0 ? fans[corner].width : Math.min(wide, from * slope(corner));
    }

    private boolean isStop(int e) {
        return !smooth[e] && !eased[e];
    }

    private double angle(int corner) {
        Vec3 u = along(corner).normalised();
        Vec3 v = at(previous(corner)).minus(at(corner)).normalised();
        return Math.acos(Math.max(-1, Math.min(1, u.dot(v))));
    }

    /** How a fan moves: as far from both its eased edges as it is wide; nowhere where they meet another edge. */
    private Vec3 move(Fan f) {
        if (!f.isRegular() || f.width == 0) {
            return Vec3.ZERO;
        }
        Vec3 p = inward(f.in);
        Vec3 q = inward(f.out);
        double both = 1 + p.dot(q);
        return both < 2 / (MITRE * MITRE) ? Vec3.ZERO : p.plus(q).times(f.width / both);
    }

    private Vec3 moved(int corner) {
        return at(corner).plus(move(fans[corner]));
    }

    /** Narrows strips until none crosses another and no triangle turns over. */
    private void limit() {
        for (int turn = 0; turn <= HALVINGS; turn++) {
            boolean fits = true;
            for (int t = 0; t < normals.length; t++) {
                int c = 3 * t;
                Vec3 twice = at(c + 1).minus(at(c)).cross(at(c + 2).minus(at(c)));
                Vec3 left = moved(c + 1).minus(moved(c)).cross(moved(c + 2).minus(moved(c)));
                boolean bad =
                        left.dot(normals[t]) < KEPT * twice.length() || left.dot(normals[t]) < TURNED * left.length();
                for (int k = 0; k < 3 && !bad; k++) {
                    bad = eased[c + k] && ENDS * along(c + k).length() < taken(c + k) + taken(topology.opposite(c + k));
                }
                if (bad) {
                    for (int k = 0; k < 3; k++) {
                        fits &= move(fans[c + k]).equals(Vec3.ZERO);
                        fans[c + k].width = turn == HALVINGS ? 0 : fans[c + k].width / 2;
                    }
                }
            }
            if (fits) {
                return;
            }
        }
    }

    /** How far along an edge the fans at its start have moved, the farther of both sides. */
    private double taken(int e) {
        Vec3 d = along(e).normalised();
        return Math.max(
                move(fans[e]).dot(d), move(fans[next(topology.opposite(e))]).dot(d));
    }

    /** At corners edges are eased in full only from a little further on; where an edge just goes on, all along. */
    private void ends() {
        Map<Integer, List<Integer>> from = new HashMap<>();
        for (int e = 0; e < eased.length; e++) {
            if (eased[e]) {
                from.computeIfAbsent(placeOf(e), k -> new ArrayList<>()).add(e);
            }
        }
        for (List<Integer> here : from.values()) {
            boolean goesOn = here.size() == 2
                    && along(here.get(0)).normalised().dot(along(here.get(1)).normalised()) < -ON
                    && here.stream().allMatch(e -> isEndRegular(e));
            for (int e : here) {
                double least = isEndRegular(e) ? Math.max(taken(e), width / 4) : width * pointed(e);
                start[e] = goesOn ? 0 : Math.min(least, ENDS / 2 * along(e).length());
            }
        }
        for (int e = 0; e < eased.length; e++) {
            if (eased[e]) {
                Vec3 n = fans[e].normal.normalised().plus(fans[next(topology.opposite(e))].normal.normalised());
                edgeNormals.put(e, n.normalised());
            }
        }
    }

    /**
     * How many widths a strip takes to get out of the point that it begins in: so many that it stays within the triangle on
     * either side, and out of the strip along that one's next edge.
     */
    private double pointed(int e) {
        return Math.max(POINT, Math.max(1 / slope(e), 1 / slope(next(topology.opposite(e)))));
    }

    /** How steeply a strip may get wide from a corner. */
    private double slope(int corner) {
        double angle = angle(corner);
        return angle < Math.PI / 2 ? Math.max(1e-3, Math.tan(angle) / (2 * POINT)) : 1 / POINT;
    }

    /** Whether neither side's strip ends in a point where an edge starts. */
    private boolean isEndRegular(int e) {
        return fans[e].isRegular() && fans[next(topology.opposite(e))].isRegular();
    }

    private double full() {
        double all = 0;
        double wide = 0;
        for (int e = 0; e < eased.length; e++) {
            if (eased[e]) {
                double length = along(e).length();
                all += length;
                boolean whole = fans[e].width == width && fans[next(e)].width == width;
                wide += whole ? length : 0;
            }
        }
        return wide / all;
    }

    /** A corner of what is made: its vertex and where that is. */
    private record Corner(int vertex, Vec3 at) {}

    /** Lays a triangle anew: strips along its eased edges, and what is left. */
    private void lay(int t) {
        if (placeOf(3 * t) == placeOf(3 * t + 1)
                || placeOf(3 * t + 1) == placeOf(3 * t + 2)
                || placeOf(3 * t + 2) == placeOf(3 * t)) {
            return;
        }
        List<Corner> rest = new ArrayList<>();
        for (int e = 3 * t; e < 3 * t + 3; e++) {
            rest.add(inner(e));
            if (eased[e]) {
                strip(t, e, rest);
            }
        }
        double[] points = new double[3 * rest.size()];
        for (int i = 0; i < rest.size(); i++) {
            for (int k = 0; k < 3; k++) {
                points[3 * i + k] = rest.get(i).at.get(k);
            }
        }
        int[] cut = PolygonTriangulation.of(points);
        for (int i = 0; i < cut.length; i += 3) {
            put(t, rest.get(cut[i]), rest.get(cut[i + 1]), rest.get(cut[i + 2]));
        }
    }

    private void put(int t, Corner a, Corner b, Corner c) {
        if (!a.at.equals(b.at) && !b.at.equals(c.at) && !c.at.equals(a.at)) {
            Vec3 looks = b.at.minus(a.at).cross(c.at.minus(a.at));
            folded |= looks.dot(normals[t]) < FOLDED * looks.length();
            work.triangle(a.vertex, b.vertex, c.vertex, spans[t], work.faceOf(t));
        }
    }

    /**
     * The strip along one edge. It ends in a point where a fan did not move; what is left of the triangle gets the corners
     * that the strip has there.
     */
    private void strip(int t, int e, List<Corner> rest) {
        int o = topology.opposite(e);
        double wide = wide(e);
        Corner x = strip(e, start[e], startOf(e), wide, e, rest);
        Corner y = strip(e, start[o], startOf(o), wide, next(e), rest);
        if (wide == 0) {
            return;
        }
        Corner a = outer(e);
        Corner b = outer(next(e));
        Corner a1 = start[e] > 0 ? onEdge(e, e) : a;
        Corner b1 = start[o] > 0 ? onEdge(e, o) : b;
        put(t, a, a1, x);
        put(t, a1, b1, y);
        put(t, a1, y, x);
        put(t, b1, b, y);
    }

    private double wide(int e) {
        double before = fans[e].width;
        double after = fans[next(e)].width;
        return before == 0 || after == 0 ? Math.max(before, after) : Math.min(before, after);
    }

    /** The inner corner of a strip at one of its ends; what is left of the triangle gets it where it is not its corner. */
    private Corner strip(int e, double from, Vec3 onEdge, double wide, int corner, List<Corner> rest) {
        if (from == 0 || (isMoved(corner) && wide > 0)) {
            return inner(corner);
        }
        Vec3 at = onEdge.plus(inward(e).times(Math.min(wide, from * slope(corner))));
        Corner made = new Corner(among(e, at), at);
        rest.add(made);
        return made;
    }

    private boolean isMoved(int corner) {
        return !move(fans[corner]).equals(Vec3.ZERO);
    }

    /** The corner that what is left of a triangle has. */
    private Corner inner(int corner) {
        Vec3 move = move(fans[corner]);
        if (move.equals(Vec3.ZERO)) {
            return new Corner(work.own(vertex(corner)), at(corner));
        }
        Vec3 at = at(corner).plus(move);
        Integer known = inner.get(vertex(corner));
        if (known == null) {
            known = among(corner, at);
            inner.put(vertex(corner), known);
        }
        return new Corner(known, at);
    }

    /** The corner that stays on the edge: its normal looks halfway between all surfaces that meet there. */
    private Corner outer(int corner) {
        Vec3 n = placeNormals.getOrDefault(placeOf(corner), Vec3.ZERO);
        if (n.length() == 0) {
            return new Corner(work.own(vertex(corner)), at(corner));
        }
        Vec3 at = at(corner).plus(drawnIn.getOrDefault(placeOf(corner), Vec3.ZERO));
        return new Corner(outer.computeIfAbsent(vertex(corner), v -> work.copy(v, at, n.normalised())), at);
    }

    /** Where an edge is eased in full from; the same place for the triangles on both sides. */
    private Vec3 startOf(int e) {
        Vec3 d = along(e);
        return at(e).plus(d.times(start[e] / d.length()));
    }

    /** @param from the half-edge that starts where this is near */
    private Corner onEdge(int e, int from) {
        Vec3 at = startOf(from);
        double share = at.minus(at(e)).length() / along(e).length();
        Vec3 to = rounds ? at.plus(toArc(from)) : at;
        return new Corner(work.among(vertex(e), vertex(next(e)), share, vertex(e), 0, to, edgeNormals.get(e)), to);
    }

    /** A vertex in the plane of a corner's triangle, with the normal that the surface has there. */
    private int among(int corner, Vec3 at) {
        Vec3 u = along(corner);
        Vec3 v = at(previous(corner)).minus(at(corner));
        Vec3 d = at.minus(at(corner));
        double uu = u.dot(u);
        double uv = u.dot(v);
        double vv = v.dot(v);
        double det = uu * vv - uv * uv;
        double r = det > 0 ? (vv * d.dot(u) - uv * d.dot(v)) / det : 0;
        double s = det > 0 ? (uu * d.dot(v) - uv * d.dot(u)) / det : 0;
        return work.among(
                vertex(corner), vertex(next(corner)), r, vertex(previous(corner)), s, at, mesh.normal(vertex(corner)));
    }
}

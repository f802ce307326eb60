package app.zolvan.core.prepare;

import app.zolvan.core.geometry.CornerNormals;
import app.zolvan.core.geometry.EdgePairs;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Patchwork;
import app.zolvan.core.geometry.PolygonTriangulation;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** Mends the mesh of a part without modelling it anew. The mesh that was mended is left as it is. */
public enum Repair {
    /** Joins corners that lie within a distance, in metres, and drops the triangles that vanish. */
    WELD,
    /** Closes flat holes that are no wider than so many metres. */
    FILL,
    /** Drops triangles that are there twice or have no area; what lay along them still meets. The amount is not used. */
    DROP,
    /** Makes normals anew: edges up to so many degrees are smooth. */
    NORMALS,
    /** Moves the surface of a closed body outward by so many metres, inward where that is less than 0. */
    OFFSET,
    /** Takes sharp outer edges off, round from so many metres on either side. */
    BEVEL;

    /** How far a hole's corners may lie off its plane: metres, and as a share of its width. */
    private static final double FLAT = 1e-4;

    private static final double FLAT_SHARE = 1e-3;
    /** Stretches that differ less than this share count as the same. */
    private static final double EVEN = 1e-5;
    /** Slivers can lie beside slivers; so often all are looked through. */
    private static final int PASSES = 32;

    /**
     * What came of a repair.
     *
     * @param extent how much was done
     */
    public record Outcome(Mesh mesh, Extent extent) {
        Outcome(Mesh mesh, int count) {
            this(mesh, new Extent(count, false));
        }
    }

    /**
     * How much a repair has done to a part.
     *
     * @param count how many corners were joined, holes filled, triangles dropped or corners shaded anew; 1 for a body that was
     *              moved or rounded off, 0 for nothing
     * @param less  whether somewhere it is less than was asked for
     */
    public record Extent(int count, boolean less) {
        public static final Extent NONE = new Extent(0, false);
    }

    /** Says in a sentence why a shape can't be mended so. */
    public static final class RefusedException extends Exception {
        private static final long serialVersionUID = 1;

        public RefusedException(String sentence) {
            super(sentence);
        }
    }

    /**
     * @param stretch metres in the world along one unit of the mesh, by its axes
     * @param amount  what the constants say
     * @return nothing where there was nothing to mend
     */
    public Optional<Outcome> apply(Mesh mesh, Vec3 stretch, double amount) throws RefusedException {
        double scale = (stretch.x() + stretch.y() + stretch.z()) / 3;
        double uneven = Math.max(
                Math.abs(stretch.x() - scale), Math.max(Math.abs(stretch.y() - scale), Math.abs(stretch.z() - scale)));
        if ((this == OFFSET || this == BEVEL) && uneven > EVEN * scale) {
            throw new RefusedException(
                    "This part is stretched more along one axis than along another, so no one distance"
                            + " can be kept. Apply its scale in the modelling program.");
        }
        return switch (this) {
            case WELD -> weld(mesh, amount / scale);
            case FILL -> fill(mesh, scale, amount);
            case DROP -> drop(mesh, scale);
            case NORMALS -> normals(mesh, Math.toRadians(amount));
            case OFFSET -> Optional.of(new Outcome(Offsetting.of(mesh, amount / scale), 1));
            case BEVEL ->
                EasedEdges.rounded(mesh, amount / scale).map(o -> new Outcome(o.mesh(), new Extent(1, o.isLess())));
        };
    }

    /** Why an amount makes no sense; nothing where it does. */
    public Optional<String> requireAmount(double amount) {
        boolean good = switch (this) {
            case WELD -> amount > 0 && amount <= 0.1;
            case FILL -> amount > 0 && amount <= 10;
            case DROP -> true;
            case NORMALS -> amount >= 0 && amount <= 180;
            case OFFSET -> amount != 0 && Math.abs(amount) <= 1;
            case BEVEL -> amount > 0 && amount <= EasedEdges.WIDEST;
        };
        return good
                ? Optional.empty()
                : Optional.of(
                        switch (this) {
                            case WELD -> "Corners can be joined over more than 0 and up to 100 mm.";
                            case FILL -> "Holes can be filled that are more than 0 and up to 10 m wide.";
                            case NORMALS -> "Edges can be smooth up to an angle from 0° to 180°.";
                            case BEVEL -> "Edges can be taken off by more than 0 and up to 20 mm.";
                            default -> "A body can grow or shrink by up to 1 m, and by more than nothing.";
                        });
    }

    /**
     * What was done, or would be, in a sentence.
     *
     * @param extents to each part
     */
    public String sentence(Collection<Extent> extents) {
        int parts = (int) extents.stream().filter(e -> e.count > 0).count();
        int less = (int) extents.stream().filter(Extent::less).count();
        int count = extents.stream().mapToInt(Extent::count).sum();
        if (count == 0) {
            return switch (this) {
                case WELD -> "No corners lie that near to each other.";
                case FILL -> "There is no flat hole of that width.";
                case DROP -> "Nothing is there twice or without an area.";
                case BEVEL -> "There is no sharp outer edge with room for it.";
                default -> "These parts are like that already.";
            };
        }
        String where = parts == 1 ? "1 part" : parts + " parts";
        return switch (this) {
            case WELD -> "Join " + counted(count, "corner") + " in " + where;
            case FILL -> "Fill " + counted(count, "hole") + " in " + where;
            case DROP -> "Drop " + counted(count, "triangle") + " from " + where;
            case NORMALS -> "Shade " + where + " anew";
            case OFFSET -> "Move the surface of " + where;
            case BEVEL -> "Round off the edges of " + EasedEdges.partly(parts, less);
        };
    }

    private static String counted(int count, String noun) {
        return count + " " + noun + (count == 1 ? "" : "s");
    }

    private static Optional<Outcome> weld(Mesh mesh, double tolerance) {
        int[] exact = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
        int[] place = VertexWeld.within(mesh.positions(), mesh.vertexCount(), tolerance);
        int joined = 0;
        for (int v = 0; v < place.length; v++) {
            joined += exact[v] == v && place[v] != v ? 1 : 0;
        }
        if (joined == 0) {
            return Optional.empty();
        }
        Patchwork work = new Patchwork(mesh);
        int[] copies = new int[place.length];
        Arrays.fill(copies, -1);
        int[] spans = Patchwork.spans(mesh);
        int[] c = new int[3];
        for (int t = 0; t < mesh.triangleCount(); t++) {
            for (int k = 0; k < 3; k++) {
                c[k] = mesh.indices()[3 * t + k];
            }
            if (place[c[0]] == place[c[1]] || place[c[1]] == place[c[2]] || place[c[2]] == place[c[0]]) {
                continue;
            }
            for (int k = 0; k < 3; k++) {
                if (copies[c[k]] < 0) {
                    copies[c[k]] = work.copy(c[k], mesh.position(place[c[k]]), null);
                }
            }
            work.triangle(copies[c[0]], copies[c[1]], copies[c[2]], spans[t], work.faceOf(t));
        }
        return Optional.of(new Outcome(work.toMesh(), joined));
    }

    private static Optional<Outcome> fill(Mesh mesh, double scale, double widest) {
        Shells shells = Shells.of(mesh, scale);
        Patchwork work = new Patchwork(mesh);
        int[] spans = Patchwork.spans(mesh);
        for (int t = 0; t < mesh.triangleCount(); t++) {
            work.keep(t, spans[t]);
        }
        int filled = 0;
        for (int[] loop : shells.openLoops()) {
            int[] outline = shells.rim(loop);
            if (outline.length >= 3 && isFlat(mesh, outline, scale, widest)) {
                cap(work, mesh, outline, spans[loop[0] / 3]);
                filled++;
            }
        }
        return filled == 0 ? Optional.empty() : Optional.of(new Outcome(work.toMesh(), filled));
    }

    private static Vec3 newell(Mesh mesh, int[] outline) {
        Vec3 origin = mesh.position(outline[0]);
        Vec3 sum = Vec3.ZERO;
        for (int i = 0; i < outline.length; i++) {
            Vec3 a = mesh.position(outline[i]).minus(origin);
            Vec3 b = mesh.position(outline[(i + 1) % outline.length]).minus(origin);
            sum = sum.plus(a.cross(b));
        }
        return sum;
    }

    private static boolean isFlat(Mesh mesh, int[] outline, double scale, double widest) {
        Vec3 normal = newell(mesh, outline);
        if (normal.length() == 0) {
            return false;
        }
        Vec3 n = normal.normalised();
        Vec3 origin = mesh.position(outline[0]);
        double width = 0;
        double off = 0;
        for (int v : outline) {
            Vec3 away = mesh.position(v).minus(origin);
            off = Math.max(off, Math.abs(away.dot(n)));
            for (int o : outline) {
                width = Math.max(width, mesh.position(v).minus(mesh.position(o)).length());
            }
        }
        return width * scale <= widest && off * scale <= Math.max(FLAT, FLAT_SHARE * width * scale);
    }

    private static void cap(Patchwork work, Mesh mesh, int[] outline, int span) {
        Vec3 normal = newell(mesh, outline).normalised();
        double[] points = new double[3 * outline.length];
        int[] corners = new int[outline.length];
        for (int i = 0; i < outline.length; i++) {
            Vec3 p = mesh.position(outline[i]);
            for (int k = 0; k < 3; k++) {
                points[3 * i + k] = p.get(k);
            }
            corners[i] = work.copy(outline[i], null, normal);
        }
        int[] triangles = PolygonTriangulation.of(points, 0);
        int face = work.newFace();
        for (int i = 0; i < triangles.length; i += 3) {
            work.triangle(corners[triangles[i]], corners[triangles[i + 1]], corners[triangles[i + 2]], span, face);
        }
    }

    private static Optional<Outcome> drop(Mesh mesh, double scale) {
        Mesh now = mesh;
        Optional<Mesh> next = dropOnce(now, Shells.of(now, scale));
        for (int pass = 1; pass < PASSES && next.isPresent(); pass++) {
            now = next.get();
            next = dropOnce(now, Shells.of(now, scale));
        }
        int dropped = mesh.triangleCount() - now.triangleCount();
        return dropped == 0 ? Optional.empty() : Optional.of(new Outcome(now, dropped));
    }

    /**
     * A sliver whose corner b lies on its longest side a–c keeps what is beyond that side from meeting what is along a–b and
     * b–c; so the triangle beyond is cut in two at b.
     */
    private static Optional<Mesh> dropOnce(Mesh mesh, Shells shells) {
        int[] place = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
        int[] corners = Arrays.stream(mesh.indices()).map(v -> place[v]).toArray();
        boolean[] gone = new boolean[mesh.triangleCount()];
        shells.duplicates().forEach(t -> gone[t] = true);
        int[] across =
                EdgePairs.of(corners, t -> gone[t] || isPoint(corners, t)).across();
        int[] spans = Patchwork.spans(mesh);
        Patchwork work = new Patchwork(mesh);
        boolean[] touched = new boolean[mesh.triangleCount()];
        for (int t : shells.degenerate()) {
            if (isPoint(corners, t)) {
                gone[t] = true;
                continue;
            }
            int longest = longest(mesh, t);
            int o = across[longest];
            if (o < 0 || shells.degenerate().contains(o / 3)) {
                gone[t] = o == EdgePairs.NONE;
                continue;
            }
            if (touched[o / 3] || touched[t]) {
                continue; // its turn comes in the next pass
            }
            touched[o / 3] = true;
            gone[t] = true;
            gone[o / 3] = true;
            cut(work, mesh, o, corner(mesh, EdgePairs.next(EdgePairs.next(longest))), spans[o / 3]);
        }
        boolean any = false;
        for (int t = 0; t < gone.length; t++) {
            any |= gone[t];
            if (!gone[t]) {
                work.keep(t, spans[t]);
            }
        }
        return any ? Optional.of(work.toMesh()) : Optional.empty();
    }

    private static boolean isPoint(int[] corners, int t) {
        return corners[3 * t] == corners[3 * t + 1]
                || corners[3 * t + 1] == corners[3 * t + 2]
                || corners[3 * t + 2] == corners[3 * t];
    }

    private static Vec3 corner(Mesh mesh, int halfEdge) {
        return mesh.position(mesh.indices()[halfEdge]);
    }

    private static int longest(Mesh mesh, int t) {
        int longest = 3 * t;
        double most = -1;
        for (int e = 3 * t; e < 3 * t + 3; e++) {
            double length =
                    corner(mesh, EdgePairs.next(e)).minus(corner(mesh, e)).length();
            longest = length > most ? e : longest;
            most = Math.max(most, length);
        }
        return longest;
    }

    /** A triangle in two, at a place near one of its sides. */
    private static void cut(Patchwork work, Mesh mesh, int side, Vec3 at, int span) {
        int a = mesh.indices()[side];
        int b = mesh.indices()[EdgePairs.next(side)];
        int c = mesh.indices()[EdgePairs.next(EdgePairs.next(side))];
        Vec3 way = mesh.position(b).minus(mesh.position(a));
        double share =
                Math.max(1e-9, Math.min(1, at.minus(mesh.position(a)).dot(way) / Math.max(1e-300, way.dot(way))));
        int face = work.faceOf(side / 3);
        int middle = work.between(a, b, share, at);
        work.triangle(work.own(a), middle, work.own(c), span, face);
        work.triangle(middle, work.own(b), work.own(c), span, face);
    }

    private static Optional<Outcome> normals(Mesh mesh, double crease) {
        int[] place = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
        int[] corners = Arrays.stream(mesh.indices()).map(v -> place[v]).toArray();
        CornerNormals made = CornerNormals.of(mesh.positions(), mesh.vertexCount(), corners, null, crease);
        Patchwork work = new Patchwork(mesh);
        int[] spans = Patchwork.spans(mesh);
        Map<List<Integer>, Integer> copies = new HashMap<>();
        int changed = 0;
        int[] c = new int[3];
        for (int t = 0; t < spans.length; t++) {
            for (int k = 0; k < 3; k++) {
                int vertex = mesh.indices()[3 * t + k];
                int fan = made.fan()[3 * t + k];
                float[] v = made.vectors();
                Vec3 normal = new Vec3(v[3 * fan], v[3 * fan + 1], v[3 * fan + 2]);
                changed += normal.minus(mesh.normal(vertex)).length() > 1e-3 ? 1 : 0;
                c[k] = copies.computeIfAbsent(List.of(vertex, fan), key -> work.copy(vertex, null, normal));
            }
            work.triangle(c[0], c[1], c[2], spans[t], work.faceOf(t));
        }
        return changed == 0 ? Optional.empty() : Optional.of(new Outcome(work.toMesh(), changed));
    }
}

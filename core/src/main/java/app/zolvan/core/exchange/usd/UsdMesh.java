package app.zolvan.core.exchange.usd;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.PhongSurface;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.TextNames;
import app.zolvan.core.geometry.CornerMesh;
import app.zolvan.core.geometry.PolygonTriangulation;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** USD meshes as triangles. What several prims take over from one is built once. */
final class UsdMesh {
    private static final double FARTHEST = 1e30;

    private final UsdStage stage;
    private final Reading reading;
    private final Map<Key, Shape> built = new HashMap<>();

    /**
     * @param built   its sources are the places of subsets in the list, or {@link Model#NONE} for what is in none
     * @param subsets names of the subsets that materials may be bound to
     * @param colour  of the whole, where the file gives one and no colours on vertices; else null
     */
    record Shape(CornerMesh.Built built, List<String> subsets, LinearRgb colour) {
        @Override
        public boolean equals(Object o) {
            return this == o;
        }

        @Override
        public int hashCode() {
            return System.identityHashCode(this);
        }
    }

    /** The values that a mesh is made of; the same objects mean the same mesh. */
    private record Key(List<Object> values) {
        @Override
        public boolean equals(Object o) {
            if (!(o instanceof Key k) || k.values.size() != values.size()) {
                return false;
            }
            for (int i = 0; i < values.size(); i++) {
                Object a = values.get(i);
                Object b = k.values.get(i);
                if (a != b && !(a instanceof String s && s.equals(b))) {
                    return false;
                }
            }
            return true;
        }

        @Override
        public int hashCode() {
            int h = 0;
            for (Object v : values) {
                h = 31 * h + (v instanceof String s ? s.hashCode() : System.identityHashCode(v));
            }
            return h;
        }
    }

    /** Gives the name of the coordinates that a subset's material follows, or an empty one. */
    @FunctionalInterface
    interface Coordinates {
        String of(UsdNode subset) throws ImportException;
    }

    UsdMesh(UsdStage stage, Reading reading) {
        this.stage = stage;
        this.reading = reading;
    }

    /** Null for a mesh without triangles. */
    Shape of(UsdNode n, String coordinates, Coordinates ofSubset) throws ImportException {
        List<UsdNode> subsets = new ArrayList<>();
        String uv = coordinates;
        for (UsdNode c : n.children(stage).values()) {
            if (c.type().equals("GeomSubset")
                    && c.token("elementType", "face").equals("face")
                    && (c.token("familyName", "materialBind").equals("materialBind")
                            || c.target("material:binding") != null)) {
                subsets.add(c);
                uv = uv.isEmpty() ? ofSubset.of(c) : uv;
            }
        }
        List<Object> values = new ArrayList<>(List.of(uv, n.token("orientation", "rightHanded")));
        for (String name : n.propertyNames()) {
            if (name.equals("points")
                    || name.startsWith("faceVertex")
                    || name.startsWith("primvars:")
                    || name.equals("normals")
                    || name.equals("holeIndices")) {
                UsdProperty p = n.property(name);
                values.add(p == null ? "" : p.value());
                values.add(name);
            }
        }
        for (UsdNode s : subsets) {
            values.add(
                    s.property("indices") == null ? "" : s.property("indices").value());
            values.add(s.name());
        }
        Key key = new Key(values);
        if (!built.containsKey(key)) {
            built.put(key, build(n, uv, subsets));
        }
        return built.get(key);
    }

    private ImportException damaged(UsdNode n, String how) {
        return new ImportException(
                "invalid",
                "The mesh “" + TextNames.shown(UsdMaterials.name(n), "without a name") + "” in the USD file " + how
                        + ". Export the model again.");
    }

    /** How a list of values belongs to the corners of a mesh's polygons. */
    private record Spread(float[] values, int[] index, String interpolation, int width) {
        /** The place in the list for a corner; below 0 for none. */
        int at(int corner, int point, int face) {
            int i = switch (interpolation) {
                case "constant" -> 0;
                case "uniform" -> face;
                case "faceVarying" -> corner;
                default -> point;
            };
            if (index != null) {
                i = i < index.length ? index[i] : -1;
            }
            return i >= 0 && (long) (i + 1) * width <= values.length ? i : CornerMesh.NONE;
        }
    }

    /** Null when the mesh has no such values. */
    private static Spread spread(UsdNode n, String name, String usual, int width) throws ImportException {
        UsdProperty p = n.property(name);
        if (p == null || p.floats().length < width) {
            return null;
        }
        UsdProperty index = n.property(name + ":indices");
        String interpolation = n.propertyMetadata(name, "interpolation") instanceof String s ? s : usual;
        return new Spread(p.floats(), index == null ? null : index.integers(), interpolation, width);
    }

    private Shape build(UsdNode n, String wantedUv, List<UsdNode> subsets) throws ImportException {
        UsdProperty pointsOf = n.property("points");
        UsdProperty countsOf = n.property("faceVertexCounts");
        UsdProperty indexOf = n.property("faceVertexIndices");
        if (pointsOf == null || countsOf == null || indexOf == null) {
            return null;
        }
        float[] points = pointsOf.floats();
        int[] counts = countsOf.integers();
        int[] index = indexOf.integers();
        points = points.length % 3 == 0 ? points : Arrays.copyOf(points, points.length / 3 * 3);
        for (float p : points) {
            if (!(Math.abs(p) < FARTHEST)) {
                throw damaged(n, "has a point that is nowhere (a coordinate is not a number)");
            }
        }
        Spread normals = spread(n, "primvars:normals", "constant", 3);
        normals = normals == null ? spread(n, "normals", "vertex", 3) : normals;
        String uvName = coordinates(n, wantedUv);
        Spread uv = uvName == null ? null : spread(n, "primvars:" + uvName, "constant", 2);
        int[] subsetOfFace = subsetOfFace(n, counts.length, subsets);
        reading.checkTriangles(Math.max(0, index.length - 2L * counts.length));
        reading.charge(90L * index.length);
        boolean flipped = n.token("orientation", "rightHanded").equals("leftHanded");
        if (normals == null && !n.token("subdivisionScheme", "catmullClark").equals("none")) {
            reading.note("“" + TextNames.shown(UsdMaterials.name(n), "A mesh")
                    + "” is meant to be smoothed by subdivision; it arrives as it is without.");
        }
        CornerMesh corners = new CornerMesh();
        int[] p = new int[8];
        int[] t = new int[8];
        int[] nn = new int[8];
        int at = 0;
        for (int f = 0; f < counts.length; f++) {
            int c = counts[f];
            if (c < 0 || c > PolygonTriangulation.MOST_CORNERS || c > index.length - at) {
                throw damaged(n, "has a face with more corners than are given");
            }
            if (c > p.length) {
                p = new int[2 * c];
                t = new int[2 * c];
                nn = new int[2 * c];
            }
            for (int k = 0; k < c; k++) {
                int corner = at + (flipped ? c - 1 - k : k);
                int point = index[corner];
                if (point < 0 || point >= points.length / 3) {
                    throw damaged(n, "has a face with a point that is not there");
                }
                p[k] = point;
                t[k] = uv == null ? CornerMesh.NONE : uv.at(corner, point, f);
                nn[k] = normals == null ? CornerMesh.NONE : normals.at(corner, point, f);
            }
            at += c;
            if (c >= 3 && subsetOfFace[f] != HOLE) {
                corners.polygon(
                        points,
                        p,
                        uv == null ? null : t,
                        normals == null ? null : nn,
                        c,
                        subsetOfFace[f],
                        CornerMesh.BY_ANGLE);
            }
        }
        if (corners.triangleCount() == 0) {
            return null;
        }
        float[] st = null;
        if (uv != null) { // v runs upwards in USD
            st = uv.values.clone();
            for (int i = 1; i < st.length; i += 2) {
                st[i] = 1 - st[i];
            }
        }
        Spread colour = spread(n, "primvars:displayColor", "constant", 3);
        byte[] colours = colours(n, colour, points.length / 3);
        float[] turned = normals == null ? null : normals.values;
        CornerMesh.Built mesh =
                corners.build(new CornerMesh.Pools(points, st, turned, colours), Preparation.CREASE_ANGLE);
        LinearRgb whole = colour == null || colours != null
                ? null
                : new LinearRgb(
                        PhongSurface.unit(colour.values[0]),
                        PhongSurface.unit(colour.values[1]),
                        PhongSurface.unit(colour.values[2]));
        return new Shape(mesh, subsets.stream().map(UsdNode::name).toList(), whole);
    }

    private static final int HOLE = -2;

    private int[] subsetOfFace(UsdNode n, int faces, List<UsdNode> subsets) throws ImportException {
        reading.charge(4L * faces);
        int[] out = new int[faces];
        Arrays.fill(out, Model.NONE);
        for (int s = 0; s < subsets.size(); s++) {
            UsdProperty indices = subsets.get(s).property("indices");
            for (int f : indices == null ? new int[0] : indices.integers()) {
                if (f >= 0 && f < faces) {
                    out[f] = s;
                }
            }
        }
        UsdProperty holes = n.property("holeIndices");
        for (int f : holes == null ? new int[0] : holes.integers()) {
            if (f >= 0 && f < faces) {
                out[f] = HOLE;
            }
        }
        return out;
    }

    /** The set that the material follows, or "st", or else the first; null for none. */
    private String coordinates(UsdNode n, String wanted) throws ImportException {
        String first = null;
        int sets = 0;
        for (String name : n.propertyNames()) {
            UsdProperty p = n.property(name);
            if (p != null
                    && name.startsWith("primvars:")
                    && !name.endsWith(":indices")
                    && (p.type().startsWith("texCoord2") || p.type().startsWith("float2"))) {
                String set = name.substring(9);
                sets++;
                if (set.equals(wanted)) {
                    return set;
                }
                first = first == null || set.equals("st") ? set : first;
            }
        }
        if (sets > 1) {
            reading.note("“" + TextNames.shown(UsdMaterials.name(n), "A mesh")
                    + "” has several sets of texture coordinates; “" + TextNames.shown(first, "the first")
                    + "” is used.");
        }
        return first;
    }

    /** Colours on points, as 8 bits; null where the file has none. */
    private byte[] colours(UsdNode n, Spread colour, int points) {
        if (colour == null || colour.interpolation.equals("constant")) {
            return null;
        }
        if (colour.interpolation.equals("faceVarying") || colour.interpolation.equals("uniform")) {
            reading.note("“" + TextNames.shown(UsdMaterials.name(n), "A mesh")
                    + "”: colours painted on its faces are not used.");
            return null;
        }
        byte[] out = new byte[4 * points];
        for (int v = 0; v < points; v++) {
            int at = colour.at(v, v, 0);
            for (int k = 0; k < 3; k++) {
                double c = at < 0 ? 1 : PhongSurface.unit(colour.values[3 * at + k]);
                out[4 * v + k] = (byte) Math.round(255 * Srgb.encode(c));
            }
            out[4 * v + 3] = (byte) 255;
        }
        return out;
    }
}

package app.zolvan.core.exchange.collada;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.TextNames;
import app.zolvan.core.exchange.xml.XmlTree;
import app.zolvan.core.geometry.CornerMesh;
import app.zolvan.core.geometry.FloatList;
import app.zolvan.core.geometry.PolygonTriangulation;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** One COLLADA mesh: its sources gathered into shared lists, its primitives as polygons. */
final class ColladaMesh {
    private final XmlTree mesh;
    private final Map<String, XmlTree> byId;
    private final String name;
    private final Reading reading;
    private final FloatList positions = new FloatList();
    private final FloatList uvs = new FloatList();
    private final FloatList normals = new FloatList();
    private final Map<String, Integer> bases = new HashMap<>();
    private final Map<String, Integer> counts = new HashMap<>();
    private final List<String> symbols = new ArrayList<>();
    private final CornerMesh corners = new CornerMesh();

    ColladaMesh(XmlTree mesh, Map<String, XmlTree> byId, String name, Reading reading) {
        this.mesh = mesh;
        this.byId = byId;
        this.name = TextNames.shown(name, "a shape");
        this.reading = reading;
    }

    /** The material symbols that spans refer to by number. */
    List<String> symbols() {
        return symbols;
    }

    CornerMesh.Built build() throws ImportException {
        for (XmlTree p : mesh.children()) {
            switch (p.name()) {
                case "triangles", "polylist", "polygons", "tristrips", "trifans" -> primitive(p);
                case "lines", "linestrips" ->
                    reading.note("Points and lines are left out: they have no surface to dress.");
                default -> {
                    // sources and vertices are looked up by name
                }
            }
        }
        if (corners.triangleCount() == 0) {
            return null;
        }
        reading.charge(corners.triangleCount() * 90L);
        return corners.build(
                new CornerMesh.Pools(positions.array(), uvs.array(), normals.size() > 0 ? normals.array() : null, null),
                Preparation.CREASE_ANGLE);
    }

    /** Where a primitive's indices lead: offset within a corner, first entry in the shared list, number of entries. */
    private record Input(int offset, int base, int count) {}

    private void primitive(XmlTree p) throws ImportException {
        Input position = null;
        Input normal = null;
        Input uv = null;
        int stride = 1;
        for (XmlTree in : p.all("input")) {
            double written = in.number("offset", in.number("idx", 0));
            if (!(written >= 0 && written < 64)) {
                throw damaged("an input at an odd place");
            }
            int offset = (int) written;
            stride = Math.max(stride, offset + 1);
            String source = in.attribute("source", "#")
                    .substring(Math.min(1, in.attribute("source", "#").length()));
            switch (in.attribute("semantic", "")) {
                case "VERTEX" -> {
                    XmlTree vertices = byId.get(source);
                    for (XmlTree v : vertices == null ? List.<XmlTree>of() : vertices.all("input")) {
                        String inner = v.attribute("source", "#")
                                .substring(
                                        Math.min(1, v.attribute("source", "#").length()));
                        switch (v.attribute("semantic", "")) {
                            case "POSITION" -> position = input(offset, inner, positions, 3);
                            case "NORMAL" -> normal = normal == null ? input(offset, inner, normals, 3) : normal;
                            case "TEXCOORD" -> uv = uv == null ? input(offset, inner, uvs, 2) : uv;
                            default -> {
                                // other data of a vertex
                            }
                        }
                    }
                }
                case "NORMAL" -> normal = input(offset, source, normals, 3);
                case "TEXCOORD" -> {
                    if (uv == null || in.number("set", 0) == 0) {
                        uv = input(offset, source, uvs, 2);
                    } else {
                        reading.note("“" + name + "” has several sets of texture coordinates; the first is used.");
                    }
                }
                case "COLOR" -> reading.note("Colours painted on vertices of COLLADA files are not used.");
                default -> {
                    // tangents and the like are computed anew
                }
            }
        }
        if (position == null) {
            throw damaged("faces without positions");
        }
        String symbol = p.attribute("material");
        int source = symbol == null ? Model.NONE : symbolNumber(symbol);
        Corners c = new Corners(stride, position, normal, uv, source);
        switch (p.name()) {
            case "triangles" -> {
                for (XmlTree list : p.all("p")) {
                    int[] index = integers(list.numbers());
                    for (int i = 0; i + 3 * stride <= index.length; i += 3 * stride) {
                        c.polygon(index, i, 3);
                    }
                }
            }
            case "polylist" -> {
                int[] counts = p.first("vcount") == null
                        ? new int[0]
                        : integers(p.first("vcount").numbers());
                int[] index = p.first("p") == null
                        ? new int[0]
                        : integers(p.first("p").numbers());
                int at = 0;
                for (int n : counts) {
                    if (n < 0
                            || n > PolygonTriangulation.MOST_CORNERS
                            || (long) at + (long) n * stride > index.length) {
                        throw damaged("polygons with more corners than are given");
                    }
                    c.polygon(index, at, n);
                    at += n * stride;
                }
            }
            case "polygons" -> {
                for (XmlTree list : p.all("p")) {
                    int[] index = integers(list.numbers());
                    c.polygon(index, 0, Math.min(index.length / stride, PolygonTriangulation.MOST_CORNERS));
                }
                for (XmlTree holed : p.all("ph")) {
                    c.holed(holed);
                }
            }
            default -> {
                for (XmlTree list : p.all("p")) {
                    c.run(integers(list.numbers()), p.name().equals("trifans"));
                }
            }
        }
        reading.checkTriangles(corners.triangleCount());
        p.children().forEach(XmlTree::forget);
    }

    private int symbolNumber(String symbol) {
        int i = symbols.indexOf(symbol);
        if (i < 0) {
            symbols.add(symbol);
            i = symbols.size() - 1;
        }
        return i;
    }

    private int[] integers(double[] values) throws ImportException {
        int[] out = new int[values.length];
        for (int i = 0; i < out.length; i++) {
            if (!(values[i] >= 0 && values[i] <= Integer.MAX_VALUE)) {
                throw damaged("an index that is not a whole number");
            }
            out[i] = (int) values[i];
        }
        return out;
    }

    /** Puts a source into a shared list, once. */
    private Input input(int offset, String id, FloatList pool, int width) throws ImportException {
        String key = System.identityHashCode(pool) + id;
        Integer base = bases.get(key);
        if (base == null) {
            base = pool.size() / width;
            XmlTree source = byId.get(id);
            XmlTree array = source == null ? null : source.first("float_array");
            if (array == null) {
                throw damaged("a list of numbers that is missing (“" + TextNames.shown(id, "") + "”)");
            }
            XmlTree accessor = source.path("technique_common", "accessor");
            double stride = accessor == null ? width : accessor.number("stride", width);
            double start = accessor == null ? 0 : accessor.number("offset", 0);
            if (!(stride >= 1 && stride < 64 && start >= 0 && start < 1e9)) {
                throw damaged("a list of numbers that can’t be followed");
            }
            double[] v = array.numbers();
            reading.charge(4L * v.length);
            for (int i = (int) start; i + Math.min(width, stride) <= v.length; i += (int) stride) {
                for (int k = 0; k < width; k++) {
                    double x = k < stride ? v[i + k] : 0;
                    if (pool == positions && !(Math.abs(x) < 1e30)) {
                        throw new ImportException(
                                "not-finite",
                                "“" + name
                                        + "” has a corner that is nowhere (a coordinate is not a number). Repair the shape"
                                        + " in the modelling program and export it again.");
                    }
                    double upright = pool == uvs && k == 1 ? 1 - x : x;
                    pool.add(Math.abs(upright) < 1e30 ? (float) upright : 0);
                }
            }
            bases.put(key, base);
            counts.put(key, pool.size() / width - base);
        }
        return new Input(offset, base, counts.get(key));
    }

    private ImportException damaged(String how) {
        return new ImportException(
                "invalid", "“" + name + "” in the COLLADA file has " + how + ". The file is damaged; export it again.");
    }

    /** Turns a primitive's indices into polygons. */
    private final class Corners {
        private final int stride;
        private final Input position;
        private final Input normal;
        private final Input uv;
        private final int source;

        Corners(int stride, Input position, Input normal, Input uv, int source) {
            this.stride = stride;
            this.position = position;
            this.normal = normal;
            this.uv = uv;
            this.source = source;
        }

        private int[] take(Input in, int[] index, int at, int n) throws ImportException {
            if (in == null) {
                return null;
            }
            int[] out = new int[n];
            for (int i = 0; i < n; i++) {
                int v = index[at + i * stride + in.offset];
                if (v >= in.count) {
                    throw damaged("a corner that uses entry " + v + " of " + in.count);
                }
                out[i] = in.base + v;
            }
            return out;
        }

        void polygon(int[] index, int at, int n) throws ImportException {
            if (n >= 3) {
                corners.polygon(
                        positions.array(),
                        take(position, index, at, n),
                        take(uv, index, at, n),
                        take(normal, index, at, n),
                        n,
                        source,
                        CornerMesh.BY_ANGLE);
            }
        }

        void holed(XmlTree holed) throws ImportException {
            int[] all = new int[0];
            List<Integer> starts = new ArrayList<>();
            for (XmlTree loop : holed.children()) {
                if (loop.name().equals("p") || loop.name().equals("h")) {
                    int[] index = integers(loop.numbers());
                    int n = index.length / stride;
                    if (n < 3) {
                        continue;
                    }
                    starts.add(all.length / stride);
                    int old = all.length;
                    all = Arrays.copyOf(all, old + n * stride);
                    System.arraycopy(index, 0, all, old, n * stride);
                }
            }
            int n = all.length / stride;
            if (n < 3 || n > PolygonTriangulation.MOST_CORNERS) {
                return;
            }
            int[] p = take(position, all, 0, n);
            double[] points = new double[3 * n];
            for (int i = 0; i < n; i++) {
                for (int k = 0; k < 3; k++) {
                    points[3 * i + k] = positions.get(3 * p[i] + k);
                }
            }
            corners.polygon(
                    points,
                    p,
                    take(uv, all, 0, n),
                    take(normal, all, 0, n),
                    source,
                    CornerMesh.BY_ANGLE,
                    starts.stream().mapToInt(Integer::intValue).toArray());
        }

        void run(int[] index, boolean fan) throws ImportException {
            int n = index.length / stride;
            int[] three = new int[3 * stride];
            for (int i = 2; i < n; i++) {
                boolean odd = !fan && i % 2 == 1;
                int[] at = {fan ? 0 : i - 2, odd ? i : i - 1, odd ? i - 1 : i};
                for (int k = 0; k < 3; k++) {
                    System.arraycopy(index, at[k] * stride, three, k * stride, stride);
                }
                polygon(three, 0, 3);
            }
        }
    }
}

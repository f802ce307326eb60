package app.zolvan.core.exchange.ply;

import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.Arrival.UpDecision;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelAssembly;
import app.zolvan.core.exchange.ModelReader;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.exchange.text.NumberStream;
import app.zolvan.core.exchange.text.TextScanner;
import app.zolvan.core.geometry.CornerMesh;
import app.zolvan.core.geometry.FloatList;
import app.zolvan.core.geometry.PolygonTriangulation;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * Reads PLY, text and binary of either byte order, with properties in any order: positions, normals, texture
 * coordinates, colours on vertices, and polygons or triangle strips. Elements and properties of other kinds are passed
 * over and listed.
 */
public final class PlyReader implements ModelReader {

    @Override
    public String format() {
        return "PLY";
    }

    @Override
    public boolean recognises(FileSet files) {
        return files.head().startsWith("ply\n") || files.head().startsWith("ply\r");
    }

    @Override
    public Arrival read(FileSet files, Reading reading) throws ImportException {
        return new Pass(files, reading).run();
    }

    private enum Type {
        INT8(1),
        UINT8(1),
        INT16(2),
        UINT16(2),
        INT32(4),
        UINT32(4),
        FLOAT32(4),
        FLOAT64(8);

        final int bytes;

        Type(int bytes) {
            this.bytes = bytes;
        }

        static Type of(String word) {
            return switch (word) {
                case "char", "int8" -> INT8;
                case "uchar", "uint8" -> UINT8;
                case "short", "int16" -> INT16;
                case "ushort", "uint16" -> UINT16;
                case "int", "int32" -> INT32;
                case "uint", "uint32" -> UINT32;
                case "float", "float32" -> FLOAT32;
                case "double", "float64" -> FLOAT64;
                default -> null;
            };
        }

        double scaleOfColour() {
            return this == FLOAT32 || this == FLOAT64 ? 255 : this == UINT16 || this == INT16 ? 1 / 257.0 : 1;
        }
    }

    /** @param count type of a list's length; null for a single value */
    private record Property(String name, Type type, Type count) {}

    private record Element(String name, long count, List<Property> properties) {
        int index(String... names) {
            for (int i = 0; i < properties.size(); i++) {
                for (String n : names) {
                    if (properties.get(i).name.equals(n)) {
                        return i;
                    }
                }
            }
            return -1;
        }
    }

    /** Gives one value after another, whatever the encoding. */
    private interface Values {
        double next(Type type) throws ImportException;

        double share();
    }

    /** One reading of one file. */
    private static final class Pass {
        private final FileSet files;
        private final Reading reading;
        private final List<Element> elements = new ArrayList<>();
        private final TextScanner header;
        private String encoding = "";
        private float[] positions;
        private float[] normals;
        private float[] uvs;
        private byte[] colours;
        private final CornerMesh corners = new CornerMesh();
        private FloatList cornerUv;
        private long triangles;

        Pass(FileSet files, Reading reading) {
            this.files = files;
            this.reading = reading;
            this.header = new TextScanner(files.bytes(), false);
        }

        Arrival run() throws ImportException {
            readHeader();
            Values values = values();
            for (Element e : elements) {
                switch (e.name) {
                    case "vertex" -> vertices(e, values);
                    case "face", "tristrips" -> faces(e, values);
                    default -> {
                        reading.note("The PLY file’s “" + e.name + "” elements are not used.");
                        skip(e, values);
                    }
                }
            }
            if (positions == null || corners.triangleCount() == 0) {
                throw new ImportException(
                        "empty",
                        "The PLY file holds no faces, only loose points: there is no surface to dress. Export a mesh.");
            }
            ModelAssembly model = new ModelAssembly("PLY", reading);
            reading.charge(corners.triangleCount() * 90L);
            String name = files.name().substring(files.name().lastIndexOf('/') + 1);
            int dot = name.lastIndexOf('.');
            boolean cornerUvs = cornerUv != null;
            CornerMesh.Pools pools =
                    new CornerMesh.Pools(positions, cornerUvs ? cornerUv.array() : uvs, normals, colours);
            model.part(
                    Model.NONE,
                    dot > 0 ? name.substring(0, dot) : name,
                    Transform.IDENTITY,
                    corners.build(pools, Preparation.CREASE_ANGLE));
            return model.finishGuessing(
                    new UpDecision(UpAxis.Y, "PLY files do not say which way is up.", false),
                    LengthUnit.M,
                    LengthUnit.MM,
                    LengthUnit.CM,
                    LengthUnit.IN);
        }

        private void readHeader() throws ImportException {
            header.nextLine();
            List<Property> properties = List.of();
            while (true) {
                if (!header.nextLine()) {
                    throw new ImportException(
                            "truncated", "The PLY file ends inside its header. Export it again, or copy it again.");
                }
                if (!header.nextWord()) {
                    continue;
                }
                switch (header.word()) {
                    case "format" -> encoding = header.nextWord() ? header.word() : "";
                    case "element" -> {
                        String name = header.nextWord() ? header.word() : "";
                        double count = header.number();
                        if (!(count >= 0 && count <= Integer.MAX_VALUE)) {
                            throw header.fault("PLY", "gives a count that can’t be right");
                        }
                        properties = new ArrayList<>();
                        elements.add(new Element(name, (long) count, properties));
                    }
                    case "property" -> properties.add(property());
                    case "end_header" -> {
                        return;
                    }
                    default -> {
                        // comments
                    }
                }
                if (elements.size() > 64 || properties.size() > 256) {
                    throw header.fault("PLY", "makes the header longer than can be right");
                }
            }
        }

        private Property property() throws ImportException {
            if (elements.isEmpty()) {
                throw header.fault("PLY", "names a property before any element");
            }
            header.nextWord();
            Type count = null;
            if (header.wordIs("list")) {
                header.nextWord();
                count = Type.of(header.word());
                header.nextWord();
                if (count == null) {
                    throw header.fault("PLY", "names a kind of number that PLY does not have");
                }
            }
            Type type = Type.of(header.word());
            if (type == null || !header.nextWord()) {
                throw header.fault("PLY", "names a kind of number that PLY does not have");
            }
            return new Property(header.word(), type, count);
        }

        private Values values() throws ImportException {
            return switch (encoding) {
                case "ascii" -> {
                    ByteBuffer numbers = files.bytes();
                    numbers.position(header.offsetAfterLine());
                    yield new TextValues(new NumberStream(numbers));
                }
                case "binary_little_endian" -> new BinaryValues(files.bytes(), header.offsetAfterLine());
                case "binary_big_endian" ->
                    new BinaryValues(files.bytes().order(ByteOrder.BIG_ENDIAN), header.offsetAfterLine());
                default ->
                    throw new ImportException(
                            "unsupported",
                            "The PLY file is written in a way Zolvan does not know (“" + encoding
                                    + "”). Export it as binary or ASCII PLY.");
            };
        }

        private void requireRoom(Element e) throws ImportException {
            long least = 0; // a text number takes two bytes with its blank
            for (Property p : e.properties) {
                least += encoding.equals("ascii") ? 2 : p.count == null ? p.type.bytes : p.count.bytes;
            }
            if (e.count * Math.max(1, least) > files.size() + 1L) {
                throw new ImportException(
                        "truncated",
                        String.format(
                                Locale.ROOT,
                                "The PLY file claims %,d “%s” elements, more than it has room for. It is incomplete or"
                                        + " damaged; export it again.",
                                e.count,
                                e.name));
            }
        }

        private void vertices(Element e, Values in) throws ImportException {
            requireRoom(e);
            int[] xyz = {e.index("x"), e.index("y"), e.index("z")};
            int[] nxyz = {e.index("nx", "normal_x"), e.index("ny", "normal_y"), e.index("nz", "normal_z")};
            int[] st = {e.index("s", "u", "texture_u", "tx"), e.index("t", "v", "texture_v", "ty")};
            int[] rgba = {
                e.index("red", "r", "diffuse_red"),
                e.index("green", "g", "diffuse_green"),
                e.index("blue", "b", "diffuse_blue"),
                e.index("alpha", "a", "diffuse_alpha")
            };
            if (xyz[0] < 0 || xyz[1] < 0 || xyz[2] < 0) {
                throw new ImportException("invalid", "The PLY file’s points have no x, y and z. Export it again.");
            }
            int n = (int) e.count;
            reading.charge(n * 40L);
            positions = new float[3 * n];
            normals = nxyz[0] >= 0 && nxyz[1] >= 0 && nxyz[2] >= 0 ? new float[3 * n] : null;
            uvs = st[0] >= 0 && st[1] >= 0 ? new float[2 * n] : null;
            colours = rgba[0] >= 0 && rgba[1] >= 0 && rgba[2] >= 0 ? new byte[4 * n] : null;
            double[] row = new double[e.properties.size()];
            Property[] properties = e.properties.toArray(new Property[0]);
            for (int v = 0; v < n; v++) {
                for (int i = 0; i < row.length; i++) {
                    row[i] = single(properties[i], in);
                }
                for (int k = 0; k < 3; k++) {
                    double c = row[xyz[k]];
                    if (!(Math.abs(c) < 1e30)) {
                        throw new ImportException(
                                "not-finite",
                                "Point " + v
                                        + " of the PLY file is nowhere (a coordinate is not a number). Repair the shape"
                                        + " in the modelling program and export it again.");
                    }
                    positions[3 * v + k] = (float) c;
                    if (normals != null) {
                        normals[3 * v + k] = (float) row[nxyz[k]];
                    }
                }
                if (uvs != null) {
                    uvs[2 * v] = finite(row[st[0]]);
                    uvs[2 * v + 1] = finite(1 - row[st[1]]);
                }
                if (colours != null) {
                    for (int k = 0; k < 4; k++) {
                        colours[4 * v + k] = rgba[k] < 0
                                ? (byte) 255
                                : (byte) Math.max(
                                        0,
                                        Math.min(
                                                255,
                                                Math.round(row[rgba[k]] * properties[rgba[k]].type.scaleOfColour())));
                    }
                }
                if ((v & 0xFFFF) == 0xFFFF) {
                    reading.progress(0.7 * in.share(), "Reading points");
                }
            }
        }

        private static float finite(double v) {
            return Math.abs(v) < 1e9 ? (float) v : 0;
        }

        private static double single(Property p, Values in) throws ImportException {
            if (p.count == null) {
                return in.next(p.type);
            }
            int n = (int) in.next(p.count);
            double first = 0;
            for (int i = 0; i < n; i++) {
                double v = in.next(p.type);
                first = i == 0 ? v : first;
            }
            return first;
        }

        private void skip(Element e, Values in) throws ImportException {
            for (long i = 0; i < e.count; i++) {
                for (Property p : e.properties) {
                    single(p, in);
                }
                if ((i & 0xFFFF) == 0xFFFF) {
                    reading.progress(0.7 * in.share(), "Passing over " + e.name);
                }
            }
        }

        private void faces(Element e, Values in) throws ImportException {
            requireRoom(e);
            if (positions == null) {
                throw new ImportException("invalid", "The PLY file lists faces before points. Export it again.");
            }
            int list = e.index("vertex_indices", "vertex_index");
            if (list < 0 || e.properties.get(list).count == null) {
                throw new ImportException("invalid", "The PLY file’s faces do not name their points. Export it again.");
            }
            int coordinates = e.index("texcoord");
            boolean strips = e.name.equals("tristrips");
            int[] p = new int[16];
            double[] uv = new double[32];
            for (long f = 0; f < e.count; f++) {
                int n = 0;
                int given = 0;
                for (int i = 0; i < e.properties.size(); i++) {
                    Property property = e.properties.get(i);
                    if (i == list) {
                        n = length(property, in, strips ? Integer.MAX_VALUE : PolygonTriangulation.MOST_CORNERS);
                        p = n > p.length ? new int[n] : p;
                        for (int k = 0; k < n; k++) {
                            p[k] = vertex(in.next(property.type), strips);
                        }
                    } else if (i == coordinates && property.count != null) {
                        given = length(property, in, 2 * PolygonTriangulation.MOST_CORNERS);
                        uv = given > uv.length ? new double[given] : uv;
                        for (int k = 0; k < given; k++) {
                            uv[k] = in.next(property.type);
                        }
                    } else {
                        single(property, in);
                    }
                }
                if (strips) {
                    strip(p, n);
                } else if (n >= 3) {
                    polygon(p, n, given == 2 * n ? uv : null);
                }
                if ((f & 0xFFF) == 0xFFF) {
                    reading.checkTriangles(triangles);
                    reading.charge(0x1000 * 44L);
                    reading.progress(0.7 * in.share(), "Reading faces");
                }
            }
        }

        private int length(Property property, Values in, int most) throws ImportException {
            double n = in.next(property.count);
            if (!(n >= 0 && n <= Math.min(most, files.size()))) {
                throw new ImportException(
                        "invalid",
                        "A face of the PLY file claims " + n + " corners, which can’t be right. Export it again.");
            }
            return (int) n;
        }

        private int vertex(double v, boolean strips) throws ImportException {
            int points = positions.length / 3;
            if (!(v >= (strips ? -1 : 0) && v < points)) {
                throw new ImportException(
                        "out-of-range",
                        String.format(
                                Locale.ROOT,
                                "A face of the PLY file uses point %.0f of %,d. The file is damaged; export it again.",
                                v,
                                points));
            }
            return (int) v;
        }

        private void polygon(int[] p, int n, double[] uv) {
            int[] t = null;
            if (uv != null) {
                if (cornerUv == null) {
                    cornerUv = new FloatList();
                }
                t = new int[n];
                for (int k = 0; k < n; k++) {
                    t[k] = cornerUv.size() / 2;
                    cornerUv.add(finite(uv[2 * k]));
                    cornerUv.add(finite(1 - uv[2 * k + 1]));
                }
            } else if (uvs != null) {
                t = p;
            }
            corners.polygon(positions, p, t, normals == null ? null : p, n, Model.NONE, CornerMesh.BY_ANGLE);
            triangles += n - 2;
        }

        /** Strips end at −1 and turn about at every other triangle. */
        private void strip(int[] p, int n) {
            int begin = 0;
            for (int i = 0; i < n; i++) {
                if (p[i] < 0) {
                    begin = i + 1;
                } else if (i - begin >= 2) {
                    boolean odd = (i - begin) % 2 == 1;
                    int[] three = {p[i - 2], p[odd ? i : i - 1], p[odd ? i - 1 : i]};
                    polygon(three, 3, null);
                }
            }
        }
    }

    private static final class TextValues implements Values {
        private final NumberStream in;

        TextValues(NumberStream in) {
            this.in = in;
        }

        @Override
        public double next(Type type) throws ImportException {
            if (!in.hasNext()) {
                throw new ImportException(
                        "truncated",
                        "The PLY file ends before all it claims has come. Export it again, or check that the copy"
                                + " finished.");
            }
            return in.next();
        }

        @Override
        public double share() {
            return in.share();
        }
    }

    private static final class BinaryValues implements Values {
        private final ByteBuffer in;

        BinaryValues(ByteBuffer in, int start) {
            this.in = in;
            in.position(Math.min(start, in.limit()));
        }

        @Override
        public double next(Type type) throws ImportException {
            if (in.remaining() < type.bytes) {
                throw new ImportException(
                        "truncated",
                        "The PLY file ends before all it claims has come (byte " + in.position()
                                + "). Export it again, or check that the copy finished.");
            }
            return switch (type) {
                case INT8 -> in.get();
                case UINT8 -> in.get() & 0xFF;
                case INT16 -> in.getShort();
                case UINT16 -> in.getShort() & 0xFFFF;
                case INT32 -> in.getInt();
                case UINT32 -> Integer.toUnsignedLong(in.getInt());
                case FLOAT32 -> in.getFloat();
                case FLOAT64 -> in.getDouble();
            };
        }

        @Override
        public double share() {
            return (double) in.position() / Math.max(1, in.limit());
        }
    }
}

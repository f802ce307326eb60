package app.zolvan.core.exchange.obj;

import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.Arrival.UpDecision;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelAssembly;
import app.zolvan.core.exchange.ModelReader;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.exchange.text.TextScanner;
import app.zolvan.core.geometry.CornerMesh;
import app.zolvan.core.geometry.FloatList;
import app.zolvan.core.geometry.PolygonTriangulation;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * Reads Wavefront OBJ with its MTL libraries: objects become groups of the parts that their groups are, smoothing groups
 * and negative indices are followed, polygons of any shape cut into triangles, colours on vertices kept. Free-form
 * curves and surfaces, lines and points are left out with a note.
 */
public final class ObjReader implements ModelReader {
    private static final Pattern STARTS_LIKE_OBJ = Pattern.compile(
            "(?s)\\A(\\s|#[^\\n]*\\n|(mtllib|usemtl|[og]|s|vn|vt) [^\\n]*\\n)*(v|vn|vt)\\s+[-+.\\d][-+.\\deE]*\\s+[-+.\\d].*");
    private static final int CHARGE_EVERY = 1 << 16;
    /** How many parts are built at a time. */
    private static final int AT_ONCE = 64;

    @Override
    public String format() {
        return "OBJ";
    }

    @Override
    public boolean recognises(FileSet files) {
        String head = files.head();
        if (STARTS_LIKE_OBJ.matcher(head).matches()) {
            return true;
        }
        String start = head.stripLeading();
        return (start.startsWith("mtllib ")
                        || start.startsWith("o ")
                        || start.startsWith("g ")
                        || start.startsWith("#"))
                && (head.contains("\nmtllib ")
                        || head.contains("\nv ")
                        || head.contains("\no ")
                        || start.startsWith("mtllib"));
    }

    @Override
    public Arrival read(FileSet files, Reading reading) throws ImportException {
        return new Pass(files, reading).run();
    }

    /** One reading of one file. */
    private static final class Pass {
        private final FileSet files;
        private final Reading reading;
        private final ModelAssembly model;
        private final TextScanner in;
        private final FloatList positions = new FloatList();
        private final FloatList uvs = new FloatList();
        private final FloatList normals = new FloatList();
        private FloatList colours;
        private final Map<String, Map<String, CornerMesh>> objects = new LinkedHashMap<>();
        private final Map<String, Integer> sources = new HashMap<>();
        private final Map<String, Surface> library = new HashMap<>();
        private String object = "";
        private String group = "";
        private CornerMesh current;
        private int source = Model.NONE;
        private int smoothing = CornerMesh.BY_ANGLE;
        private int[] p = new int[8];
        private int[] t = new int[8];
        private int[] n = new int[8];
        private final int[] corner = new int[3];
        private long triangles;
        private double[] origin;

        Pass(FileSet files, Reading reading) {
            this.files = files;
            this.reading = reading;
            this.model = new ModelAssembly("OBJ", reading);
            this.in = new TextScanner(files.bytes(), true);
        }

        Arrival run() throws ImportException {
            long lines = 0;
            while (in.nextLine()) {
                if (in.nextWord()) {
                    statement();
                }
                if ((++lines & (CHARGE_EVERY - 1)) == 0) {
                    reading.charge(CHARGE_EVERY * 40L);
                    reading.progress(0.7 * in.share(), "Reading lines");
                }
            }
            build();
            return model.finishGuessing(
                    new UpDecision(UpAxis.Y, "OBJ files have Y up unless their exporter was told otherwise.", true),
                    LengthUnit.M,
                    LengthUnit.MM,
                    LengthUnit.CM,
                    LengthUnit.IN);
        }

        private void statement() throws ImportException {
            if (in.wordIs("v")) {
                position();
            } else if (in.wordIs("f") || in.wordIs("fo")) {
                face();
            } else if (in.wordIs("vn")) {
                vector(normals, 3);
            } else if (in.wordIs("vt")) {
                coordinate();
            } else if (in.wordIs("usemtl")) {
                source = source(in.rest());
            } else if (in.wordIs("g")) {
                group = in.rest();
                current = null;
            } else if (in.wordIs("o")) {
                object = in.rest();
                group = "";
                current = null;
            } else if (in.wordIs("s")) {
                smoothing = in.nextWord() && !in.wordIs("off") ? Math.max(0, in.wordInteger()) : 0;
            } else if (in.wordIs("mtllib")) {
                library(in.rest());
            } else if (in.wordIs("l") || in.wordIs("p")) {
                reading.note("Points and lines are left out: they have no surface to dress.");
            } else if (in.wordIs("cstype") || in.wordIs("curv") || in.wordIs("surf")) {
                reading.note("Free-form curves and surfaces are left out; export them as polygons.");
            }
        }

        /** Positions far from the origin are kept from the first one, so that single precision holds them. */
        private void position() throws ImportException {
            double x = in.number();
            double y = in.number();
            double z = in.number();
            if (!(Math.abs(x) < 1e30 && Math.abs(y) < 1e30 && Math.abs(z) < 1e30)) {
                throw new ImportException(
                        "not-finite",
                        "Line " + in.lineNumber()
                                + " of the OBJ file places a corner at something that is not a number. Repair the shape"
                                + " in the modelling program and export it again.");
            }
            if (origin == null) {
                boolean far = Math.max(Math.abs(x), Math.max(Math.abs(y), Math.abs(z))) > 1e5;
                origin = far ? new double[] {x, y, z} : new double[3];
            }
            positions.add((float) (x - origin[0]));
            positions.add((float) (y - origin[1]));
            positions.add((float) (z - origin[2]));
            double r = in.number();
            double g = in.number();
            double b = in.number();
            if (!Double.isNaN(b) && colours == null) {
                colours = new FloatList();
            }
            if (colours != null) {
                while (colours.size() < positions.size() - 3) {
                    colours.add(1);
                }
                colours.add(Double.isNaN(b) ? 1 : (float) r);
                colours.add(Double.isNaN(b) ? 1 : (float) g);
                colours.add(Double.isNaN(b) ? 1 : (float) b);
            }
        }

        private void vector(FloatList to, int width) {
            for (int k = 0; k < width; k++) {
                double v = in.number();
                to.add(Math.abs(v) < 1e30 ? (float) v : 0);
            }
        }

        private void coordinate() {
            double u = in.number();
            double v = in.number();
            uvs.add(Math.abs(u) < 1e9 ? (float) u : 0);
            uvs.add(Math.abs(v) < 1e9 ? (float) (1 - v) : 1); // images start at the top here
        }

        private void face() throws ImportException {
            int count = 0;
            boolean anyT = false;
            boolean anyN = false;
            while (true) {
                int slots = in.nextSlashed(corner);
                if (slots == 0) {
                    break;
                }
                if (slots < 0) {
                    if (in.word().startsWith("#")) {
                        break;
                    }
                    throw in.fault("OBJ", "has a face whose corner “" + in.word() + "” can’t be understood");
                }
                if (count == p.length) {
                    grow();
                }
                p[count] = index(corner[0], positions.size() / 3, "position");
                t[count] = slots > 1 && corner[1] != Integer.MIN_VALUE
                        ? index(corner[1], uvs.size() / 2, "texture coordinate")
                        : -1;
                n[count] = slots > 2 && corner[2] != Integer.MIN_VALUE
                        ? index(corner[2], normals.size() / 3, "normal")
                        : -1;
                anyT |= t[count] >= 0;
                anyN |= n[count] >= 0;
                count++;
            }
            if (count < 3) {
                return; // a face without area
            }
            if (count > PolygonTriangulation.MOST_CORNERS) {
                throw in.fault(
                        "OBJ", String.format(Locale.ROOT, "has a face with %,d corners, which can’t be right", count));
            }
            if (current == null) {
                current = objects.computeIfAbsent(object, o -> new LinkedHashMap<>())
                        .computeIfAbsent(group, g -> new CornerMesh());
            }
            current.polygon(positions.array(), p, anyT ? t : null, anyN ? n : null, count, source, smoothing);
            triangles += count - 2;
            if ((triangles & 0xFFF) == 0) {
                reading.checkTriangles(triangles);
            }
        }

        private void grow() {
            p = Arrays.copyOf(p, p.length * 2);
            t = Arrays.copyOf(t, t.length * 2);
            n = Arrays.copyOf(n, n.length * 2);
        }

        private int index(int written, int have, String what) throws ImportException {
            int i = written < 0 ? have + written : written - 1;
            if (i < 0 || i >= have || written == 0) {
                throw in.fault("OBJ", "uses " + what + " " + written + " where the file has given " + have);
            }
            return i;
        }

        private int source(String name) {
            return sources.computeIfAbsent(name, k -> model.source(k, library.getOrDefault(k, Surface.STANDARD)));
        }

        private void library(String names) throws ImportException {
            List<String> tries = new ArrayList<>(List.of(names)); // one name with blanks, or several
            if (names.contains(" ")) {
                tries.addAll(List.of(names.split("\\s+")));
            }
            for (String name : tries) {
                ByteBuffer mtl = files.companion(name, reading).orElse(null);
                if (mtl != null) {
                    library.putAll(MtlReader.read(mtl, files, model, reading));
                    if (name.equals(names)) {
                        return;
                    }
                }
            }
            if (library.isEmpty()) {
                reading.lack(names);
            }
        }

        private void build() throws ImportException {
            reading.charge(positions.size() * 4L + uvs.size() * 4L + normals.size() * 4L + triangles * 60);
            CornerMesh.Pools pools = new CornerMesh.Pools(
                    positions.array(), uvs.array(), normals.size() > 0 ? normals.array() : null, colourBytes());
            Transform moved =
                    origin == null ? Transform.IDENTITY : Transform.translation(origin[0], origin[1], origin[2]);
            List<Piece> pieces = new ArrayList<>();
            for (Map.Entry<String, Map<String, CornerMesh>> o : objects.entrySet()) {
                Map<String, CornerMesh> groups = o.getValue();
                boolean named = !o.getKey().isEmpty();
                boolean one = groups.size() == 1;
                int parent = Model.NONE;
                if (named && !one) {
                    parent = model.group(Model.NONE, o.getKey(), Transform.IDENTITY);
                }
                for (Map.Entry<String, CornerMesh> g : groups.entrySet()) {
                    String name = (named && one) || g.getKey().isEmpty() ? o.getKey() : g.getKey();
                    pieces.add(new Piece(parent, name, g.getValue()));
                }
            }
            objects.clear();
            for (int from = 0; from < pieces.size(); from += AT_ONCE) { // a few at a time, so that memory stays low
                List<Piece> some = pieces.subList(from, Math.min(pieces.size(), from + AT_ONCE));
                List<CornerMesh.Built> built = some.parallelStream()
                        .map(piece -> piece.corners.build(pools, Preparation.CREASE_ANGLE))
                        .toList();
                for (int i = 0; i < built.size(); i++) {
                    model.part(some.get(i).parent, some.get(i).name, moved, built.get(i));
                    some.set(i, null);
                }
                reading.progress(0.7 + 0.3 * from / pieces.size(), "Building parts");
            }
        }

        /** A part to be: where it belongs, its name and its corners. */
        private record Piece(int parent, String name, CornerMesh corners) {}

        private byte[] colourBytes() {
            if (colours == null) {
                return null;
            }
            byte[] out = new byte[positions.size() / 3 * 4];
            float strongest = 0;
            for (int i = 0; i < colours.size(); i++) {
                strongest = Math.max(strongest, colours.get(i));
            }
            float scale = strongest > 1 ? 1 : 255; // some write 0 … 255
            for (int v = 0; v < out.length / 4; v++) {
                for (int k = 0; k < 3; k++) {
                    float c = 3 * v + k < colours.size() ? colours.get(3 * v + k) : strongest > 1 ? 255 : 1;
                    out[4 * v + k] = (byte) Math.max(0, Math.min(255, Math.round(c * scale)));
                }
                out[4 * v + 3] = (byte) 255;
            }
            return out;
        }
    }
}

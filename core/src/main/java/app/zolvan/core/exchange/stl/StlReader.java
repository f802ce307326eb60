package app.zolvan.core.exchange.stl;

import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.Arrival.UpDecision;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelAssembly;
import app.zolvan.core.exchange.ModelReader;
import app.zolvan.core.exchange.PhongSurface;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.exchange.text.TextScanner;
import app.zolvan.core.geometry.CornerMesh;
import app.zolvan.core.geometry.FloatList;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.VertexWeld;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import java.nio.ByteBuffer;
import java.util.HashMap;
import java.util.Map;

/**
 * Reads STL, text or binary, whichever its content is: a binary file may begin with "solid" too, and is told by its
 * length. Each solid of a text file becomes a part. Corners within a millionth of the model's size become one, and
 * normals are made anew, since the file's are per triangle. Colours in the two attribute bytes (15 bits with the valid
 * bit, red in the high bits or, after a "COLOR=" header, in the low ones) become source materials.
 */
public final class StlReader implements ModelReader {
    private static final int HEADER = 84;
    private static final int RECORD = 50;
    private static final int MOST_COLOURS = 256;

    @Override
    public String format() {
        return "STL";
    }

    @Override
    public boolean recognises(FileSet files) {
        if (isBinary(files)) {
            return true;
        }
        String head = files.head().stripLeading();
        return head.startsWith("solid") && (head.contains("facet") || head.contains("endsolid"));
    }

    /** True when the length is what the binary form's triangle count asks for. */
    private static boolean isBinary(FileSet files) {
        ByteBuffer b = files.bytes();
        if (b.remaining() < HEADER) {
            return false;
        }
        long expected = HEADER + RECORD * Integer.toUnsignedLong(b.getInt(80));
        boolean text = files.head().startsWith("solid") && files.head().contains("facet");
        // a few bytes more or less are common at the end, but not where the file reads as text
        return expected == b.remaining()
                || (!text && expected > HEADER && Math.abs(expected - b.remaining()) < RECORD && startsLikeStl(b));
    }

    /** The first record holds numbers that could be coordinates. */
    private static boolean startsLikeStl(ByteBuffer b) {
        for (int i = 0; i < 12; i++) {
            if (HEADER + 4 * i + 4 > b.remaining() || !(Math.abs(b.getFloat(HEADER + 4 * i)) < 1e9f)) {
                return false;
            }
        }
        return true;
    }

    @Override
    public Arrival read(FileSet files, Reading reading) throws ImportException {
        ModelAssembly model = new ModelAssembly(format(), reading);
        if (isBinary(files)) {
            readBinary(files, model, reading);
        } else {
            readText(files, model, reading);
        }
        return model.finishGuessing(
                new UpDecision(UpAxis.Z, "STL files do not say which way is up; most have Z up.", false),
                LengthUnit.MM,
                LengthUnit.M,
                LengthUnit.IN,
                LengthUnit.CM);
    }

    private static void readBinary(FileSet files, ModelAssembly model, Reading reading) throws ImportException {
        ByteBuffer b = files.bytes();
        long claimed = Integer.toUnsignedLong(b.getInt(80));
        int triangles = (int) Math.min(claimed, (b.remaining() - HEADER) / RECORD);
        if (triangles < claimed) {
            throw new ImportException(
                    "truncated",
                    "The STL file is incomplete: it claims " + claimed + " triangles but holds " + triangles
                            + ". Export it again, or check that the copy finished.");
        }
        reading.checkTriangles(triangles);
        reading.charge(triangles * 150L);
        int[] colour = new int[triangles];
        boolean redFirst = files.head().contains("COLOR=");
        boolean anyColour = readAttributes(b, colour, redFirst);
        Map<Integer, Integer> sources = new HashMap<>();
        addPart(
                model,
                title(files),
                Welded.of(positions(b, triangles, reading), triangles),
                anyColour ? t -> source(model, sources, colour[t], redFirst, reading) : null);
    }

    private static float[] positions(ByteBuffer b, int triangles, Reading reading) throws ImportException {
        float[] p = new float[9 * triangles];
        for (int t = 0; t < triangles; t++) {
            int at = HEADER + RECORD * t + 12;
            for (int k = 0; k < 9; k++) {
                p[9 * t + k] = b.getFloat(at + 4 * k);
            }
            if ((t & 0xFFFF) == 0xFFFF) {
                reading.progress(0.6 * t / triangles, "Reading triangles");
            }
        }
        requireFinite(p);
        return p;
    }

    /** The 15-bit colour of each painted triangle, −1 for the others; whether any is painted. */
    private static boolean readAttributes(ByteBuffer b, int[] colour, boolean redFirst) {
        boolean any = false;
        for (int t = 0; t < colour.length; t++) {
            int attribute = b.getShort(HEADER + RECORD * t + 48) & 0xFFFF;
            boolean painted = redFirst ? (attribute & 0x8000) == 0 && attribute != 0 : (attribute & 0x8000) != 0;
            colour[t] = painted ? attribute & 0x7FFF : -1;
            any |= painted;
        }
        return any;
    }

    private static String title(FileSet files) {
        String name = files.name().substring(files.name().lastIndexOf('/') + 1);
        int dot = name.lastIndexOf('.');
        return dot > 0 ? name.substring(0, dot) : name;
    }

    private static int source(
            ModelAssembly model, Map<Integer, Integer> sources, int colour, boolean redFirst, Reading reading) {
        if (colour < 0) {
            return Model.NONE;
        }
        Integer known = sources.get(colour);
        if (known != null) {
            return known;
        }
        if (sources.size() >= MOST_COLOURS) {
            reading.note("The file paints more than " + MOST_COLOURS + " colours; the rest arrive undressed.");
            return Model.NONE;
        }
        int low = colour & 31;
        int mid = (colour >> 5) & 31;
        int high = (colour >> 10) & 31;
        double r = (redFirst ? low : high) / 31.0;
        double bl = (redFirst ? high : low) / 31.0;
        int index = model.source(
                "Colour " + (sources.size() + 1), PhongSurface.plain(PhongSurface.colour(r, mid / 31.0, bl)));
        sources.put(colour, index);
        return index;
    }

    private interface SourceOf {
        int of(int triangle);
    }

    /** The places where corners lie, each once, and the place of each corner. */
    private record Welded(float[] positions, int[] place) {

        /** @param p nine numbers a triangle; more may follow */
        static Welded of(float[] p, int triangles) {
            float lo = Float.POSITIVE_INFINITY;
            float hi = Float.NEGATIVE_INFINITY;
            for (int i = 0; i < 9 * triangles; i++) {
                lo = Math.min(lo, p[i]);
                hi = Math.max(hi, p[i]);
            }
            int[] place = VertexWeld.within(p, 3 * triangles, 1e-6 * (hi - lo));
            FloatList positions = new FloatList();
            for (int c = 0; c < place.length; c++) {
                if (place[c] == c) { // a place stands under its first corner
                    place[c] = positions.size() / 3;
                    positions.add(p[3 * c]);
                    positions.add(p[3 * c + 1]);
                    positions.add(p[3 * c + 2]);
                } else {
                    place[c] = place[place[c]];
                }
            }
            return new Welded(positions.array(), place);
        }
    }

    private static void addPart(ModelAssembly model, String name, Welded welded, SourceOf source)
            throws ImportException {
        int[] place = welded.place;
        CornerMesh corners = new CornerMesh();
        for (int t = 0; t < place.length / 3; t++) {
            corners.triangle(
                    place[3 * t],
                    place[3 * t + 1],
                    place[3 * t + 2],
                    source == null ? Model.NONE : source.of(t),
                    CornerMesh.BY_ANGLE);
        }
        model.part(
                Model.NONE,
                name,
                Transform.IDENTITY,
                corners.build(new CornerMesh.Pools(welded.positions, null, null, null), Preparation.CREASE_ANGLE));
    }

    private static void requireFinite(float[] p) throws ImportException {
        for (float v : p) {
            if (!Float.isFinite(v)) {
                throw new ImportException(
                        "not-finite",
                        "A corner in the STL file is nowhere (a coordinate is not a number). Repair the shape in the modelling"
                                + " program and export it again.");
            }
        }
    }

    private void readText(FileSet files, ModelAssembly model, Reading reading) throws ImportException {
        TextScanner in = new TextScanner(files.bytes(), false);
        FloatList p = new FloatList();
        String name = title(files);
        boolean ended = true;
        long triangles = 0;
        while (in.nextLine()) {
            if (!in.nextWord()) {
                continue;
            }
            if (in.wordIs("vertex")) {
                for (int k = 0; k < 3; k++) {
                    double v = in.number();
                    if (!Double.isFinite(v) || Math.abs(v) > Float.MAX_VALUE) {
                        throw in.fault("STL", "has a coordinate that is not a number");
                    }
                    p.add((float) v);
                }
                if (p.size() % 900_000 == 0) {
                    reading.charge(900_000 * 16L);
                    reading.checkTriangles(triangles + p.size() / 9);
                    reading.progress(0.6 * in.share(), "Reading triangles");
                }
            } else if (in.wordIs("endloop")) {
                if (p.size() % 9 != 0) {
                    throw in.fault("STL", "ends a facet that does not have three corners");
                }
            } else if (in.wordIs("solid")) {
                triangles += flush(model, name, p);
                p = new FloatList();
                String given = in.rest();
                name = given.isEmpty() ? title(files) : given;
                ended = false;
            } else if (in.wordIs("endsolid")) {
                ended = true;
            }
        }
        if (!ended || p.size() % 9 != 0) {
            throw new ImportException(
                    "truncated",
                    "The STL file is incomplete: line " + in.lineNumber()
                            + " is the last, inside a solid. Export it again, or check that the copy finished.");
        }
        flush(model, name, p);
    }

    private static int flush(ModelAssembly model, String name, FloatList p) throws ImportException {
        int triangles = p.size() / 9;
        if (triangles > 0) {
            addPart(model, name, Welded.of(p.array(), triangles), null);
        }
        return triangles;
    }
}

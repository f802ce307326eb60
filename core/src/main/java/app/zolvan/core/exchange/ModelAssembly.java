package app.zolvan.core.exchange;

import app.zolvan.core.exchange.Arrival.Candidate;
import app.zolvan.core.exchange.Arrival.UnitDecision;
import app.zolvan.core.exchange.Arrival.UpDecision;
import app.zolvan.core.exchange.Arrival.Variant;
import app.zolvan.core.geometry.CornerMesh;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Digest;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.SourceImage;
import app.zolvan.core.model.SourceMaterial;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.ImageHeader;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Collects what a reader finds, in the file's own unit and stance, and turns it into metres with Y up at the end. Counts
 * against the limits as it goes; gives every thing a name that can be shown.
 */
public final class ModelAssembly {
    private final String format;
    private final Reading reading;
    private final List<Model.Group> groups = new ArrayList<>();
    private final List<Model.Part> parts = new ArrayList<>();
    private final List<Mesh> meshes = new ArrayList<>();
    private final List<SourceMaterial> sources = new ArrayList<>();
    private final Map<String, SourceImage> images = new LinkedHashMap<>();
    private final List<Variant> variants = new ArrayList<>();
    private long triangles;

    public ModelAssembly(String format, Reading reading) {
        this.format = format;
        this.reading = reading;
    }

    /** @return the group's index */
    public int group(int parent, String name, Transform local) throws ImportException {
        countNodes();
        requireFinite(local, name);
        groups.add(new Model.Group(parent, TextNames.shown(name, "Group " + (groups.size() + 1)), local));
        return groups.size() - 1;
    }

    public int groupCount() {
        return groups.size();
    }

    /** Takes back a group that turned out to hold nothing; only the newest can go. */
    public void dropNewestGroup() {
        groups.remove(groups.size() - 1);
    }

    /** @return the source material's index */
    public int source(String name, Surface surface) {
        return source(new Material("", TextNames.shown(name, "Material " + (sources.size() + 1)), null, surface));
    }

    public int source(Material material) {
        sources.add(new SourceMaterial(material.name(), material));
        return sources.size() - 1;
    }

    public int sourceCount() {
        return sources.size();
    }

    /** @return the mesh's index; it is not yet in any part */
    public int mesh(Mesh mesh) throws ImportException {
        triangles += mesh.triangleCount();
        reading.checkTriangles(triangles);
        meshes.add(mesh);
        return meshes.size() - 1;
    }

    public void part(int group, String name, Transform local, int mesh, List<Integer> sourceOfSpan)
            throws ImportException {
        countNodes();
        requireFinite(local, name);
        parts.add(new Model.Part(
                group, TextNames.shown(name, "Part " + (parts.size() + 1)), local, mesh, List.copyOf(sourceOfSpan)));
    }

    /** A part with a mesh of its own, unless it has no triangles. */
    public void part(int group, String name, Transform local, CornerMesh.Built built) throws ImportException {
        if (built.mesh().triangleCount() > 0) {
            part(group, name, local, mesh(built.mesh()), built.sources());
        }
    }

    public int partCount() {
        return parts.size();
    }

    public void variant(Variant variant) {
        variants.add(variant);
    }

    /** @return the picture's SHA-256, or null, with a note, where it can't be used */
    public String picture(String label, ByteBuffer encoded) throws ImportException {
        String shown = TextNames.shown(label, "Picture " + (images.size() + 1));
        ImageHeader header = ImageHeader.read(encoded).orElse(null);
        if (header == null) {
            reading.note("“" + shown + "” is not a PNG, JPEG or WebP picture and was left out.");
            return null;
        }
        ImportLimits limits = reading.limits();
        if (Math.max(header.width(), header.height()) > limits.imageSide()
                || (long) header.width() * header.height() > limits.imagePixels()) {
            throw new ImportException(
                    "image-too-large",
                    String.format(
                            Locale.ROOT,
                            "The texture “%s” is %,d × %,d pixels; Zolvan takes up to %,d along a side. Reduce it and"
                                    + " export again.",
                            shown,
                            header.width(),
                            header.height(),
                            limits.imageSide()));
        }
        reading.charge(encoded.remaining());
        byte[] bytes = new byte[encoded.remaining()];
        encoded.slice().get(bytes);
        if (Math.max(header.width(), header.height()) > limits.keptSide()) {
            bytes = reduced(shown, header, bytes);
            header = ImageHeader.read(ByteBuffer.wrap(bytes)).orElse(header);
        }
        String digest = Digest.of(bytes);
        images.put(digest, new SourceImage(shown, header.mediaType(), header.width(), header.height(), bytes));
        return digest;
    }

    private byte[] reduced(String shown, ImageHeader header, byte[] bytes) throws ImportException {
        int kept = reading.limits().keptSide();
        long room = 4L * 2 * kept * 2 * kept + 4L * kept * kept; // decoded, and halved
        reading.charge(room);
        try {
            byte[] smaller = ImageFile.reduced(bytes, kept);
            ImageHeader now = ImageHeader.read(ByteBuffer.wrap(smaller)).orElse(header);
            reading.note(String.format(
                    Locale.ROOT,
                    "The texture “%s” had %,d × %,d pixels and is kept with %,d × %,d.",
                    shown,
                    header.width(),
                    header.height(),
                    now.width(),
                    now.height()));
            return smaller;
        } catch (IOException e) {
            return bytes; // a WebP, or damaged: kept as it is
        } finally {
            reading.release(room);
        }
    }

    private void countNodes() throws ImportException {
        if (groups.size() + parts.size() >= reading.limits().nodes()) {
            throw new ImportException(
                    "too-large",
                    String.format(
                            Locale.ROOT,
                            "The model has more than %,d objects. Join some and export again.",
                            reading.limits().nodes()));
        }
    }

    private static void requireFinite(Transform t, String name) throws ImportException {
        if (!t.isFinite()) {
            throw new ImportException(
                    "not-finite",
                    "“" + TextNames.shown(name, "A part")
                            + "” is placed at something that is not a number. Repair it in the modelling program and"
                            + " export again.");
        }
    }

    /** The model in metres with Y up; both as the file says. */
    public Arrival finish(UnitDecision unit, UpDecision up) throws ImportException {
        if (parts.isEmpty()) {
            throw new ImportException(
                    "empty",
                    "The file holds no surfaces: there is nothing to dress. Check that the export included the model’s"
                            + " geometry.");
        }
        UpDecision stance = reading.chosenUp() == null
                ? up
                : new UpDecision(reading.chosenUp(), "You said that " + reading.chosenUp() + " points up.", true);
        LengthUnit chosen = reading.chosenUnit();
        UnitDecision size = chosen == null
                ? unit
                : new UnitDecision(
                        chosen.metres(),
                        chosen.symbol(),
                        "You said that the file is in " + chosen.symbol() + ".",
                        true,
                        List.of());
        if (!(size.metres() >= 1e-9 && size.metres() <= 1e6)) {
            throw new ImportException(
                    "invalid-unit",
                    "The file says that one unit is " + size.metres()
                            + " metres, which can’t be right. Set the unit in the modelling program and export again.");
        }
        stand(size.metres(), stance.axis());
        Model model = new Model(groups, parts, meshes, sources, images, reading.notes());
        return new Arrival(format, model, size, stance, variants);
    }

    /** What has come of materials and pictures, as a model without parts. */
    public Model materials() {
        return new Model(groups, List.of(), List.of(), sources, images, reading.notes());
    }

    /** For formats that do not name a unit: takes the most plausible for the model's size, to be confirmed. */
    public Arrival finishGuessing(UpDecision up, LengthUnit... usual) throws ImportException {
        double longest = longestSide();
        List<Candidate> candidates = new ArrayList<>();
        for (LengthUnit u : LengthUnit.values()) {
            candidates.add(new Candidate(u, longest * u.metres()));
        }
        List<LengthUnit> first = List.of(usual);
        candidates.sort(Comparator.comparingDouble(c -> implausibility(c, first)));
        Candidate best = candidates.get(0);
        String reason = String.format(
                Locale.ROOT,
                "%s files do not say their unit; in %s the model’s longest side is %s, the most plausible size.",
                format,
                best.unit().symbol(),
                readable(best.longestSide()));
        return finish(new UnitDecision(best.unit().metres(), best.unit().symbol(), reason, false, candidates), up);
    }

    /** 0 for things between 5 cm and 20 m; grows with each factor of ten beyond, and for units unusual in the format. */
    private static double implausibility(Candidate c, List<LengthUnit> usual) {
        double size = Math.max(1e-12, c.longestSide());
        double beyond = Math.max(0, Math.max(Math.log10(0.05 / size), Math.log10(size / 20)));
        int rank = usual.indexOf(c.unit());
        return beyond + (rank >= 0 ? 0.6 * rank : 2);
    }

    private static String readable(double metres) {
        return metres < 1
                ? String.format(Locale.ROOT, "%.0f mm", metres * 1000)
                : String.format(Locale.ROOT, "%.2f m", metres);
    }

    private double longestSide() {
        Model model = new Model(groups, parts, meshes, sources, Map.of(), List.of());
        Vec3 s = model.bounds().size();
        return Math.max(s.x(), Math.max(s.y(), s.z()));
    }

    /** Carries a change of unit and stance into every mesh and placement, so that none is left at the top. */
    private void stand(double metres, UpAxis up) {
        if (metres == 1 && up == UpAxis.Y) {
            return;
        }
        Transform turn = turn(up);
        Transform change = turn.after(Transform.scale(metres, metres, metres));
        Transform back = change.inverse();
        for (Mesh mesh : meshes) {
            applyInPlace(change, mesh.positions());
            applyInPlace(turn, mesh.normals());
        }
        groups.replaceAll(g -> new Model.Group(g.parent(), g.name(), conjugated(change, g.local(), back)));
        parts.replaceAll(p ->
                new Model.Part(p.group(), p.name(), conjugated(change, p.local(), back), p.mesh(), p.sourceOfSpan()));
    }

    private static Transform conjugated(Transform change, Transform t, Transform back) {
        return t.equals(Transform.IDENTITY) ? t : change.after(t).after(back);
    }

    private static Transform turn(UpAxis up) {
        return switch (up) {
            case Y -> Transform.IDENTITY;
            case Z -> Transform.ofColumns(new double[] {1, 0, 0, 0, 0, 0, -1, 0, 0, 1, 0, 0, 0, 0, 0, 1});
            case X -> Transform.ofColumns(new double[] {0, 1, 0, 0, -1, 0, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1});
        };
    }

    /** The arrays were made by the reader a moment ago and belong to nobody else yet. */
    private static void applyInPlace(Transform t, float[] vectors) {
        double[] m = t.columns();
        for (int i = 0; i < vectors.length; i += 3) {
            double x = vectors[i];
            double y = vectors[i + 1];
            double z = vectors[i + 2];
            vectors[i] = (float) (m[0] * x + m[4] * y + m[8] * z + m[12]);
            vectors[i + 1] = (float) (m[1] * x + m[5] * y + m[9] * z + m[13]);
            vectors[i + 2] = (float) (m[2] * x + m[6] * y + m[10] * z + m[14]);
        }
    }
}

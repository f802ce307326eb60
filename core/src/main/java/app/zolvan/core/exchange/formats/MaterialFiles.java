package app.zolvan.core.exchange.formats;

import app.zolvan.core.assign.Look;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.ModelWriter.FileSink;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.archive.ZipArchive;
import app.zolvan.core.exchange.archive.ZipSink;
import app.zolvan.core.exchange.gltf.GltfReader;
import app.zolvan.core.exchange.imageset.ImageSet;
import app.zolvan.core.exchange.materialx.MaterialXReader;
import app.zolvan.core.exchange.materialx.MaterialXWriter;
import app.zolvan.core.exchange.obj.MtlReader;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.material.Material;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.SourceMaterial;
import app.zolvan.core.texture.ImageHeader;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;

/** Files that materials come in and go out by: MaterialX, MTL libraries, models of any format, sets of pictures. */
public final class MaterialFiles {
    private static final String MATERIALX = "mtlx";
    private static final double TILE = 0.2;

    private MaterialFiles() {}

    /** @return the file's materials as the sources of a model that need not have parts; at least one */
    public static Model read(String name, ByteBuffer bytes, FileSet.Companions beside, Reading reading)
            throws ImportException {
        Model model = readAny(name, bytes, beside, reading);
        if (model.sources().isEmpty()) {
            throw new ImportException(
                    "no-materials",
                    "“" + name
                            + "” holds no materials. Choose a MaterialX, glTF or MTL file, a model that has some, or a zip"
                            + " of pictures whose names say what they are for (colour, roughness, normal …).");
        }
        return model;
    }

    private static Model readAny(String name, ByteBuffer bytes, FileSet.Companions beside, Reading reading)
            throws ImportException {
        FileSet files = new FileSet(name, bytes, beside);
        if (ZipArchive.looksLikeZip(bytes)) {
            ZipArchive archive = ZipArchive.open(bytes, reading.limits());
            FileSet inside = inside(archive, reading);
            if (inside != null) {
                return readOne(inside, reading);
            }
            if (archive.paths().stream().noneMatch(MaterialFiles::isModel)) {
                return ImageSet.read(archive, reading);
            }
        }
        if (ImageHeader.read(bytes).isPresent()) {
            return ImageSet.read(FileSet.Companions.of(name, bytes), reading);
        }
        Model own = readOne(files, reading);
        return own != null
                ? own
                : ModelFormats.read(name, bytes, beside, reading).model();
    }

    private static boolean isModel(String path) {
        return ModelFormats.endings()
                .contains(path.substring(path.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT));
    }

    /** The archive's own list of materials, if it has one. */
    private static FileSet inside(ZipArchive archive, Reading reading) throws ImportException {
        for (String ending : List.of(".mtlx", ".mtl")) {
            for (String path : archive.paths()) {
                boolean model = archive.paths().stream()
                        .anyMatch(p -> p.toLowerCase(Locale.ROOT).endsWith(".obj"));
                if (path.toLowerCase(Locale.ROOT).endsWith(ending) && !(ending.equals(".mtl") && model)) {
                    FileSet files =
                            new FileSet(path, archive.open(path, reading).orElseThrow(), archive);
                    if (MaterialXReader.recognises(files) || MtlReader.recognises(files)) {
                        return files;
                    }
                }
            }
        }
        return null;
    }

    /** Null where it is neither. */
    private static Model readOne(FileSet files, Reading reading) throws ImportException {
        if (MaterialXReader.recognises(files)) {
            return MaterialXReader.read(files, reading);
        }
        if (new GltfReader().recognises(files)) {
            return GltfReader.materials(files, reading);
        }
        boolean library = files.name().toLowerCase(Locale.ROOT).endsWith(".mtl") && MtlReader.recognises(files);
        return library ? MtlReader.materials(files, reading) : null;
    }

    /** Endings that materials can be written by. */
    public static List<String> endings() {
        List<String> all = new ArrayList<>(List.of(MATERIALX));
        all.addAll(ModelFormats.endings());
        return all;
    }

    /**
     * Writes materials: as MaterialX, or on a square tile each as a model.
     *
     * @param ending one of {@link #endings}
     * @return sentences about what the format has no words for
     */
    public static List<String> write(
            String ending, List<Material> materials, Function<String, byte[]> images, String base, FileSink sink)
            throws IOException {
        DressedModel tiles = tiles(base, materials, images);
        if (ending.equals(MATERIALX)) {
            List<Material> shown = new ArrayList<>(); // with tones laid into their pictures
            for (int i = 0; i < materials.size(); i++) {
                shown.add(tiles.look().apply(i, 0).material());
            }
            MaterialXWriter.write(shown, tiles.image(), base, sink);
            return MaterialXWriter.losses(shown);
        }
        ModelWriter writer = ModelFormats.writer(ending).orElseThrow();
        writer.write(tiles, base, sink);
        return writer.losses(tiles);
    }

    /** The same in a zip; what the format has no words for is listed in it, in {@code left-out.txt}. */
    public static void zip(
            String ending, List<Material> materials, Function<String, byte[]> images, String base, OutputStream to)
            throws IOException {
        ZipSink zip = new ZipSink(to);
        List<String> losses = write(ending, materials, images, base, zip);
        if (!losses.isEmpty()) {
            byte[] text = (String.join("\n", losses) + "\n").getBytes(StandardCharsets.UTF_8);
            zip.file("left-out.txt", out -> out.write(text));
        }
        zip.finish();
    }

    private static DressedModel tiles(String name, List<Material> materials, Function<String, byte[]> images) {
        float side = (float) TILE;
        float t = side / 2;
        Mesh tile = new Mesh(
                new float[] {-t, 0, t, t, 0, t, t, 0, -t, -t, 0, -t},
                new float[] {0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 1, 0},
                new float[] {0, 1, 1, 1, 1, 0, 0, 0},
                new float[] {0, side, side, side, side, 0, 0, 0},
                new int[] {0, 1, 2, 0, 2, 3},
                new int[] {0, 2},
                null);
        List<Model.Part> parts = new ArrayList<>();
        List<SourceMaterial> sources = new ArrayList<>();
        int across = (int) Math.ceil(Math.sqrt(materials.size()));
        for (int i = 0; i < materials.size(); i++) {
            Material m = materials.get(i);
            sources.add(new SourceMaterial(m.name(), m));
            double x = 1.2 * TILE * (i % across);
            int row = i / across;
            double z = 1.2 * TILE * row;
            parts.add(new Model.Part(0, m.name(), Transform.translation(x, 0, z), 0, List.of(i)));
        }
        List<Model.Group> groups = List.of(new Model.Group(Model.NONE, name, Transform.IDENTITY));
        Model model = new Model(groups, parts, List.of(tile), sources, Map.of(), List.of());
        Look[] looks = materials.stream().map(m -> Look.of(m, null, 0, null)).toArray(Look[]::new);
        return new DressedModel(name, model, (p, s) -> looks[p], images);
    }
}

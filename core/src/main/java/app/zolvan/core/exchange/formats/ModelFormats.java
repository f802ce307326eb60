package app.zolvan.core.exchange.formats;

import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelReader;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.archive.ZipArchive;
import app.zolvan.core.exchange.archive.ZipSink;
import app.zolvan.core.exchange.collada.ColladaReader;
import app.zolvan.core.exchange.collada.ColladaWriter;
import app.zolvan.core.exchange.gltf.GltfFormat;
import app.zolvan.core.exchange.gltf.GltfReader;
import app.zolvan.core.exchange.obj.ObjReader;
import app.zolvan.core.exchange.obj.ObjWriter;
import app.zolvan.core.exchange.ply.PlyReader;
import app.zolvan.core.exchange.ply.PlyWriter;
import app.zolvan.core.exchange.stl.StlReader;
import app.zolvan.core.exchange.stl.StlWriter;
import app.zolvan.core.exchange.threemf.ThreeMfReader;
import app.zolvan.core.exchange.threemf.ThreeMfWriter;
import app.zolvan.core.exchange.usd.UsdReader;
import app.zolvan.core.exchange.usd.UsdWriter;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/**
 * All formats that Zolvan reads, chosen by what a file holds, not by its name. A zip is looked into: it may be a format of
 * its own, or hold one model with the files that belong to it.
 */
public final class ModelFormats {
    /** In the order in which they are asked; the vaguest signs last. */
    private static final List<ModelReader> READERS = List.of(
            new ThreeMfReader(),
            new UsdReader(),
            new GltfReader(),
            new PlyReader(),
            new ColladaReader(),
            new ObjReader(),
            new StlReader());

    private static final List<ModelWriter> WRITERS = List.of(
            new GltfFormat(true),
            new GltfFormat(false),
            new ObjWriter(),
            new ColladaWriter(),
            new ThreeMfWriter(),
            new UsdWriter(true),
            new UsdWriter(false),
            new StlWriter(),
            new PlyWriter());

    private static final Set<String> NEVER_MODELS = Set.of(
            "png",
            "jpg",
            "jpeg",
            "webp",
            "tga",
            "bmp",
            "tif",
            "tiff",
            "gif",
            "exr",
            "hdr",
            "mtl",
            "bin",
            "txt",
            "md",
            "pdf",
            "html",
            "rels",
            "csv",
            "license",
            "ds_store",
            "url",
            "ini",
            "css",
            "stp",
            "step",
            "igs",
            "iges",
            "ifc",
            "js");

    private ModelFormats() {}

    /** The formats' names, as people call them. */
    public static List<String> names() {
        return READERS.stream().map(ModelReader::format).toList();
    }

    /** The formats that Zolvan writes, richest first. */
    public static List<ModelWriter> writers() {
        return WRITERS;
    }

    public static Optional<ModelWriter> writer(String ending) {
        return WRITERS.stream().filter(w -> w.kind().ending().equals(ending)).findFirst();
    }

    public static List<String> endings() {
        return WRITERS.stream().map(w -> w.kind().ending()).toList();
    }

    /** @throws ImportException with a sentence for the designer when the file can't be read */
    public static Arrival read(String name, ByteBuffer bytes, FileSet.Companions beside, Reading reading)
            throws ImportException {
        if (bytes.remaining() > reading.limits().fileBytes()) {
            throw new ImportException(
                    "too-large",
                    "The file is larger than " + (reading.limits().fileBytes() >> 20)
                            + " MB; export it in smaller pieces.");
        }
        FileSet files = new FileSet(name, bytes, beside);
        if (ZipArchive.looksLikeZip(bytes)) {
            ZipArchive archive = ZipArchive.open(bytes, reading.limits());
            files = new FileSet(name, bytes, archive);
            ModelReader own = reader(files);
            return own != null ? own.read(files, reading) : readInside(archive, beside, reading);
        }
        ModelReader reader = reader(files);
        if (reader == null) {
            throw notAModel(files.head());
        }
        return reader.read(files, reading);
    }

    private static Arrival readInside(ZipArchive archive, FileSet.Companions beside, Reading reading)
            throws ImportException {
        FileSet.Companions all = archive.and(beside);
        ModelReader chosen = null;
        FileSet main = null;
        int models = 0;
        for (String path : archive.paths()) {
            String last = path.substring(path.lastIndexOf('/') + 1);
            String ending = last.substring(last.lastIndexOf('.') + 1).toLowerCase(Locale.ROOT);
            if (last.startsWith(".") || path.startsWith("__MACOSX") || NEVER_MODELS.contains(ending)) {
                continue;
            }
            ByteBuffer content = archive.open(path, reading).orElseThrow();
            FileSet files = new FileSet(path, content, all);
            ModelReader reader = reader(files);
            if (reader != null) {
                models++;
                if (chosen == null) {
                    chosen = reader;
                    main = files;
                    continue;
                }
            }
            reading.release(content.isDirect() ? 0 : content.remaining());
        }
        if (chosen == null) {
            throw new ImportException(
                    "wrong-type",
                    "The zip archive holds no model that Zolvan reads (" + String.join(", ", names())
                            + "). Put the model into it together with its textures.");
        }
        if (models > 1) {
            reading.note("The archive holds " + models + " models; only “" + main.name() + "” was read.");
        }
        return chosen.read(main, reading);
    }

    /** Writes all files of a format into one zip. */
    public static void zip(ModelWriter writer, DressedModel dressed, String base, OutputStream to) throws IOException {
        ZipSink zip = new ZipSink(to);
        writer.write(dressed, base, zip);
        zip.finish();
    }

    private static ModelReader reader(FileSet files) {
        for (ModelReader reader : READERS) {
            if (reader.recognises(files)) {
                return reader;
            }
        }
        return null;
    }

    private static ImportException notAModel(String head) {
        String start = head.stripLeading();
        if (start.startsWith("ISO-10303-21") || start.contains("FILE_SCHEMA")) {
            return new ImportException(
                    "needs-browser",
                    "STEP and IFC files are turned into triangles in the browser: drop the file on the project list"
                            + " there.");
        }
        return new ImportException(
                "wrong-type",
                "This is not a kind of model that Zolvan reads. It reads " + String.join(", ", names())
                        + ", alone or in a zip with their textures.");
    }
}

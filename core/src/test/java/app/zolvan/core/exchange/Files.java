package app.zolvan.core.exchange;

import app.zolvan.core.exchange.formats.ModelFormats;
import app.zolvan.core.geometry.MeshMeasure;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.model.Model;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** Files made for tests. */
public final class Files {
    private Files() {}

    public static Arrival read(byte[] file) throws ImportException {
        return ModelFormats.read("test.file", ByteBuffer.wrap(file), FileSet.Companions.NONE, Reading.standard());
    }

    public static Arrival read(String text) throws ImportException {
        return read(text.getBytes(StandardCharsets.UTF_8));
    }

    /** A zip of entries given as alternating names and contents (text or bytes). */
    public static byte[] zip(Object... namesAndContents) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (int i = 0; i < namesAndContents.length; i += 2) {
                Object content = namesAndContents[i + 1];
                zip.putNextEntry(new ZipEntry((String) namesAndContents[i]));
                zip.write(content instanceof byte[] b ? b : content.toString().getBytes(StandardCharsets.UTF_8));
                zip.closeEntry();
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /** Area and volume of the whole model. */
    public static MeshMeasure measure(Model model) {
        double area = 0;
        double volume = 0;
        boolean closed = true;
        for (Model.Part p : model.parts()) {
            MeshMeasure m = MeshMeasure.of(model.meshOf(p), Topology.of(model.meshOf(p)), model.partToWorld(p));
            area += m.area();
            volume += m.volume();
            closed &= m.closed();
        }
        return new MeshMeasure(area, volume, closed);
    }
}

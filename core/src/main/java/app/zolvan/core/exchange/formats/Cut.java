package app.zolvan.core.exchange.formats;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.archive.ZipArchive;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.geometry.Vec3;
import java.io.Serializable;
import java.nio.ByteBuffer;
import java.util.Optional;

/**
 * How finely round surfaces were cut into triangles before a file was sent; it says so beside its original.
 *
 * @param kind    of the original: {@code step} or {@code iges}
 * @param linear  how far triangles may stray, as a share of the mean of the model's three extents
 * @param angular how far neighbouring triangles may turn, in radians
 */
public record Cut(String kind, double linear, double angular) implements Serializable {
    private static final String NOTE = "preparation.txt";
    private static final int LONGEST_NOTE = 4096;

    /** How far triangles may stray in a model of this size, in metres. */
    public static double stray(double linear, Vec3 size) {
        return linear * (size.x() + size.y() + size.z()) / 3;
    }

    /** Empty for a file that was not cut, or whose note is none of ours. */
    public static Optional<Cut> of(ByteBuffer upload, Reading reading) throws ImportException {
        if (!ZipArchive.looksLikeZip(upload)) {
            return Optional.empty();
        }
        Optional<ByteBuffer> note = ZipArchive.open(upload, reading.limits()).open(NOTE, reading);
        if (note.isEmpty() || note.get().remaining() > LONGEST_NOTE) {
            return Optional.empty();
        }
        byte[] text = new byte[note.get().remaining()];
        note.get().get(text);
        try {
            JsonValue json = JsonValue.parse(text);
            Cut cut = new Cut(json.text("kind", ""), json.number("linear", 0), json.number("angular", 0));
            boolean ours = (cut.kind.equals("step") || cut.kind.equals("iges")) && cut.linear > 0 && cut.angular > 0;
            return ours ? Optional.of(cut) : Optional.empty();
        } catch (ImportException e) {
            return Optional.empty(); // somebody's own text of the same name
        }
    }
}

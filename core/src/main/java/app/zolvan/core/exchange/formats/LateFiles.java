package app.zolvan.core.exchange.formats;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.SourceMaterial;
import java.io.Serializable;
import java.nio.ByteBuffer;
import java.util.List;

/**
 * Files that a model refers to and that come after it: pictures and lists of materials. The model is read once more
 * without them and once with them; what differs is what they bring.
 *
 * @param without the source materials as they arrived
 * @param with    the model with what came late; its source materials in the same order
 * @param lacking what is still not there, as {@link Reading#lacking()} has it
 */
public record LateFiles(List<SourceMaterial> without, Model with, List<String> lacking) implements Serializable {

    /**
     * @param before for reading without what came late
     * @param after  for reading with it
     */
    public static LateFiles of(String name, ByteBuffer bytes, FileSet.Companions late, Reading before, Reading after)
            throws ImportException {
        Model without =
                ModelFormats.read(name, bytes, FileSet.Companions.NONE, before).model();
        Model with = ModelFormats.read(name, bytes, late, after).model();
        return new LateFiles(without.sources(), with, after.lacking());
    }

    /** Says that nothing which came is something that lacks. */
    public static ImportException none(List<String> lacking) {
        return new ImportException(
                "none-lacking",
                lacking.isEmpty()
                        ? "The model lacks no file."
                        : "None of these files is one that the model lacks: it refers to “"
                                + String.join("”, “", lacking.subList(0, Math.min(5, lacking.size())))
                                + (lacking.size() > 5 ? "” and " + (lacking.size() - 5) + " more." : "”.")
                                + " They are told by their names.");
    }

    /**
     * A source material as it is now, with what came late: where it is still as it arrived without it. What a designer
     * has changed since stays.
     */
    public Surface filled(int source, Surface now) {
        Surface a = without.get(source).material().surface();
        Surface b = with.sources().get(source).material().surface();
        Surface filled = now;
        for (Parameter p : Parameter.values()) {
            if (!a.isNear(b, p, 0) && a.isNear(now, p, 0)) {
                filled = filled.with(p, b.value(p)).withTexture(p, b.textures().get(p));
            }
        }
        return filled;
    }
}

package app.zolvan.core.importing;

import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.ModelReader.Progress;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.exchange.formats.Cut;
import app.zolvan.core.exchange.formats.ModelFormats;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.model.Repeats;
import app.zolvan.core.prepare.ModelInspection;
import app.zolvan.core.snag.Snag;
import java.io.IOException;
import java.io.Serializable;
import java.nio.ByteBuffer;
import java.util.List;

/**
 * Reads a model and makes it ready to be dressed.
 *
 * @param path   of the file
 * @param name   that it was uploaded under
 * @param mayAsk whether the designer is asked where the file leaves unit or up axis open
 * @param unit   of the file's lengths; null for what the file says
 * @param up     which of its axes points up; null likewise
 */
public record ReadModel(String path, String name, boolean mayAsk, LengthUnit unit, UpAxis up)
        implements ImportTask<ReadModel.Result> {
    private static final double READ = 0.5;
    private static final double PREPARE = 0.2;
    private static final double INSPECT = 0.2;
    /** The share of an import that this is; saving is the rest. */
    public static final double SHARE = READ + PREPARE + INSPECT;

    /**
     * @param prepared null where the designer is to be asked first
     * @param found    what deserves a look
     * @param cut      how finely surfaces were cut, where they are kept; null elsewhere
     * @param lacking  what the file refers to and what did not come along
     */
    public record Result(Arrival arrival, Preparation prepared, List<Snag> found, Cut cut, List<String> lacking)
            implements Serializable {}

    @Override
    public Result run(Progress progress) throws ImportException, IOException {
        ByteBuffer bytes = MappedFile.of(path);
        Reading reading = new Reading(ImportLimits.STANDARD, (s, step) -> progress.at(s * READ, step), unit, up);
        Arrival arrival = ModelFormats.read(name, bytes, FileSet.Companions.NONE, reading);
        if (mayAsk && arrival.isAsking()) {
            return new Result(arrival, null, List.of(), null, reading.lacking());
        }
        progress.at(READ, "Looking for repeats");
        Preparation prepared = Preparation.of(
                Repeats.joined(arrival.model()),
                s -> progress.at(READ + s * PREPARE, "Laying coordinates and measuring"));
        List<Snag> found = ModelInspection.of(
                prepared, s -> progress.at(READ + PREPARE + s * INSPECT, "Looking for what needs attention"));
        Cut cut = Cut.of(bytes, Reading.standard()).orElse(null);
        return new Result(arrival, prepared, found, cut, reading.lacking());
    }
}

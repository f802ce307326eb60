package app.zolvan.core.importing;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.ModelReader.Progress;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.exchange.archive.ZipArchive;
import app.zolvan.core.exchange.formats.LateFiles;
import java.io.IOException;
import java.io.Serializable;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;

/**
 * Reads models once more with files that they lacked.
 *
 * @param path   of what came late: a zip, or one file
 * @param name   that it was uploaded under
 * @param models that lack something
 */
public record ReadLateFiles(String path, String name, List<Lacking> models)
        implements ImportTask<ReadLateFiles.Result> {

    /**
     * @param path    of the file that the model came in
     * @param name    of that file
     * @param up      which of its axes points up; told so that nothing is asked
     * @param lacking what it refers to and what did not come along
     */
    public record Lacking(String path, String name, UpAxis up, List<String> lacking) implements Serializable {}

    /** @param found for each of the models what came for it; null for nothing */
    public record Result(ArrayList<LateFiles> found) implements Serializable {}

    @Override
    public Result run(Progress progress) throws ImportException, IOException {
        ByteBuffer late = MappedFile.of(path);
        FileSet.Companions files = ZipArchive.looksLikeZip(late)
                ? ZipArchive.open(late, ImportLimits.STANDARD)
                : FileSet.Companions.of(name, late);
        double share = 0.5 / Math.max(1, models.size());
        ArrayList<LateFiles> found = new ArrayList<>();
        for (int i = 0; i < models.size(); i++) {
            Lacking model = models.get(i);
            double from = 2 * share * i;
            LateFiles came = LateFiles.of(
                    model.name,
                    MappedFile.of(model.path),
                    files,
                    reading(model, progress, from, share),
                    reading(model, progress, from + share, share));
            found.add(came.lacking().containsAll(model.lacking) ? null : came);
        }
        return new Result(found);
    }

    private static Reading reading(Lacking model, Progress progress, double from, double share) {
        return new Reading(ImportLimits.STANDARD, (s, step) -> progress.at(from + s * share, step), null, model.up);
    }
}

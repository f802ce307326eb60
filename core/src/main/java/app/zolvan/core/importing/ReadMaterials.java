package app.zolvan.core.importing;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.ModelReader.Progress;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.formats.MaterialFiles;
import app.zolvan.core.model.Model;
import java.io.IOException;

/**
 * Reads a file's source materials and pictures, without its shapes.
 *
 * @param path of the file
 * @param name that it was uploaded under
 */
public record ReadMaterials(String path, String name) implements ImportTask<Model> {
    @Override
    public Model run(Progress progress) throws ImportException, IOException {
        Reading reading = new Reading(ImportLimits.STANDARD, progress, null, null);
        return MaterialFiles.read(name, MappedFile.of(path), FileSet.Companions.NONE, reading);
    }
}

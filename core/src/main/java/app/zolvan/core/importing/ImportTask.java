package app.zolvan.core.importing;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelReader.Progress;
import java.io.IOException;
import java.io.Serializable;

/**
 * A piece of work on a stranger's file, done in a process of its own. Task and result cross the process border by Java
 * serialization; both consist of this project's records, arrays and the JDK's collections.
 *
 * @param <R> what comes of it
 */
public interface ImportTask<R extends Serializable> extends Serializable {

    /** @throws ImportException with a sentence for the designer where the file can't be read */
    R run(Progress progress) throws ImportException, IOException;
}

package app.zolvan.server.job;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelReader;
import java.io.IOException;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** One kind of long work. It must be safe to run again from the start after a crash. */
public interface JobWork {
    String kind();

    /**
     * @param job      identity of the job; a second run after a crash gets the same
     * @param asset    SHA-256 of the bytes the job works on
     * @param answer   what the designer said when asked; null before
     * @param progress told how far it is; throws when the job was cancelled
     * @return the identity of what was made
     * @throws Asking when the designer has to say something first
     * @throws ImportException with the designer's sentence when it can't be done
     */
    UUID run(
            UUID job,
            UUID account,
            String title,
            String asset,
            @Nullable JobAnswer answer,
            ModelReader.Progress progress)
            throws ImportException, IOException, Asking;

    /** @throws app.zolvan.server.problem.Problem when the answer is none that the work asked for */
    default void check(JobAnswer answer) {}

    /** Clears away what was kept for a job that failed or was called off; its state says so already. */
    default void dropped() {}
}

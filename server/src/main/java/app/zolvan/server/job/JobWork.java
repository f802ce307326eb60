package app.zolvan.server.job;

import app.zolvan.core.exchange.ImportException;
import java.io.IOException;
import java.time.Duration;
import java.util.UUID;

/** One kind of long work. It must be safe to run again from the start after a crash. */
public interface JobWork {
    String kind();

    /** Name of the kind for people, such as “Import”. */
    String name();

    /** Jobs of a higher number are begun first. */
    default int priority() {
        return 0;
    }

    /** True where a run that was ended by a pause can be begun again later. */
    default boolean mayPause() {
        return false;
    }

    /**
     * @param progress told how far it is; throws when the job was cancelled
     * @return the identity of what was made
     * @throws Asking when the designer has to say something first
     * @throws ImportException with the designer's sentence when it can't be done
     */
    UUID run(JobOrder order, JobProgress progress) throws ImportException, IOException, Asking;

    /** @throws app.zolvan.server.problem.Problem when the answer is none that the work asked for */
    default void check(JobAnswer answer) {}

    /** Clears away what was kept for a job that has ended in some way; its state says so already. */
    default void ended() {}

    /** Deadline of one run. */
    default Duration limit() {
        return Duration.ofMinutes(30);
    }
}

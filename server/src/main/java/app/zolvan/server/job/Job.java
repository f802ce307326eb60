package app.zolvan.server.job;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A piece of long work, as the browser sees it.
 *
 * @param name        of its kind, for people
 * @param subject     the project it is about; null where it makes one
 * @param pausable    true where it can be paused
 * @param share       done, in [0, 1]
 * @param step        what is being done now
 * @param secondsLeft from the speed so far; null before there is any
 * @param problem     the sentence when it failed
 * @param result      what it made, such as a project
 * @param results     files that came of it so far
 * @param question    what the designer has to say before it goes on
 */
public record Job(
        UUID id,
        String kind,
        String name,
        String title,
        @Nullable UUID subject,
        boolean pausable,
        State state,
        double share,
        String step,
        @Nullable Double secondsLeft,
        @Nullable String problem,
        @Nullable UUID result,
        List<JobResult> results,
        @Nullable JobQuestion question) {

    public enum State {
        QUEUED,
        RUNNING,
        PAUSED,
        ASKING,
        DONE,
        FAILED,
        CANCELLED
    }

    static Job of(JobMapper.Row r, JobWork work, List<JobResult> results, Instant now, @Nullable JobQuestion question) {
        Double left = null;
        if (r.startedAt() != null && r.share() > 0.02 && r.state().equals("RUNNING")) {
            double seconds = Duration.between(r.startedAt(), now).toMillis() / 1000.0;
            left = seconds * (1 - r.share()) / r.share();
        }
        return new Job(
                r.id(),
                r.kind(),
                work.name(),
                r.title(),
                r.subject(),
                work.mayPause(),
                State.valueOf(r.state()),
                r.share(),
                r.step(),
                left,
                r.problem(),
                r.result(),
                results,
                question);
    }
}

package app.zolvan.server.job;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.server.ServerTest;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** A job's outcome is decided once, by the run that was begun last. */
class JobFencingTest extends ServerTest {
    @Autowired
    private JobMapper mapper;

    private final UUID id = UUID.randomUUID();

    @BeforeEach
    void insertJob() {
        UUID account =
                UUID.fromString(browser.get("/api/session").json().get("id").asString());
        mapper.insert(id, account, "inspect", "Stools", "0".repeat(64), null);
    }

    private String state() {
        return browser.get("/api/jobs/" + id).json().get("state").asString();
    }

    @Test
    void aRunThatWasTakenForDeadChangesNothingAnyMore() {
        long first = mapper.start(id, 1).orElseThrow().run();
        assertThat(mapper.progress(id, first, 0.3, "Looking")).isEqualTo(1);
        JobMapper.Begun second = mapper.start(id, 1).orElseThrow();
        assertThat(second.run()).isGreaterThan(first);
        assertThat(second.attempts()).isEqualTo(2);
        assertThat(mapper.progress(id, first, 0.9, "Looking still")).isZero();
        assertThat(mapper.finish(id, first, "FAILED", "It was gone.", null)).isZero();
        assertThat(mapper.ask(id, first, "{}")).isZero();
        assertThat(state()).isEqualTo("RUNNING");
        assertThat(mapper.finish(id, second.run(), "DONE", null, null)).isEqualTo(1);
        assertThat(mapper.finish(id, second.run(), "FAILED", "Too late.", null))
                .as("it has ended")
                .isZero();
        assertThat(mapper.start(id, 1)).isEmpty();
        assertThat(state()).isEqualTo("DONE");
    }

    @Test
    void anAnswerBeginsTheCountOfAttemptsAnew() {
        mapper.start(id, 1);
        mapper.start(id, 1);
        long run = mapper.start(id, 1).orElseThrow().run();
        assertThat(mapper.ask(id, run, "{}")).isEqualTo(1);
        UUID account = mapper.find(id).orElseThrow().accountId();
        assertThat(mapper.answer(id, account, "{}")).isEqualTo(1);
        assertThat(mapper.start(id, 1).orElseThrow().attempts()).isEqualTo(1);
    }

    @Test
    void whatTheDatabaseEndedIsNoAttempt() {
        mapper.start(id, 1);
        assertThat(mapper.start(id, 0).orElseThrow().attempts()).isEqualTo(1);
        assertThat(mapper.start(id, 1).orElseThrow().attempts()).isEqualTo(2);
    }

    @Test
    void whatNobodyAnswersForAWeekEndsAndWhatIsOldIsForgotten() {
        long run = mapper.start(id, 1).orElseThrow().run();
        mapper.ask(id, run, "{}");
        jobs.tidy();
        assertThat(state()).isEqualTo("ASKING");
        database.update("update job set created_at = now() - interval '8 days' where id = ?", id);
        jobs.tidy();
        assertThat(state()).isEqualTo("CANCELLED");
        database.update("update job set created_at = now() - interval '31 days' where id = ?", id);
        jobs.tidy();
        assertThat(browser.get("/api/jobs/" + id).status()).isEqualTo(404);
    }

    /** As a file does that takes more than there is each time it is read. */
    @Test
    void aJobThatKeepsTakingItsProcessDownIsGivenUp() throws InterruptedException {
        for (int i = 0; i < 5; i++) {
            mapper.start(id, 1);
        }
        database.update(
                "insert into scheduled_tasks (task_name, task_instance, execution_time, picked, version)"
                        + " values ('job', ?, now(), false, 1)",
                id.toString());
        browser.waitFor(id);
        assertThat(state()).isEqualTo("FAILED");
        assertThat(browser.get("/api/jobs/" + id).json().get("problem").asString())
                .contains("begun five times")
                .contains("nothing was changed");
    }

    /** A restored database has jobs that the scheduler knows nothing of. */
    @Test
    void jobsWithoutAScheduleGetOne() throws InterruptedException {
        assertThat(mapper.unscheduled()).contains(id);
        jobs.scheduleForgotten();
        assertThat(mapper.unscheduled()).doesNotContain(id);
        browser.waitFor(id);
        assertThat(state()).as("of no project: it can’t be done").isEqualTo("FAILED");
    }

    @Autowired
    private JobService jobs;
}

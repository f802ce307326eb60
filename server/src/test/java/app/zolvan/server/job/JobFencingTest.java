package app.zolvan.server.job;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.server.Browser;
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
        mapper.insert(id, account, "inspect", "Stools", "0".repeat(64), null, 0, null);
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
        database.update("update job set created_at = now() - interval '31 days', dismissed = true where id = ?", id);
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

    @Test
    void aPausedJobRestsAndGoesOnFromWhatWasKept() {
        UUID account = mapper.find(id).orElseThrow().accountId();
        long run = mapper.start(id, 1).orElseThrow().run();
        assertThat(mapper.keep(id, run, "1".repeat(64))).isEqualTo(1);
        assertThat(mapper.pause(id, account)).isEqualTo(1);
        assertThat(mapper.flags(id).pause()).isTrue();
        assertThat(mapper.rest(id, run)).isEqualTo(1);
        assertThat(state()).isEqualTo("PAUSED");
        assertThat(mapper.start(id, 1)).as("until it is resumed").isEmpty();
        assertThat(mapper.resume(id, account)).isEqualTo(1);
        JobMapper.Begun next = mapper.start(id, 1).orElseThrow();
        assertThat(next.attempts()).as("a pause says nothing against it").isEqualTo(1);
        assertThat(mapper.find(id).orElseThrow().kept()).isEqualTo("1".repeat(64));
        assertThat(mapper.keep(id, run, "2".repeat(64)))
                .as("by the run of before")
                .isZero();
    }

    @Test
    void anAccountsJobsAreDoneOneAfterTheOtherAndAnothersBesideThem() {
        UUID mine = mapper.find(id).orElseThrow().accountId();
        UUID second = UUID.randomUUID();
        mapper.insert(second, mine, "inspect", "Second", null, null, 0, null);
        Browser other = stranger().asNewDesigner(accounts);
        UUID theirs = UUID.randomUUID();
        mapper.insert(
                theirs,
                UUID.fromString(other.get("/api/session").json().get("id").asString()),
                "inspect",
                "Theirs",
                null,
                null,
                0,
                null);
        long run = mapper.start(id, 1).orElseThrow().run();
        assertThat(mapper.start(second, 1)).isEmpty();
        assertThat(mapper.start(theirs, 1)).isPresent();
        assertThat(mapper.start(id, 0)).as("begun again after a crash").isPresent();
        mapper.finish(id, run + 1, "DONE", null, null);
        assertThat(mapper.start(second, 1)).isPresent();
    }

    @Test
    void whatHasEndedStaysUntilItIsDismissed() {
        long run = mapper.start(id, 1).orElseThrow().run();
        String job = "/api/jobs/" + id;
        assertThat(browser.delete(job).status()).as("under way").isEqualTo(409);
        assertThat(browser.post(job + "/pause", "").sentence()).contains("can’t be paused");
        mapper.finish(id, run, "DONE", null, null);
        database.update("update job set created_at = now() - interval '31 days' where id = ?", id);
        jobs.tidy();
        assertThat(browser.get("/api/jobs").json().toString()).contains(id.toString());
        assertThat(browser.delete(job).status()).isEqualTo(204);
        assertThat(browser.get("/api/jobs").json().toString()).doesNotContain(id.toString());
        assertThat(stranger().asNewDesigner(accounts).delete(job).status()).isEqualTo(404);
    }

    @Test
    void whatWaitsIsCalledOffAtOnce() {
        assertThat(browser.post("/api/jobs/" + id + "/cancel", "").status()).isEqualTo(200);
        assertThat(state()).isEqualTo("CANCELLED");
        assertThat(mapper.start(id, 1)).isEmpty();
    }

    @Test
    void aJobThatIsPausedWhileItWaitsAndResumedIsScheduledOnce() {
        UUID account = mapper.find(id).orElseThrow().accountId();
        database.update(
                "insert into scheduled_tasks (task_name, task_instance, execution_time, picked, version)"
                        + " values ('job', ?, now() + interval '1 hour', false, 1)",
                id.toString());
        mapper.pause(id, account);
        assertThat(state()).isEqualTo("PAUSED");
        jobs.resume(account, id);
        assertThat(database.queryForObject(
                        "select count(*) from scheduled_tasks where left(task_instance, 36) = ?",
                        Integer.class,
                        id.toString()))
                .isEqualTo(1);
        database.update("delete from scheduled_tasks where task_instance = ?", id.toString());
    }
}

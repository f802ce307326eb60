package app.zolvan.server.job;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.database.Outage;
import app.zolvan.server.event.EventService;
import app.zolvan.server.problem.Problem;
import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.SchedulerClient;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import com.github.kagkarlsson.scheduler.task.helper.RecurringTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import com.github.kagkarlsson.scheduler.task.schedule.FixedDelay;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import javax.sql.DataSource;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.jdbc.datasource.TransactionAwareDataSourceProxy;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.ObjectMapper;

/**
 * Long work as jobs in the database: visible, cancellable, and taken up again by any process within half a minute when
 * the one that ran it dies.
 */
@Service
public class JobService {
    private static final Logger LOG = LoggerFactory.getLogger(JobService.class);
    private static final Duration HEARTBEAT = Duration.ofSeconds(5);
    private static final long REPORT_EVERY_MS = 100;
    private static final Duration AFTER_FAILURE = Duration.ofSeconds(2);
    private static final Duration SOON = Duration.ofMillis(500);
    /** Most attempts of a job; one that takes its process down each time ends as failed. */
    private static final int MOST_ATTEMPTS = 5;

    private static final int TIDY_EVERY_H = 6;
    private static final int LONGEST_SENTENCE = 1_000;
    private static final String GIVEN_UP =
            "This was begun five times and stopped Zolvan’s work each time; nothing was changed. The file may need more"
                    + " memory than there is: try a smaller or simpler one.";
    private static final String NO_LONGER = "You are no longer on this project’s team; nothing was changed.";
    private static final String FAULT = "Something went wrong on our side and nothing was changed. Try it once more.";
    private static final String TASK = "job";
    private static final int ID_LENGTH = 36;
    /** Parts a later execution's name from the job's: an earlier one may not have been cleared away yet. */
    private static final String AGAIN = "/";

    private final JobMapper mapper;
    private final EventService events;
    private final Clock clock;
    private final ZolvanProperties properties;
    private final Map<String, JobWork> works;
    private final ObjectMapper json;
    private final SchedulerClient client;
    private final OneTimeTask<Void> task;
    /** Jobs whose last run here was ended by the database: that says nothing against them. */
    private final Set<UUID> interrupted = ConcurrentHashMap.newKeySet();

    JobService(
            JobMapper mapper,
            EventService events,
            Clock clock,
            ZolvanProperties properties,
            List<JobWork> works,
            ObjectMapper json,
            DataSource dataSource) {
        this.json = json;
        this.mapper = mapper;
        this.events = events;
        this.clock = clock;
        this.properties = properties;
        this.works = works.stream().collect(Collectors.toMap(JobWork::kind, Function.identity()));
        this.task = Tasks.oneTime(TASK)
                .onFailure((complete, operations) -> operations.reschedule(
                        complete,
                        clock.instant()
                                .plus(complete.getCause().orElse(null) instanceof NotYet ? SOON : AFTER_FAILURE)))
                .execute((instance, context) ->
                        run(UUID.fromString(instance.getId().substring(0, ID_LENGTH))));
        this.client = SchedulerClient.Builder.create(new TransactionAwareDataSourceProxy(dataSource), task)
                .build();
    }

    /**
     * The scheduler that runs jobs in this process; started and stopped by Spring.
     *
     * @param dataSource of its own: what designers do never keeps a job's heartbeat waiting
     */
    Scheduler scheduler(DataSource dataSource) {
        return Scheduler.create(dataSource, task)
                .startTasks(tidying())
                .threads(2)
                .pollingInterval(properties.jobs().poll())
                .heartbeatInterval(HEARTBEAT)
                .enablePriority()
                .missedHeartbeatsLimit(4)
                .build();
    }

    /** What clears away jobs that nobody asks for any more; one process at a time does it. */
    private RecurringTask<Void> tidying() {
        return Tasks.recurring("tidy-jobs", FixedDelay.ofHours(TIDY_EVERY_H)).execute((instance, context) -> tidy());
    }

    /** Ends jobs that wait for an answer in vain and forgets old ones. */
    void tidy() {
        mapper.forgetOld();
        for (UUID id : mapper.giveUpAsking()) {
            mapper.find(id).ifPresent(r -> ended(works.get(r.kind()), id));
        }
    }

    /** Has the scheduler know of every job that is to run, also of those that a restored database brought. */
    @Transactional
    public void scheduleForgotten() {
        mapper.unscheduled().forEach(id -> schedule(id.toString(), 0));
    }

    private void schedule(String name, int priority) {
        client.scheduleIfNotExists(task.instanceBuilder(name).priority(priority).build(), clock.instant());
    }

    /** A job whose kind says all that is wanted. */
    @Transactional
    public Job submit(UUID account, String kind, String title, @Nullable String asset, @Nullable UUID subject) {
        return submit(account, kind, title, asset, subject, null);
    }

    /** @param parameters what exactly is wanted, for the kind to read; null for none */
    @Transactional
    public Job submit(
            UUID account,
            String kind,
            String title,
            @Nullable String asset,
            @Nullable UUID subject,
            @Nullable Object parameters) {
        int most = properties.jobs().most();
        if (mapper.unfinished(account) >= most) {
            throw Problem.of(
                    HttpStatus.TOO_MANY_REQUESTS,
                    "too-many-jobs",
                    "You have " + most + " files waiting already. Answer or call off one of them, or wait for it.");
        }
        UUID id = UUID.randomUUID();
        int priority = works.get(kind).priority();
        String told = parameters == null ? null : json.writeValueAsString(parameters);
        mapper.insert(id, account, kind, title, asset, subject, priority, told);
        schedule(id.toString(), priority);
        return get(account, id);
    }

    public Job get(UUID account, UUID id) {
        return mapper.find(id)
                .filter(r -> r.accountId().equals(account))
                .map(this::wire)
                .orElseThrow(() -> Problem.notFound("job"));
    }

    public List<Job> recent(UUID account) {
        return mapper.recent(account).stream().map(this::wire).toList();
    }

    @Transactional
    public Job cancel(UUID account, UUID id) {
        if (mapper.cancel(id, account) == 0) {
            throw Problem.notFound("job");
        }
        if (mapper.cancelWaiting(id) > 0) {
            mapper.find(id).ifPresent(r -> ended(works.get(r.kind()), id));
            announce(id);
        }
        return get(account, id);
    }

    /** Goes on with work that has asked. */
    @Transactional
    public Job answer(UUID account, UUID id, JobAnswer answer) {
        mapper.find(id)
                .filter(r -> r.accountId().equals(account))
                .ifPresent(r -> works.get(r.kind()).check(answer));
        if (mapper.answer(id, account, json.writeValueAsString(answer)) == 0) {
            throw Problem.notFound("question");
        }
        return again(account, id);
    }

    private Job again(UUID account, UUID id) {
        JobMapper.Row r = mapper.find(id).orElseThrow(() -> Problem.notFound("job"));
        if (!mapper.isScheduled(id)) {
            schedule(id + AGAIN + UUID.randomUUID(), works.get(r.kind()).priority());
        }
        announce(id);
        return get(account, id);
    }

    /** Has a job rest until it is resumed. */
    @Transactional
    public Job pause(UUID account, UUID id) {
        Job job = get(account, id);
        if (!job.pausable()) {
            throw Problem.conflict(
                    "not-pausable", "This can’t be paused. Call it off, or let it come to its end.", null);
        }
        if (mapper.pause(id, account) == 0) {
            throw Problem.conflict("nothing", "It is not under way; nothing was changed.", null);
        }
        announce(id);
        return get(account, id);
    }

    @Transactional
    public Job resume(UUID account, UUID id) {
        get(account, id);
        if (mapper.resume(id, account) == 0) {
            throw Problem.conflict("nothing", "It is not paused; nothing was changed.", null);
        }
        return again(account, id);
    }

    /** Takes a job that has ended off the list; what came of it as files goes. */
    @Transactional
    public void dismiss(UUID account, UUID id) {
        Job job = get(account, id);
        if (mapper.dismiss(id, account) == 0) {
            throw Problem.conflict("under-way", "It is still under way. Call it off first.", null);
        }
        if (!job.results().isEmpty()) {
            ended(works.get(job.kind()), id);
        }
    }

    /** SHA-256 of a file that came of a job. */
    public String result(UUID account, UUID id, int number) {
        get(account, id);
        return mapper.resultAsset(id, number).orElseThrow(() -> Problem.notFound("file"));
    }

    private Job wire(JobMapper.Row r) {
        JobQuestion question = r.question() == null ? null : json.readValue(r.question(), JobQuestion.class);
        return Job.of(r, works.get(r.kind()), mapper.results(r.id()), clock.instant(), question);
    }

    /** Lets an exception out only where the database was not there or two transactions clashed: it is run again soon. */
    private void run(UUID id) {
        JobMapper.Row job = mapper.find(id).orElse(null);
        JobMapper.Begun begun = job == null
                ? null
                : mapper.start(id, interrupted.remove(id) ? 0 : 1).orElse(null);
        if (begun == null) {
            if (job != null && mapper.isQueued(id)) {
                throw new NotYet();
            }
            return; // finished before a crash could be noticed, paused, or deleted
        }
        announce(id);
        JobWork work = works.get(job.kind());
        if (begun.attempts() > MOST_ATTEMPTS) {
            finish(work, id, begun, "FAILED", GIVEN_UP, null);
            return;
        }
        if (!mapper.mayWork(job.accountId(), job.subject())) {
            finish(work, id, begun, "FAILED", NO_LONGER, null);
            return;
        }
        try {
            JobAnswer answer = job.answer() == null ? null : json.readValue(job.answer(), JobAnswer.class);
            JobOrder order = new JobOrder(
                    id, job.accountId(), job.title(), job.asset(), job.subject(), job.parameters(), job.kept(), answer);
            UUID result = work.run(order, reporter(id, begun, clock.instant().plus(work.limit())));
            finish(work, id, begun, "DONE", null, result);
        } catch (Asking e) {
            if (mapper.ask(id, begun.run(), json.writeValueAsString(e.question())) == 0) {
                finish(work, id, begun, "CANCELLED", null, null);
            }
            announce(id);
        } catch (Cancelled e) {
            finish(work, id, begun, "CANCELLED", null, null);
        } catch (Paused e) {
            if (mapper.rest(id, begun.run()) == 0) {
                finish(work, id, begun, "CANCELLED", null, null);
            }
            announce(id);
        } catch (Superseded e) {
            LOG.warn("run {} of job {} ends: another one has begun since", begun.run(), id);
        } catch (ImportException | Problem e) {
            finish(work, id, begun, "FAILED", shortened(e.getMessage()), null);
        } catch (IOException | RuntimeException | OutOfMemoryError | StackOverflowError e) {
            if (e instanceof RuntimeException r && (Outage.is(e) || Outage.isClash(e))) {
                interrupted.add(id);
                throw r;
            }
            LOG.error("job {} failed", id, e);
            finish(work, id, begun, "FAILED", FAULT, null);
        }
    }

    /** Decides how a job ended, once; what follows from it can fail without changing that. */
    private void finish(
            JobWork work,
            UUID id,
            JobMapper.Begun begun,
            String state,
            @Nullable String sentence,
            @Nullable UUID result) {
        if (mapper.finish(id, begun.run(), state, sentence, result) == 0) {
            LOG.warn("run {} of job {} ended too late: another one has begun since", begun.run(), id);
            return;
        }
        announce(id);
        ended(work, id);
    }

    private static void ended(JobWork work, UUID id) {
        try {
            work.ended();
        } catch (RuntimeException e) {
            LOG.error("what job {} left could not be cleared away", id, e);
        }
    }

    /** A sentence that fits into a notification. */
    private static String shortened(String sentence) {
        return sentence.length() <= LONGEST_SENTENCE ? sentence : sentence.substring(0, LONGEST_SENTENCE) + "…";
    }

    private JobProgress reporter(UUID id, JobMapper.Begun begun, Instant deadline) {
        return new Reporter(id, begun, deadline);
    }

    private final class Reporter implements JobProgress {
        private final UUID id;
        private final JobMapper.Begun begun;
        private final Instant deadline;
        private long last;

        Reporter(UUID id, JobMapper.Begun begun, Instant deadline) {
            this.id = id;
            this.begun = begun;
            this.deadline = deadline;
        }

        @Override
        public void at(double share, String step) {
            long now = clock.millis();
            if (now - last < REPORT_EVERY_MS) {
                return;
            }
            last = now;
            JobMapper.Flags flags = mapper.flags(id);
            if (flags.cancel()) {
                throw new Cancelled();
            }
            if (flags.pause()) {
                throw new Paused();
            }
            if (now > deadline.toEpochMilli()) {
                throw Problem.of(
                        HttpStatus.UNPROCESSABLE_CONTENT,
                        "too-long",
                        "This took longer than one job may, and was ended; nothing was changed. Try it with a smaller"
                                + " or simpler file.");
            }
            require(mapper.progress(id, begun.run(), share, step));
            announce(id);
        }

        @Override
        public void keep(String asset) {
            require(mapper.keep(id, begun.run(), asset));
        }

        @Override
        public void result(int number, String name, String mediaType, String asset) {
            require(mapper.putResult(id, begun.run(), number, name, mediaType, asset));
            announce(id);
        }

        private static void require(int changed) {
            if (changed == 0) {
                throw new Superseded();
            }
        }
    }

    private void announce(UUID id) {
        mapper.find(id).ifPresent(r -> events.announce(r.accountId(), "job", wire(r)));
    }

    /** Ends a run that is to go on later. */
    private static final class Paused extends RuntimeException {}

    /** Puts off a job while another one of its account runs. */
    private static final class NotYet extends RuntimeException {
        NotYet() {
            super("another job of the same account runs", null, false, false);
        }
    }

    /** Ends a job that the designer has called off. */
    private static final class Cancelled extends RuntimeException {}

    /** Ends a run that was taken for dead and whose job another process has begun again. */
    private static final class Superseded extends RuntimeException {}
}

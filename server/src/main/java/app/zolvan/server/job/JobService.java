package app.zolvan.server.job;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelReader;
import app.zolvan.server.event.EventService;
import app.zolvan.server.problem.Problem;
import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.SchedulerClient;
import com.github.kagkarlsson.scheduler.task.helper.OneTimeTask;
import com.github.kagkarlsson.scheduler.task.helper.Tasks;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import javax.sql.DataSource;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
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
    private static final String TASK = "job";
    private static final int ID_LENGTH = 36;
    /** Ends the name of a job's second execution: its first may not have been cleared away yet. */
    private static final String ANSWERED = "/answered";

    private final JobMapper mapper;
    private final EventService events;
    private final Clock clock;
    private final Map<String, JobWork> works;
    private final ObjectMapper json;
    private final SchedulerClient client;
    private final OneTimeTask<Void> task;

    JobService(
            JobMapper mapper,
            EventService events,
            Clock clock,
            List<JobWork> works,
            ObjectMapper json,
            DataSource dataSource) {
        this.json = json;
        this.mapper = mapper;
        this.events = events;
        this.clock = clock;
        this.works = works.stream().collect(Collectors.toMap(JobWork::kind, Function.identity()));
        this.task = Tasks.oneTime(TASK)
                .execute((instance, context) ->
                        run(UUID.fromString(instance.getId().substring(0, ID_LENGTH))));
        this.client = SchedulerClient.Builder.create(new TransactionAwareDataSourceProxy(dataSource), task)
                .build();
    }

    /** The scheduler that runs jobs in this process; started and stopped by Spring. */
    Scheduler scheduler(DataSource dataSource) {
        return Scheduler.create(new TransactionAwareDataSourceProxy(dataSource), task)
                .threads(2)
                .pollingInterval(Duration.ofMillis(250))
                .heartbeatInterval(HEARTBEAT)
                .missedHeartbeatsLimit(4)
                .build();
    }

    @Transactional
    public Job submit(UUID account, String kind, String title, String asset, @Nullable UUID subject) {
        UUID id = UUID.randomUUID();
        mapper.insert(id, account, kind, title, asset, subject);
        client.scheduleIfNotExists(task.instance(id.toString()), clock.instant());
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
        if (mapper.cancelAsking(id) > 0) {
            mapper.find(id).ifPresent(r -> works.get(r.kind()).dropped());
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
        client.scheduleIfNotExists(task.instance(id + ANSWERED), clock.instant());
        return get(account, id);
    }

    private Job wire(JobMapper.Row r) {
        JobQuestion question = r.question() == null ? null : json.readValue(r.question(), JobQuestion.class);
        return Job.of(r, clock.instant(), question);
    }

    private void run(UUID id) {
        JobMapper.Row job = mapper.find(id).orElse(null);
        if (job == null || mapper.start(id) == 0) {
            return; // finished before a crash could be noticed, or deleted
        }
        announce(id);
        JobWork work = works.get(job.kind());
        try {
            JobAnswer answer = job.answer() == null ? null : json.readValue(job.answer(), JobAnswer.class);
            JobOrder order = new JobOrder(id, job.accountId(), job.title(), job.asset(), job.subject(), answer);
            UUID result = work.run(order, reporter(id));
            mapper.finish(id, "DONE", null, result);
            work.done();
        } catch (Asking e) {
            if (mapper.ask(id, json.writeValueAsString(e.question())) == 0) {
                drop(work, id, "CANCELLED", null);
            }
        } catch (Cancelled e) {
            drop(work, id, "CANCELLED", null);
        } catch (ImportException | Problem e) {
            drop(work, id, "FAILED", e.getMessage());
        } catch (IOException | RuntimeException e) {
            LOG.error("job {} failed", id, e);
            drop(work, id, "FAILED", "Something went wrong on our side and nothing was changed. Try it once more.");
        }
        announce(id);
    }

    private void drop(JobWork work, UUID id, String state, String sentence) {
        mapper.finish(id, state, sentence, null);
        work.dropped();
    }

    private ModelReader.Progress reporter(UUID id) {
        long[] last = {0};
        return (share, step) -> {
            long now = clock.millis();
            if (now - last[0] < REPORT_EVERY_MS) {
                return;
            }
            last[0] = now;
            if (mapper.isCancelled(id)) {
                throw new Cancelled();
            }
            mapper.progress(id, share, step);
            announce(id);
        };
    }

    private void announce(UUID id) {
        mapper.find(id).ifPresent(r -> events.announce(r.accountId(), "job", wire(r)));
    }

    /** Ends a job that the designer has called off. */
    private static final class Cancelled extends RuntimeException {}
}

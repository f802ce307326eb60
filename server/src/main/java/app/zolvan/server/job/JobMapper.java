package app.zolvan.server.job;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface JobMapper {

    record Row(
            UUID id,
            UUID accountId,
            String kind,
            String title,
            String state,
            double share,
            String step,
            String problem,
            String asset,
            UUID result,
            boolean cancel,
            Instant createdAt,
            Instant startedAt,
            String question,
            String answer,
            UUID subject,
            long run,
            int attempts,
            String parameters,
            String kept) {}

    /** Wishes of the account about a job that runs. */
    record Flags(boolean cancel, boolean pause) {}

    /**
     * A run of a job that has begun.
     *
     * @param run      its fencing number, which everything it says of the job carries
     * @param attempts how often the job was begun, this time included, without what an outage of the database ended
     */
    record Begun(long run, int attempts) {}

    @Insert("""
            insert into job (id, account_id, kind, title, state, asset, subject, priority, parameters)
            values (#{id}, #{accountId}, #{kind}, #{title}, 'QUEUED', #{asset}, #{subject}, #{priority}, #{parameters}::jsonb)""")
    void insert(
            UUID id,
            UUID accountId,
            String kind,
            String title,
            String asset,
            UUID subject,
            int priority,
            String parameters);

    /**
     * True where an account may still work on what a job is about: it is open, and of the project's team.
     *
     * @param subject a project; null where a job makes one
     */
    @Options(useCache = false, flushCache = Options.FlushCachePolicy.TRUE)
    @Select("""
            select exists (select 1 from account where id = #{account} and disabled_at is null)
               and (#{subject}::uuid is null
                    or exists (select 1 from project_team where project_id = #{subject} and account_id = #{account}))""")
    boolean mayWork(UUID account, UUID subject);

    /** Ends jobs that nobody has answered for a week; gives their ids. */
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    @Select("""
            update job set state = 'CANCELLED', question = null
            where state = 'ASKING' and created_at < now() - interval '7 days' returning id""")
    List<UUID> giveUpAsking();

    /** Forgets dismissed jobs that ended long ago. */
    @Update("""
            delete from job where state in ('DONE', 'FAILED', 'CANCELLED') and dismissed and created_at < now() - interval '30 days'""")
    int forgetOld();

    /** Jobs of an account that have not ended. */
    @Select(
            "select count(*) from job where account_id = #{account} and state in ('QUEUED', 'RUNNING', 'PAUSED', 'ASKING')")
    int unfinished(UUID account);

    @Select("select * from job where id = #{id}")
    Optional<Row> find(UUID id);

    @Select("""
            select * from job where account_id = #{accountId} and not dismissed
            order by created_at desc limit 100""")
    List<Row> recent(UUID accountId);

    /**
     * Begins a run; empty where the job has ended, is paused or asks, and where it has not begun yet while another one of its
     * account runs: an account's jobs are done one after the other, so that others get their turn.
     *
     * @param counted 1 for an attempt, 0 for a run that goes on after the database was away
     */
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    @Select("""
            update job set state = 'RUNNING', share = 0, step = '', pause = false, started_at = now(), run = run + 1, attempts = attempts + #{counted}
            where id = #{id} and (state = 'RUNNING' or (state = 'QUEUED' and not exists (
                select 1 from job o where o.account_id = job.account_id and o.state = 'RUNNING' and o.id <> job.id)))
            returning run, attempts""")
    Optional<Begun> start(UUID id, int counted);

    /** 0 where another run has begun since or the job has ended. */
    @Update("""
            update job set share = #{share}, step = #{step}
            where id = #{id} and run = #{run} and state = 'RUNNING'""")
    int progress(UUID id, long run, double share, String step);

    @Update("""
            update job set state = #{state}, share = 1, problem = #{problem}, result = #{result}
            where id = #{id} and run = #{run} and state = 'RUNNING'""")
    int finish(UUID id, long run, String state, String problem, UUID result);

    @Update("update job set cancel = true where id = #{id} and account_id = #{accountId}")
    int cancel(UUID id, UUID accountId);

    /** A run that came to its question has taken nothing down: attempts begin anew with the answer. */
    @Update("""
            update job set state = 'ASKING', question = #{question}, attempts = 0
            where id = #{id} and run = #{run} and state = 'RUNNING' and not cancel""")
    int ask(UUID id, long run, String question);

    @Update("""
            update job set state = 'QUEUED', share = 0, step = '', question = null, answer = #{answer}, attempts = 0
            where id = #{id} and account_id = #{accountId} and state = 'ASKING'""")
    int answer(UUID id, UUID accountId, String answer);

    /** Ends a job that does not run. */
    @Update(
            "update job set state = 'CANCELLED', question = null where id = #{id} and state in ('QUEUED', 'ASKING', 'PAUSED')")
    int cancelWaiting(UUID id);

    @Options(useCache = false, flushCache = Options.FlushCachePolicy.TRUE)
    @Select("select cancel, pause from job where id = #{id}")
    Flags flags(UUID id);

    /** Has a job rest: at once where it waits, at its next word where it runs. */
    @Update("""
            update job set pause = (state = 'RUNNING'), state = case state when 'QUEUED' then 'PAUSED' else state end
            where id = #{id} and account_id = #{accountId} and state in ('QUEUED', 'RUNNING')""")
    int pause(UUID id, UUID accountId);

    @Update("""
            update job set state = 'PAUSED', pause = false, attempts = 0
            where id = #{id} and run = #{run} and state = 'RUNNING' and not cancel""")
    int rest(UUID id, long run);

    @Update("""
            update job set state = 'QUEUED', share = 0, step = ''
            where id = #{id} and account_id = #{accountId} and state = 'PAUSED'""")
    int resume(UUID id, UUID accountId);

    @Update("""
            update job set dismissed = true
            where id = #{id} and account_id = #{accountId} and state in ('DONE', 'FAILED', 'CANCELLED')""")
    int dismiss(UUID id, UUID accountId);

    @Update("update job set kept = #{asset} where id = #{id} and run = #{run} and state = 'RUNNING'")
    int keep(UUID id, long run, String asset);

    @Insert("""
            insert into job_result (job_id, number, name, media_type, asset, bytes)
            select j.id, #{number}, #{name}, #{mediaType}, a.sha256, a.size from job j, asset a
            where j.id = #{id} and j.run = #{run} and j.state = 'RUNNING' and a.sha256 = #{asset}
            on conflict (job_id, number) do update set name = excluded.name, media_type = excluded.media_type,
                asset = excluded.asset, bytes = excluded.bytes""")
    int putResult(UUID id, long run, int number, String name, String mediaType, String asset);

    @Select("select number, name, media_type, bytes from job_result where job_id = #{id} order by number")
    List<JobResult> results(UUID id);

    @Select("select asset from job_result where job_id = #{id} and number = #{number}")
    Optional<String> resultAsset(UUID id, int number);

    @Select("select state = 'QUEUED' from job where id = #{id}")
    boolean isQueued(UUID id);

    /** True where the scheduler will begin a job that it does not work on now. */
    @Select("""
            select exists (select 1 from scheduled_tasks where task_name = 'job' and left(task_instance, 36) = #{id}::text
                           and not picked)""")
    boolean isScheduled(UUID id);

    /** Jobs that are to run and that the scheduler knows nothing of, as after a restore. */
    @Select("""
            select id from job j where state in ('QUEUED', 'RUNNING')
              and not exists (select 1 from scheduled_tasks t
                              where t.task_name = 'job' and left(t.task_instance, 36) = j.id::text)""")
    List<UUID> unscheduled();
}

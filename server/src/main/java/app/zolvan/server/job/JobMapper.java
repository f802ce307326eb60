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
            int attempts) {}

    /**
     * A run of a job that has begun.
     *
     * @param run      its fencing number, which everything it says of the job carries
     * @param attempts how often the job was begun, this time included, without what an outage of the database ended
     */
    record Begun(long run, int attempts) {}

    @Insert("""
            insert into job (id, account_id, kind, title, state, asset, subject)
            values (#{id}, #{accountId}, #{kind}, #{title}, 'QUEUED', #{asset}, #{subject})""")
    void insert(UUID id, UUID accountId, String kind, String title, String asset, UUID subject);

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

    /** Forgets jobs that ended long ago. */
    @Update("""
            delete from job where state in ('DONE', 'FAILED', 'CANCELLED') and created_at < now() - interval '30 days'""")
    int forgetOld();

    /** Jobs of an account that have not ended. */
    @Select("select count(*) from job where account_id = #{account} and state in ('QUEUED', 'RUNNING', 'ASKING')")
    int unfinished(UUID account);

    @Select("select * from job where id = #{id}")
    Optional<Row> find(UUID id);

    @Select("""
            select * from job where account_id = #{accountId}
              and (state in ('QUEUED', 'RUNNING', 'ASKING') or created_at > now() - interval '1 hour')
            order by created_at desc limit 20""")
    List<Row> recent(UUID accountId);

    /**
     * Begins a run; empty where the job has ended or asks.
     *
     * @param counted 1 for an attempt, 0 for a run that goes on after the database was away
     */
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    @Select("""
            update job set state = 'RUNNING', share = 0, step = '', started_at = now(), run = run + 1, attempts = attempts + #{counted}
            where id = #{id} and state in ('QUEUED', 'RUNNING')
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

    @Update("update job set state = 'CANCELLED', question = null where id = #{id} and state = 'ASKING'")
    int cancelAsking(UUID id);

    @Options(useCache = false, flushCache = Options.FlushCachePolicy.TRUE)
    @Select("select cancel from job where id = #{id}")
    boolean isCancelled(UUID id);

    /** Jobs that are to run and that the scheduler knows nothing of, as after a restore. */
    @Select("""
            select id from job j where state in ('QUEUED', 'RUNNING')
              and not exists (select 1 from scheduled_tasks t
                              where t.task_name = 'job' and left(t.task_instance, 36) = j.id::text)""")
    List<UUID> unscheduled();
}

package app.zolvan.server.job;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
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
            UUID subject) {}

    @Insert("""
            insert into job (id, account_id, kind, title, state, asset, subject)
            values (#{id}, #{accountId}, #{kind}, #{title}, 'QUEUED', #{asset}, #{subject})""")
    void insert(UUID id, UUID accountId, String kind, String title, String asset, UUID subject);

    @Select("select * from job where id = #{id}")
    Optional<Row> find(UUID id);

    @Select("""
            select * from job where account_id = #{accountId}
              and (state in ('QUEUED', 'RUNNING', 'ASKING') or created_at > now() - interval '1 hour')
            order by created_at desc limit 20""")
    List<Row> recent(UUID accountId);

    @Update("""
            update job set state = 'RUNNING', share = 0, step = '', started_at = now()
            where id = #{id} and state in ('QUEUED', 'RUNNING')""")
    int start(UUID id);

    @Update("update job set share = #{share}, step = #{step} where id = #{id}")
    void progress(UUID id, double share, String step);

    @Update("""
            update job set state = #{state}, share = 1, problem = #{problem}, result = #{result}
            where id = #{id}""")
    void finish(UUID id, String state, String problem, UUID result);

    @Update("update job set cancel = true where id = #{id} and account_id = #{accountId}")
    int cancel(UUID id, UUID accountId);

    @Update("update job set state = 'ASKING', question = #{question} where id = #{id} and not cancel")
    int ask(UUID id, String question);

    @Update("""
            update job set state = 'QUEUED', share = 0, step = '', question = null, answer = #{answer}
            where id = #{id} and account_id = #{accountId} and state = 'ASKING'""")
    int answer(UUID id, UUID accountId, String answer);

    @Update("update job set state = 'CANCELLED', question = null where id = #{id} and state = 'ASKING'")
    int cancelAsking(UUID id);

    @Select("select cancel from job where id = #{id}")
    boolean isCancelled(UUID id);
}

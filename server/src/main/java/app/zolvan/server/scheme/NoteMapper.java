package app.zolvan.server.scheme;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface NoteMapper {

    /**
     * What was left open about a thing.
     *
     * @param level   whose target it is about
     * @param settled whether it is decided since
     * @param by      who wrote it
     * @param at      when, in whole milliseconds
     */
    record NoteRow(
            UUID id, UUID projectId, String level, int target, String text, boolean settled, String by, Instant at) {
        /** What fits into a line. */
        String brief() {
            return text.length() > 80 ? text.substring(0, 79) + "…" : text;
        }

        NoteRow on(int other) {
            return new NoteRow(id, projectId, level, other, text, settled, by, at);
        }

        NoteRow saying(String other) {
            return new NoteRow(id, projectId, level, target, other, settled, by, at);
        }

        NoteRow settled(boolean is) {
            return new NoteRow(id, projectId, level, target, text, is, by, at);
        }
    }

    @Select("select * from note where project_id = #{projectId} order by at, id")
    List<NoteRow> notes(UUID projectId);

    @Select("select * from note where id = #{id} and project_id = #{projectId}")
    Optional<NoteRow> note(UUID projectId, UUID id);

    @Select("select exists (select 1 from note where id = #{id} and project_id = #{projectId})")
    boolean exists(UUID projectId, UUID id);

    @Insert("""
            insert into note (id, project_id, level, target, text, settled, by, at)
            values (#{id}, #{projectId}, #{level}, #{target}, #{text}, #{settled}, #{by}, #{at})
            on conflict (project_id, id) do update
            set level = excluded.level, target = excluded.target, text = excluded.text, settled = excluded.settled""")
    void put(NoteRow row);

    @Delete("delete from note where id = #{id} and project_id = #{projectId}")
    void delete(UUID projectId, UUID id);
}

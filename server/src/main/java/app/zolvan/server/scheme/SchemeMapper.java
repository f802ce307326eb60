package app.zolvan.server.scheme;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface SchemeMapper {

    record SchemeRow(UUID id, UUID projectId, UUID base, String name, int position) {}

    record EntryRow(
            UUID schemeId, String level, int target, String side, UUID materialId, String mapping, boolean onTop) {}

    record CommandRow(long id, UUID projectId, UUID accountId, String label, String changes, boolean undone) {}

    @Insert("insert into scheme (id, project_id, name) values (#{id}, #{projectId}, #{name})")
    void insertScheme(UUID id, UUID projectId, String name);

    @Select("select * from scheme where project_id = #{projectId} order by position limit 1")
    Optional<SchemeRow> firstScheme(UUID projectId);

    @Select("select * from scheme where project_id = #{projectId} order by position")
    List<SchemeRow> schemes(UUID projectId);

    @Select("select * from entry where scheme_id = #{schemeId} order by level, target, side")
    List<EntryRow> entries(UUID schemeId);

    @Select("""
            select * from entry
            where scheme_id = #{schemeId} and level = #{level} and target = #{target} and side = #{side}""")
    Optional<EntryRow> entry(UUID schemeId, String level, int target, String side);

    @Insert("""
            insert into entry (scheme_id, level, target, side, material_id, mapping, on_top)
            values (#{schemeId}, #{level}, #{target}, #{side}, #{materialId}, #{mapping}, #{onTop})
            on conflict (scheme_id, level, target, side) do update
            set material_id = excluded.material_id, mapping = excluded.mapping, on_top = excluded.on_top""")
    void putEntry(EntryRow row);

    @Delete("""
            delete from entry
            where scheme_id = #{schemeId} and level = #{level} and target = #{target} and side = #{side}""")
    void deleteEntry(UUID schemeId, String level, int target, String side);

    @Insert("""
            insert into command (project_id, account_id, label, changes)
            values (#{projectId}, #{accountId}, #{label}, #{changes}::jsonb)""")
    void insertCommand(UUID projectId, UUID accountId, String label, String changes);

    @Delete("delete from command where project_id = #{projectId} and account_id = #{accountId} and undone")
    void forgetUndone(UUID projectId, UUID accountId);

    String COMMAND = "select id, project_id, account_id, label, changes::text as changes, undone from command"
            + " where project_id = #{projectId} and account_id = #{accountId}";

    @Select(COMMAND + " and not undone order by id desc limit 1")
    Optional<CommandRow> lastDone(UUID projectId, UUID accountId);

    @Select(COMMAND + " and undone order by id limit 1")
    Optional<CommandRow> firstUndone(UUID projectId, UUID accountId);

    /** Whether the whole model was replaced after a command, by another account, and still is. */
    @Select("""
            select exists (select 1 from command
                           where project_id = #{projectId} and account_id <> #{accountId} and id > #{id} and not undone
                             and changes @> '[{"type": "model"}]')""")
    boolean isModelReplacedSince(UUID projectId, UUID accountId, long id);

    @Update("update command set undone = #{undone} where id = #{id}")
    void setUndone(long id, boolean undone);
}

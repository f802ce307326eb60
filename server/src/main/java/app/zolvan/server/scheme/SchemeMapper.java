package app.zolvan.server.scheme;

import app.zolvan.core.assign.Entry;
import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.SchemeState;
import app.zolvan.core.assign.Side;
import app.zolvan.core.assign.Slot;
import app.zolvan.core.mapping.Mapping;
import java.time.OffsetDateTime;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface SchemeMapper {

    /**
     * @param base   the scheme that it stores differences from; null for none
     * @param letter on its divider
     * @param reason why it was rejected; empty elsewhere
     */
    record SchemeRow(
            UUID id,
            UUID projectId,
            @Nullable UUID base,
            String letter,
            String name,
            String description,
            SchemeState state,
            String reason,
            int position) {
        SchemeRow described(String otherName, String otherDescription, SchemeState otherState, String otherReason) {
            return new SchemeRow(
                    id, projectId, base, letter, otherName, otherDescription, otherState, otherReason, position);
        }

        SchemeRow basedOn(@Nullable UUID other) {
            return new SchemeRow(id, projectId, other, letter, name, description, state, reason, position);
        }

        SchemeRow at(int otherPosition) {
            return new SchemeRow(id, projectId, base, letter, name, description, state, reason, otherPosition);
        }
    }

    record EntryRow(
            UUID schemeId, String level, int target, String side, UUID materialId, String mapping, boolean onTop) {
        static EntryRow of(UUID scheme, Slot slot, Entry e) {
            return new EntryRow(
                    scheme,
                    slot.target().level().name(),
                    LookTable.index(slot.target()),
                    slot.side().name(),
                    e.material() == null ? null : UUID.fromString(e.material()),
                    e.mapping() == null ? null : e.mapping() instanceof Mapping.Box ? "BOX" : "MODEL_UVS",
                    e.onTop());
        }

        Slot slot() {
            return new Slot(LookTable.target(Level.valueOf(level), target), Side.valueOf(side));
        }

        Entry entry() {
            Mapping lies = mapping == null ? null : mapping.equals("BOX") ? new Mapping.Box() : new Mapping.ModelUvs();
            return new Entry(materialId == null ? null : materialId.toString(), lies, onTop);
        }

        EntryRow on(int otherTarget) {
            return new EntryRow(schemeId, level, otherTarget, side, materialId, mapping, onTop);
        }
    }

    record CommandRow(long id, UUID projectId, UUID accountId, String label, String changes, boolean undone) {}

    @Insert("""
            insert into scheme (id, project_id, base, letter, name, description, state, reason, position)
            values (#{id}, #{projectId}, #{base}, #{letter}, #{name}, #{description}, #{state}, #{reason}, #{position})
            on conflict (id) do update
            set base = excluded.base, letter = excluded.letter, name = excluded.name,
                description = excluded.description, state = excluded.state, reason = excluded.reason,
                position = excluded.position""")
    void putScheme(SchemeRow row);

    @Delete("delete from scheme where id = #{id}")
    void deleteScheme(UUID id);

    @Select("select * from scheme where id = #{id}")
    Optional<SchemeRow> scheme(UUID id);

    @Select("select * from scheme where project_id = #{projectId} order by position, letter")
    List<SchemeRow> schemes(UUID projectId);

    @Select("select * from entry where scheme_id = #{schemeId} order by level, target, side")
    List<EntryRow> entries(UUID schemeId);

    @Select("select e.* from entry e join scheme s on s.id = e.scheme_id where s.project_id = #{projectId}")
    List<EntryRow> entriesOfProject(UUID projectId);

    /** Many at once, none of them twice. */
    @Insert("""
            <script>
            insert into entry (scheme_id, level, target, side, material_id, mapping, on_top) values
            <foreach collection="rows" item="r" separator=",">
              (#{r.schemeId}, #{r.level}, #{r.target}, #{r.side}, #{r.materialId}, #{r.mapping}, #{r.onTop})
            </foreach>
            on conflict (scheme_id, level, target, side) do update
            set material_id = excluded.material_id, mapping = excluded.mapping, on_top = excluded.on_top
            </script>""")
    void putEntries(List<EntryRow> rows);

    @Delete("""
            delete from entry
            where scheme_id = #{schemeId} and level = #{level} and target = #{target} and side = #{side}""")
    void deleteEntry(UUID schemeId, String level, int target, String side);

    /** What a change touched, and which version of the project it made. */
    record TouchedRow(long version, UUID accountId, String name, String label, String[] things) {}

    @Insert("""
            insert into touched (project_id, version, account_id, label, things, key)
            values (#{projectId}, #{version}, #{accountId}, #{label}, #{things}, #{key})""")
    void insertTouched(UUID projectId, long version, UUID accountId, String label, String[] things, @Nullable UUID key);

    /** True for a key of one of the newest commands that the account has had done. */
    @Select("""
            select exists (select 1 from touched
                           where project_id = #{projectId} and account_id = #{accountId} and key = #{key})""")
    boolean isDone(UUID projectId, UUID accountId, UUID key);

    @Delete("delete from touched where project_id = #{projectId} and version <= #{upTo}")
    void forgetTouched(UUID projectId, long upTo);

    /** What came after a version, oldest first. */
    @Select("""
            select t.version, t.account_id, a.display_name as name, t.label, t.things
            from touched t join account a on a.id = t.account_id
            where t.project_id = #{projectId} and t.version > #{version} order by t.version""")
    List<TouchedRow> touchedSince(UUID projectId, long version);

    /** A look that is kept on a target to choose from. */
    record CandidateRow(UUID projectId, String level, int target, UUID materialId, int position) {}

    @Select("select * from candidate where project_id = #{projectId} order by level, target, position")
    List<CandidateRow> candidates(UUID projectId);

    @Insert("""
            insert into candidate (project_id, level, target, material_id, position)
            values (#{projectId}, #{level}, #{target}, #{materialId}, #{position})
            on conflict (project_id, level, target, material_id) do update set position = excluded.position""")
    void putCandidate(CandidateRow row);

    @Delete("""
            delete from candidate where project_id = #{projectId} and level = #{level} and target = #{target}
                                    and material_id = #{materialId}""")
    void deleteCandidate(UUID projectId, String level, int target, UUID materialId);

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

    /** @param at when it was done */
    record MomentRow(
            long id,
            UUID accountId,
            String displayName,
            String label,
            OffsetDateTime at,
            boolean undone,
            @Nullable String name) {}

    String MOMENT = "select c.id, c.account_id, a.display_name, c.label, c.created_at as at, c.undone, c.name"
            + " from command c join account a on a.id = c.account_id where c.project_id = #{projectId}";

    /** Newest first. */
    @Select(MOMENT + " and c.id < #{before} order by c.id desc limit #{most}")
    List<MomentRow> moments(UUID projectId, long before, int most);

    @Select(MOMENT + " and c.id = #{id}")
    Optional<MomentRow> moment(UUID projectId, long id);

    @Update("update command set name = #{name} where project_id = #{projectId} and id = #{id}")
    int nameMoment(UUID projectId, long id, @Nullable String name);

    /** What was done after a command and still is, newest first, whoever did it. */
    @Select("""
            select id, project_id, account_id, label, changes::text as changes, undone from command
            where project_id = #{projectId} and id > #{id} and not undone order by id desc""")
    List<CommandRow> doneSince(UUID projectId, long id);

    @Update("update command set undone = #{undone} where id = #{id}")
    void setUndone(long id, boolean undone);
}

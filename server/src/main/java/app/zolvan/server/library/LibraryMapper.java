package app.zolvan.server.library;

import app.zolvan.core.keep.LibraryRole;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Libraries that are somebody's own or a team's, their members and their drawers. */
@Mapper
interface LibraryMapper {

    /**
     * A library as one of its members has it.
     *
     * @param owner null for a team's
     * @param items how many materials it holds
     */
    record LibraryRow(
            UUID id, @Nullable UUID owner, String name, long revision, LibraryRole role, int items, int waiting) {}

    record MemberRow(UUID accountId, String login, String displayName, LibraryRole role) {}

    record DrawerRow(UUID id, UUID libraryId, @Nullable UUID parent, String name, int position) {}

    String LIBRARY = """
            select l.id, l.owner, l.name, l.revision, m.role,
                (select count(*)::int from material i where i.library_id = l.id) as items,
                (select count(*)::int from material i where i.library_id = l.id and not i.approved) as waiting
            from library l join library_member m on m.library_id = l.id where m.account_id = #{account}""";

    @Select(LIBRARY + " order by l.owner is null, lower(l.name), l.id")
    List<LibraryRow> of(UUID account);

    @Select(LIBRARY + " and l.id = #{id}")
    Optional<LibraryRow> find(UUID account, UUID id);

    @Insert("insert into library (id, owner, name) values (#{id}, #{owner}, #{name}) on conflict (owner) do nothing")
    int create(UUID id, @Nullable UUID owner, String name);

    @Update("update library set name = #{name} where id = #{id}")
    void rename(UUID id, String name);

    @Delete("delete from library where id = #{id}")
    void delete(UUID id);

    /** Counts a change; also the lock that puts changes of one library in a row. */
    @Update("update library set revision = revision + 1 where id = #{id}")
    int touch(UUID id);

    @Insert("""
            insert into library_member (library_id, account_id, role) values (#{library}, #{account}, #{role})
            on conflict (library_id, account_id) do update set role = excluded.role""")
    void putMember(UUID library, UUID account, LibraryRole role);

    @Delete("delete from library_member where library_id = #{library} and account_id = #{account}")
    int deleteMember(UUID library, UUID account);

    @Select("""
            select m.account_id, a.login, a.display_name, m.role from library_member m join account a on a.id = m.account_id
            where m.library_id = #{library} order by lower(a.display_name), a.login""")
    List<MemberRow> members(UUID library);

    @Select("""
            select id, library_id, parent, name, position from drawer
            where library_id = #{library} order by position, lower(name), id""")
    List<DrawerRow> drawers(UUID library);

    @Insert("""
            insert into drawer (id, library_id, parent, name, position)
            values (#{id}, #{libraryId}, #{parent}, #{name}, #{position})
            on conflict (id) do update set parent = excluded.parent, name = excluded.name, position = excluded.position""")
    void putDrawer(DrawerRow row);

    @Delete("delete from drawer where id = #{id}")
    void deleteDrawer(UUID id);

    @Update("update material set drawer_id = #{into} where drawer_id = #{from}")
    void emptyDrawer(UUID from, @Nullable UUID into);
}

package app.zolvan.server.library;

import java.util.List;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

/** Materials of libraries that are somebody's own or a team's. */
@Mapper
interface ItemMapper {

    /** Where a library's material lies, and whether it may be used by all members. */
    record PlaceRow(
            UUID id,
            UUID libraryId,
            @Nullable UUID drawerId,
            boolean approved,
            @Nullable String keptBy) {}

    @Select("""
            select m.id, m.library_id, m.drawer_id, m.approved, a.display_name as kept_by
            from material m left join account a on a.id = m.kept_by where m.library_id = #{library}""")
    List<PlaceRow> places(UUID library);

    @Insert("""
            insert into material (id, library_id, drawer_id, approved, kept_by, code, name, kind, surface, position, facts)
            values (#{row.id}, #{row.libraryId}, #{drawer}, #{approved}, #{by}, #{row.code}, #{row.name}, #{row.kind},
                    #{row.surface}::jsonb, #{row.position}, #{row.facts}::jsonb)
            on conflict (id) do update
            set drawer_id = excluded.drawer_id, approved = excluded.approved, code = excluded.code, name = excluded.name,
                kind = excluded.kind, surface = excluded.surface, facts = excluded.facts""")
    void put(MaterialRow row, @Nullable UUID drawer, boolean approved, UUID by);

    @Update("update material set drawer_id = #{drawer} where library_id = #{library} and id = any (#{items}::uuid[])")
    int move(UUID library, String[] items, @Nullable UUID drawer);

    @Update("update material set approved = #{approved} where library_id = #{library} and id = any (#{items}::uuid[])")
    int approve(UUID library, String[] items, boolean approved);

    @Delete("delete from material where library_id = #{library} and id = any (#{items}::uuid[])")
    int delete(UUID library, String[] items);

    @Update("update material set kept_as = #{item} where id = #{material}")
    void setKeptAs(UUID material, @Nullable UUID item);

    /** The material of a library that a project's was kept as, or else came from. */
    @Select("""
            select i.id from material m join material i on i.id = coalesce(m.kept_as, m.origin)
            where m.id = #{material} and i.library_id is not null""")
    @Nullable
    UUID keptAs(UUID material);

    @Select("select coalesce(max(position), 0) + 1 from material where library_id = #{library}")
    int nextPosition(UUID library);

    /** Those of a library that no project shows, nor anything made from them. */
    @Select("""
            select i.id from material i where i.library_id = #{library} and not exists (
                select 1 from material m join entry e on e.material_id = m.id where i.id in (m.origin, m.kept_as))
            order by i.position""")
    List<UUID> unused(UUID library);

    /** All that goes by some materials goes by another one of the same library. */
    @Update("""
            with o as (update material set origin = #{keep} where origin = any (#{gone}::uuid[])),
                k as (update material set kept_as = #{keep} where kept_as = any (#{gone}::uuid[])),
                r as (insert into recent_material (account_id, material_id, used_at)
                      select account_id, #{keep}, max(used_at) from recent_material
                      where material_id = any (#{gone}::uuid[]) group by account_id on conflict do nothing)
            insert into kit_material (kit_id, material_id, position)
            select kit_id, #{keep}, min(position) from kit_material
            where material_id = any (#{gone}::uuid[]) group by kit_id on conflict do nothing""")
    void goBy(UUID keep, String[] gone);

    /** The same for one material in dressing tables, which name it in their JSON. */
    @Update("""
            update dressing_table set rows = replace(rows::text, #{gone}, #{keep})::jsonb
            where rows::text like '%' || #{gone} || '%'""")
    void dressBy(String keep, String gone);
}

package app.zolvan.server.library;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface MaterialMapper {
    String COLUMNS =
            "id, project_id, origin, parent, own, arrived, code, name, kind, surface::text as surface, position,"
                    + " facts::text as facts, library_id, colour_of, shade";

    @Select("select " + COLUMNS + " from material where project_id is null and library_id is null order by position")
    List<MaterialRow> library();

    @Select("select " + COLUMNS + " from material where library_id = #{library} order by position, code, id")
    List<MaterialRow> ofLibrary(UUID library);

    @Select("select " + COLUMNS + " from material where project_id = #{projectId} order by arrived, position, name")
    List<MaterialRow> ofProject(UUID projectId);

    @Select("select " + COLUMNS + " from material where id = #{id}")
    Optional<MaterialRow> find(UUID id);

    /** What a project's own materials were made from. */
    @Select("select " + COLUMNS
            + " from material where id in (select origin from material where project_id = #{project})")
    List<MaterialRow> origins(UUID project);

    /** One that a project may show: its own, one that ships, or one of a library that an account sees. */
    @Select("select " + COLUMNS + " from material i where id = #{id} and (project_id = #{project} or (" + """
                project_id is null and (library_id is null
                or exists (select 1 from library_member m
                           where m.account_id = #{account} and m.library_id = i.library_id
                             and (i.approved or m.role <> 'USE')))))""")
    Optional<MaterialRow> findUsable(UUID account, UUID project, UUID id);

    @Insert("""
            insert into material (id, project_id, origin, parent, own, arrived, code, name, kind, surface, position, facts,
                                  colour_of, shade)
            values (#{id}, #{projectId}, (select id from material where id = #{origin}), #{parent}, #{own}, #{arrived},
                    #{code}, #{name}, #{kind}, #{surface}::jsonb, #{position}, #{facts}::jsonb, #{colourOf}, #{shade})
            on conflict (id) do update
            set name = excluded.name, kind = excluded.kind, surface = excluded.surface, parent = excluded.parent,
                own = excluded.own, facts = excluded.facts, colour_of = excluded.colour_of, shade = excluded.shade""")
    void put(MaterialRow row);

    @Insert("""
            insert into material (id, code, name, kind, surface, position, facts)
            values (#{id}, #{code}, #{name}, #{kind}, #{surface}::jsonb, #{position}, #{facts}::jsonb)
            on conflict (code) where project_id is null and library_id is null do update
            set name = excluded.name, kind = excluded.kind, surface = excluded.surface, position = excluded.position,
                facts = excluded.facts""")
    void putInLibrary(MaterialRow row);

    @Select("select value from installation where name = 'library'")
    Optional<String> installedEdition();

    @Insert("""
            insert into installation (name, value) values ('library', #{edition})
            on conflict (name) do update set value = excluded.value""")
    void setInstalledEdition(String edition);

    @Delete("delete from material where id = #{id} and not exists (select 1 from entry where material_id = #{id})")
    void deleteUnused(UUID id);
}

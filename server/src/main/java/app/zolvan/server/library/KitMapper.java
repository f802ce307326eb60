package app.zolvan.server.library;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

/** Kits: materials of libraries that are used together. */
@Mapper
interface KitMapper {

    /** @param materials how many are still there */
    record KitRow(UUID id, UUID libraryId, String name, int materials) {}

    String KIT = """
            select k.id, k.library_id, k.name,
                (select count(*)::int from kit_material x where x.kit_id = k.id) as materials
            from kit k join library_member m on m.library_id = k.library_id where m.account_id = #{account}""";

    @Select(KIT + " order by lower(k.name), k.id")
    List<KitRow> of(UUID account);

    @Select(KIT + " and k.id = #{id}")
    Optional<KitRow> find(UUID account, UUID id);

    @Select("""
            insert into kit (id, library_id, name) values (gen_random_uuid(), #{library}, #{name})
            on conflict (library_id, name) do update set name = excluded.name returning id""")
    UUID put(UUID library, String name);

    @Delete("delete from kit where id = #{id} and library_id = #{library}")
    int delete(UUID library, UUID id);

    @Delete("delete from kit_material where kit_id = #{kit}")
    void empty(UUID kit);

    @Insert("""
            insert into kit_material (kit_id, material_id, position) values (#{kit}, #{material}, #{position})
            on conflict do nothing""")
    void add(UUID kit, UUID material, int position);

    @Select("select material_id from kit_material where kit_id = #{kit} order by position")
    List<UUID> materials(UUID kit);

    @Select("select kit_id from starter_kit where account_id = #{account}")
    Optional<UUID> starter(UUID account);

    @Insert("""
            insert into starter_kit (account_id, kit_id) values (#{account}, #{kit})
            on conflict (account_id) do update set kit_id = excluded.kit_id""")
    void setStarter(UUID account, UUID kit);

    @Delete("delete from starter_kit where account_id = #{account}")
    void removeStarter(UUID account);
}

package app.zolvan.server.colour;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface PaletteMapper {

    /** @param swatches JSON, as a palette file holds them */
    record PaletteRow(UUID id, UUID accountId, String name, String swatches) {}

    @Insert("""
            insert into palette (id, account_id, name, swatches) values (#{id}, #{accountId}, #{name}, #{swatches}::jsonb)
            on conflict (id) do update set name = excluded.name, swatches = excluded.swatches""")
    void put(PaletteRow row);

    String PALETTE =
            "select id, account_id, name, swatches::text as swatches from palette where account_id = #{accountId}";

    @Select(PALETTE + " order by name, id")
    List<PaletteRow> of(UUID accountId);

    @Select(PALETTE + " and id = #{id}")
    Optional<PaletteRow> find(UUID accountId, UUID id);

    @Select("select count(*) from palette where account_id = #{accountId}")
    int count(UUID accountId);

    @Delete("delete from palette where account_id = #{accountId} and id = #{id}")
    int delete(UUID accountId, UUID id);
}

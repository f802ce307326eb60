package app.zolvan.server.scheme;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface DressingMapper {

    /** @param rows JSON */
    record TableRow(UUID id, UUID accountId, String name, String rows) {}

    @Insert("""
            insert into dressing_table (id, account_id, name, rows) values (#{id}, #{accountId}, #{name}, #{rows}::jsonb)
            on conflict (account_id, name) do update set rows = excluded.rows""")
    void put(TableRow row);

    String TABLE =
            "select id, account_id, name, rows::text as rows from dressing_table where account_id = #{accountId}";

    @Select(TABLE + " order by name")
    List<TableRow> of(UUID accountId);

    @Select(TABLE + " and id = #{id}")
    Optional<TableRow> find(UUID accountId, UUID id);

    @Delete("delete from dressing_table where account_id = #{accountId} and id = #{id}")
    int delete(UUID accountId, UUID id);
}

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
interface RuleMapper {

    /** @param rules JSON */
    record ListRow(UUID id, UUID accountId, String name, String rules) {}

    @Insert("""
            insert into rule_list (id, account_id, name, rules) values (#{id}, #{accountId}, #{name}, #{rules}::jsonb)
            on conflict (account_id, name) do nothing""")
    int insert(ListRow row);

    @Update("""
            update rule_list set rules = #{rules}::jsonb where account_id = #{accountId} and id = #{id}""")
    int update(ListRow row);

    String LIST = "select id, account_id, name, rules::text as rules from rule_list where account_id = #{accountId}";

    @Select(LIST + " order by name")
    List<ListRow> of(UUID accountId);

    @Select(LIST + " and id = #{id}")
    Optional<ListRow> find(UUID accountId, UUID id);

    @Delete("delete from rule_list where account_id = #{accountId} and id = #{id}")
    int delete(UUID accountId, UUID id);
}

package app.zolvan.server.account;

import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface AccountMapper {

    record Row(
            UUID id,
            String login,
            String displayName,
            String passwordHash,
            int failedCount,
            Instant lockedUntil,
            Instant createdAt) {}

    @Select("select * from account where login = #{login} for update")
    Optional<Row> findForUpdate(String login);

    @Select("select * from account where login = #{login}")
    Optional<Row> findByLogin(String login);

    @Select("select * from account where id = #{id}")
    Optional<Row> find(UUID id);

    @Select("select count(*) from account")
    int count();

    @Insert("""
            insert into account (id, login, display_name, password_hash)
            values (#{id}, #{login}, #{displayName}, #{passwordHash})
            on conflict (login) do nothing""")
    int insert(UUID id, String login, String displayName, String passwordHash);

    @Update("update account set failed_count = #{count}, locked_until = #{until} where id = #{id}")
    void setFailures(UUID id, int count, Instant until);
}

package app.zolvan.server.account;

import java.time.Instant;
import java.util.List;
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

    String COLUMNS = "id, login, display_name, password_hash, failed_count, locked_until, created_at";

    @Select("select " + COLUMNS + " from account where login = #{login} for update")
    Optional<Row> findForUpdate(String login);

    @Select("select " + COLUMNS + " from account where login = #{login}")
    Optional<Row> findByLogin(String login);

    @Select("select " + COLUMNS + " from account where id = #{id}")
    Optional<Row> find(UUID id);

    /** @param administrator whether it makes accounts for others */
    record Listed(UUID id, String login, String displayName, boolean administrator) {}

    @Select("select id, login, display_name, administrator from account order by lower(display_name), login")
    List<Listed> all();

    @Select("select administrator from account where id = #{id}")
    boolean isAdministrator(UUID id);

    @Select("select count(*) from account")
    int count();

    /** The first of all is the administrator. */
    @Insert("""
            insert into account (id, login, display_name, password_hash, administrator)
            values (#{id}, #{login}, #{displayName}, #{passwordHash}, not exists (select 1 from account))
            on conflict (login) do nothing""")
    int insert(UUID id, String login, String displayName, String passwordHash);

    @Update("update account set failed_count = #{count}, locked_until = #{until} where id = #{id}")
    void setFailures(UUID id, int count, Instant until);
}

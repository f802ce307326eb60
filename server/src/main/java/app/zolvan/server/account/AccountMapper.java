package app.zolvan.server.account;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Options;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;
import org.jspecify.annotations.Nullable;

@Mapper
interface AccountMapper {

    record Row(
            UUID id,
            String login,
            String displayName,
            String passwordHash,
            boolean administrator,
            boolean passwordDue,
            @Nullable Instant disabledAt,
            @Nullable Instant seenAt) {

        Account account() {
            return new Account(id, login, displayName);
        }
    }

    String COLUMNS = "id, login, display_name, password_hash, administrator, password_due, disabled_at, seen_at";

    @Select("select " + COLUMNS + " from account where login = #{login}")
    Optional<Row> findByLogin(String login);

    @Select("select " + COLUMNS + " from account where id = #{id}")
    Optional<Row> find(UUID id);

    @Select("select " + COLUMNS + " from account order by lower(display_name), login")
    List<Row> all();

    @Select("select administrator and disabled_at is null from account where id = #{id}")
    Optional<Boolean> isAdministrator(UUID id);

    @Select("select count(*) from account")
    int count();

    /** Holds off whoever else would make or take away an administrator, to the transaction's end. */
    @Select("select pg_advisory_xact_lock(7300301) is not null")
    boolean lockAdministrators();

    @Select("select count(*) from account where administrator and disabled_at is null and id <> #{id}")
    int otherAdministrators(UUID id);

    @Insert("""
            insert into account (id, login, display_name, password_hash, administrator, password_due)
            values (#{id}, #{login}, #{displayName}, #{passwordHash}, #{administrator}, #{passwordDue})
            on conflict (login) do nothing""")
    int insert(
            UUID id, String login, String displayName, String passwordHash, boolean administrator, boolean passwordDue);

    @Update("update account set seen_at = now() where id = #{id}")
    void setSeen(UUID id);

    @Update("update account set password_hash = #{hash}, password_due = #{due} where id = #{id}")
    void setPassword(UUID id, String hash, boolean due);

    @Update("update account set disabled_at = case when #{on} then now() end where id = #{id}")
    void setDisabled(UUID id, boolean on);

    @Update("update account set administrator = #{on} where id = #{id}")
    void setAdministrator(UUID id, boolean on);

    @Select("""
            select coalesce(sum(count), 0) from failed_sign_in
            where address = #{address} and at > #{since} and (#{login}::text is null or login = #{login})""")
    int failures(String address, @Nullable String login, Instant since);

    /** One more; what lies longer ago than the pause is forgotten. */
    @Insert("""
            insert into failed_sign_in as f (address, login, count, at) values (#{address}, #{login}, 1, #{now})
            on conflict (address, login) do update
            set count = case when f.at > #{since} then f.count else 0 end + 1, at = #{now}""")
    void countFailure(String address, String login, Instant now, Instant since);

    @Delete("delete from failed_sign_in where (address = #{address} and login = #{login}) or at < #{since}")
    void forgetFailures(String address, String login, Instant since);

    @Insert("insert into password_reset (word, account, until) values (#{word}, #{account}, #{until})")
    void insertReset(String word, UUID account, Instant until);

    /** Whose word it is; it is used up. */
    @Select("delete from password_reset where word = #{word} and until > #{now} returning account")
    @Options(flushCache = Options.FlushCachePolicy.TRUE)
    Optional<UUID> takeReset(String word, Instant now);

    @Delete("delete from password_reset where account = #{account} or until < #{now}")
    void forgetResets(UUID account, Instant now);

    record Letter(long id, Instant at, String login, String subject, String text) {}

    @Insert("insert into letter (account, subject, text) values (#{account}, #{subject}, #{text})")
    void insertLetter(UUID account, String subject, String text);

    @Select("""
            select l.id, l.at, a.login, l.subject, l.text from letter l join account a on a.id = l.account
            where l.id < #{before} order by l.id desc limit #{count}""")
    List<Letter> letters(long before, int count);

    @Delete("delete from letter where id = #{id}")
    void deleteLetter(long id);
}

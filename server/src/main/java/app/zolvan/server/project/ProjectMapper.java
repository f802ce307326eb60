package app.zolvan.server.project;

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

@Mapper
interface ProjectMapper {

    record Row(UUID id, UUID owner, String name, String client, String unit, long version, Instant touchedAt) {}

    record Card(
            UUID id,
            UUID owner,
            String name,
            String client,
            int parts,
            int triangles,
            boolean pictured,
            Instant touchedAt) {}

    @Insert("""
            insert into project (id, owner, name, client, unit)
            values (#{id}, #{owner}, #{name}, #{client}, #{unit})""")
    void insert(UUID id, UUID owner, String name, String client, String unit);

    @Select("select id, owner, name, client, unit, version, touched_at from project where id = #{id}")
    Optional<Row> find(UUID id);

    @Select("""
            select p.id, p.owner, p.name, p.client, coalesce(m.triangles, 0) as triangles, p.touched_at,
                   exists (select 1 from project_thumbnail t where t.project_id = p.id) as pictured,
                   (select count(*) from part where part.project_id = p.id)::int as parts
            from project p left join model m on m.project_id = p.id
            where p.id in (select t.project_id from project_team t where t.account_id = #{account})
            order by p.touched_at desc""")
    List<Card> ofAccount(UUID account);

    @Select("select exists (select 1 from project_team where project_id = #{id} and account_id = #{account})")
    boolean isOfTeam(UUID id, UUID account);

    @Select("""
            select a.id, a.login, a.display_name as name, a.id = p.owner as owner
            from project_team t join account a on a.id = t.account_id join project p on p.id = t.project_id
            where t.project_id = #{id} order by a.id <> p.owner, lower(a.display_name)""")
    List<TeamController.ColleagueWire> team(UUID id);

    @Select("select account_id from project_team where project_id = #{id}")
    List<UUID> accounts(UUID id);

    @Select("select id from account where login = #{login}")
    Optional<UUID> account(String login);

    @Insert("insert into project_member (project_id, account_id) values (#{id}, #{account}) on conflict do nothing")
    void join(UUID id, UUID account);

    @Delete("delete from project_member where project_id = #{id} and account_id = #{account}")
    void leave(UUID id, UUID account);

    @Options(flushCache = Options.FlushCachePolicy.TRUE) // it is an update, whatever it is called
    @Select("update project set version = version + 1, touched_at = now() where id = #{id} returning version")
    long count(UUID id);

    @Update("update project set name = #{name}, client = #{client}, unit = #{unit} where id = #{id}")
    void update(UUID id, String name, String client, String unit);

    record Thumbnail(byte[] jpeg) {}

    @Select("select jpeg from project_thumbnail where project_id = #{id}")
    Optional<Thumbnail> thumbnail(UUID id);

    @Insert("""
            insert into project_thumbnail (project_id, jpeg) values (#{id}, #{jpeg})
            on conflict (project_id) do update set jpeg = excluded.jpeg""")
    void putThumbnail(UUID id, byte[] jpeg);

    @Delete("delete from project where id = #{id}")
    void delete(UUID id);
}

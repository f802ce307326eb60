package app.zolvan.server.project;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;
import org.apache.ibatis.annotations.Update;

@Mapper
interface ProjectMapper {

    record Row(UUID id, UUID owner, String name, String client, String unit, long version, Instant touchedAt) {}

    record Card(UUID id, String name, String client, int parts, int triangles, boolean pictured, Instant touchedAt) {}

    @Insert("""
            insert into project (id, owner, name, client, unit)
            values (#{id}, #{owner}, #{name}, #{client}, #{unit})""")
    void insert(UUID id, UUID owner, String name, String client, String unit);

    @Select("select id, owner, name, client, unit, version, touched_at from project where id = #{id}")
    Optional<Row> find(UUID id);

    @Select("""
            select p.id, p.name, p.client, coalesce(m.triangles, 0) as triangles, p.touched_at,
                   exists (select 1 from project_thumbnail t where t.project_id = p.id) as pictured,
                   (select count(*) from part where part.project_id = p.id)::int as parts
            from project p left join model m on m.project_id = p.id
            where p.owner = #{owner} order by p.touched_at desc""")
    List<Card> ofOwner(UUID owner);

    @Update("update project set version = version + 1, touched_at = now() where id = #{id} and version = #{version}")
    int touch(UUID id, long version);

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

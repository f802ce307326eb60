package app.zolvan.server.view;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
public interface ViewMapper {

    @Select("select * from saved_view where project_id = #{projectId} order by position, id")
    List<ViewRow> views(UUID projectId);

    @Select("select * from saved_view where id = #{id} and project_id = #{projectId}")
    Optional<ViewRow> view(UUID projectId, UUID id);

    @Select("select exists (select 1 from saved_view where id = #{id} and project_id = #{projectId})")
    boolean exists(UUID projectId, UUID id);

    @Insert("""
            insert into saved_view (id, project_id, name, eye, target, degrees, looked_into, enclosed, position)
            values (#{id}, #{projectId}, #{name}, #{eye}, #{target}, #{degrees}, #{lookedInto}, #{enclosed}, #{position})
            on conflict (project_id, id) do update set name = excluded.name, eye = excluded.eye, target = excluded.target,
                degrees = excluded.degrees, looked_into = excluded.looked_into, enclosed = excluded.enclosed,
                position = excluded.position""")
    void put(ViewRow row);

    @Delete("delete from saved_view where id = #{id} and project_id = #{projectId}")
    void delete(UUID projectId, UUID id);

    @Select("select view_id from view_picture where project_id = #{projectId}")
    Set<UUID> pictured(UUID projectId);

    record Picture(byte[] jpeg) {}

    @Select("select jpeg from view_picture where view_id = #{id} and project_id = #{projectId}")
    Optional<Picture> picture(UUID projectId, UUID id);

    @Insert("""
            insert into view_picture (view_id, project_id, jpeg) values (#{id}, #{projectId}, #{jpeg})
            on conflict (project_id, view_id) do update set jpeg = excluded.jpeg""")
    void putPicture(UUID projectId, UUID id, byte[] jpeg);
}

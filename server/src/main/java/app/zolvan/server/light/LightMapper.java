package app.zolvan.server.light;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
public interface LightMapper {

    /** A project's set-ups, never none, the first in view first. */
    @Select("select * from light_setup where project_id = #{projectId} order by position, id")
    List<LightRow> setups(UUID projectId);

    @Select("select * from light_setup where project_id = #{projectId} and id = #{id}")
    Optional<LightRow> setup(UUID projectId, UUID id);

    @Insert("""
            insert into light_setup (project_id, id, name, units, surroundings, strength, turn, stops, position)
            values (#{projectId}, #{id}, #{name}, #{units}, #{surroundings}, #{strength}, #{turn}, #{stops}, #{position})
            on conflict (project_id, id) do update set name = excluded.name, units = excluded.units,
                surroundings = excluded.surroundings, strength = excluded.strength, turn = excluded.turn,
                stops = excluded.stops, position = excluded.position""")
    void put(LightRow row);

    @Delete("delete from light_setup where project_id = #{projectId} and id = #{id}")
    void delete(UUID projectId, UUID id);
}

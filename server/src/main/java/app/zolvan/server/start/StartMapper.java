package app.zolvan.server.start;

import java.util.UUID;
import org.apache.ibatis.annotations.Delete;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface StartMapper {
    @Select("select exists (select 1 from demo_loaded where project_id = #{project})")
    boolean isLoaded(UUID project);

    @Insert("insert into demo_loaded (project_id) values (#{project}) on conflict do nothing")
    void setLoaded(UUID project);

    @Delete("delete from command where project_id = #{project}")
    void forgetHistory(UUID project);
}

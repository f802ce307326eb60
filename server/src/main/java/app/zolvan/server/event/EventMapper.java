package app.zolvan.server.event;

import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface EventMapper {
    @Select("select pg_notify(#{channel}, #{payload})")
    Object announce(String channel, String payload);
}

package app.zolvan.server.library;

import java.util.Optional;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface ChipMapper {
    record Picture(byte[] png) {}

    @Select("select png from chip where key = #{key}")
    Optional<Picture> find(String key);

    @Insert("insert into chip (key, png) values (#{key}, #{png}) on conflict do nothing")
    void put(String key, byte[] png);
}

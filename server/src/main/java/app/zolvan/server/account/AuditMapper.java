package app.zolvan.server.account;

import java.time.Instant;
import java.util.List;
import org.apache.ibatis.annotations.Insert;
import org.apache.ibatis.annotations.Mapper;
import org.apache.ibatis.annotations.Select;

@Mapper
interface AuditMapper {

    /**
     * Something that was done.
     *
     * @param login   of whoever did it, or tried to
     * @param about   the account, project or library it was done to; empty for the account itself
     * @param address where the request came from; empty for the program itself
     */
    record Noted(long id, Instant at, String login, String what, String about, String address) {}

    @Insert("insert into audit (login, what, about, address) values (#{login}, #{what}, #{about}, #{address})")
    void insert(String login, String what, String about, String address);

    @Select(
            "select id, at, login, what, about, address from audit where id < #{before} order by id desc limit #{count}")
    List<Noted> before(long before, int count);
}

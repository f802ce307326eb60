package app.zolvan.server.config;

import java.sql.CallableStatement;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.UUID;
import org.apache.ibatis.type.BaseTypeHandler;
import org.apache.ibatis.type.JdbcType;
import org.apache.ibatis.type.MappedTypes;

/** Carries PostgreSQL's uuid. */
@MappedTypes(UUID.class)
public class UuidHandler extends BaseTypeHandler<UUID> {
    @Override
    public void setNonNullParameter(PreparedStatement s, int i, UUID value, JdbcType type) throws SQLException {
        s.setObject(i, value);
    }

    @Override
    public UUID getNullableResult(ResultSet rs, String column) throws SQLException {
        return rs.getObject(column, UUID.class);
    }

    @Override
    public UUID getNullableResult(ResultSet rs, int column) throws SQLException {
        return rs.getObject(column, UUID.class);
    }

    @Override
    public UUID getNullableResult(CallableStatement s, int column) throws SQLException {
        return s.getObject(column, UUID.class);
    }
}

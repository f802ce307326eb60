package app.zolvan.server.config;

import java.sql.Array;
import java.sql.CallableStatement;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.Arrays;
import java.util.UUID;
import org.apache.ibatis.type.BaseTypeHandler;
import org.apache.ibatis.type.JdbcType;
import org.apache.ibatis.type.MappedTypes;

/** Carry PostgreSQL's arrays of numbers, texts and uuids as Java arrays. */
public final class ArrayHandlers {
    private ArrayHandlers() {}

    /** A handler for one kind of array: how it goes in and how it comes out. */
    abstract static class OfArray<T> extends BaseTypeHandler<T> {
        private final String element;

        OfArray(String element) {
            this.element = element;
        }

        abstract Object[] boxed(T value);

        abstract T unboxed(Object[] values);

        @Override
        public void setNonNullParameter(PreparedStatement s, int i, T value, JdbcType type) throws SQLException {
            s.setArray(i, s.getConnection().createArrayOf(element, boxed(value)));
        }

        @Override
        public T getNullableResult(ResultSet rs, String column) throws SQLException {
            return read(rs.getArray(column));
        }

        @Override
        public T getNullableResult(ResultSet rs, int column) throws SQLException {
            return read(rs.getArray(column));
        }

        @Override
        public T getNullableResult(CallableStatement s, int column) throws SQLException {
            return read(s.getArray(column));
        }

        private T read(Array array) throws SQLException {
            return array == null ? null : unboxed((Object[]) array.getArray());
        }
    }

    @MappedTypes(double[].class)
    public static class Doubles extends OfArray<double[]> {
        public Doubles() {
            super("float8");
        }

        @Override
        Object[] boxed(double[] value) {
            return Arrays.stream(value).boxed().toArray();
        }

        @Override
        double[] unboxed(Object[] values) {
            return Arrays.stream(values).mapToDouble(v -> (Double) v).toArray();
        }
    }

    @MappedTypes(int[].class)
    public static class Ints extends OfArray<int[]> {
        public Ints() {
            super("int4");
        }

        @Override
        Object[] boxed(int[] value) {
            return Arrays.stream(value).boxed().toArray();
        }

        @Override
        int[] unboxed(Object[] values) {
            return Arrays.stream(values).mapToInt(v -> (Integer) v).toArray();
        }
    }

    @MappedTypes(String[].class)
    public static class Texts extends OfArray<String[]> {
        public Texts() {
            super("text");
        }

        @Override
        Object[] boxed(String[] value) {
            return value;
        }

        @Override
        String[] unboxed(Object[] values) {
            return Arrays.copyOf(values, values.length, String[].class);
        }
    }

    @MappedTypes(UUID[].class)
    public static class Uuids extends OfArray<UUID[]> {
        public Uuids() {
            super("uuid");
        }

        @Override
        Object[] boxed(UUID[] value) {
            return value;
        }

        @Override
        UUID[] unboxed(Object[] values) {
            return Arrays.copyOf(values, values.length, UUID[].class);
        }
    }
}

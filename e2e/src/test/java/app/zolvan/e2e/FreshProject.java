package app.zolvan.e2e;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;

/**
 * A demo project copied row by row, so that no walk meets what another one has done. Whatever a table refers to a project
 * by is copied; identities of the project and of its own rows become others throughout, also within stored commands.
 */
final class FreshProject {
    private static final String OWN_ROWS = """
            select table_name from information_schema.columns c join information_schema.tables t using (table_name)
            where c.table_schema = 'public' and t.table_schema = 'public' and column_name = 'project_id'
              and table_type = 'BASE TABLE' and table_name <> 'demo_loaded' order by table_name""";
    private static final String COLUMNS = """
            select string_agg(quote_ident(column_name), ', ') from information_schema.columns
            where table_schema = 'public' and table_name = ? and is_identity = 'NO' and is_generated = 'NEVER'""";

    private final Connection database;
    private final Map<String, List<String>> rows = new LinkedHashMap<>();

    private FreshProject(Connection database) {
        this.database = database;
    }

    /** @return the copy's identity */
    static UUID of(String name) {
        try (Connection database = DriverManager.getConnection(
                RunningZolvan.databaseUrl(), "zolvan", System.getenv("ZOLVAN_DB_PASSWORD"))) {
            database.setAutoCommit(false);
            UUID copy = new FreshProject(database).copied(name);
            database.commit();
            return copy;
        } catch (SQLException e) {
            throw new IllegalStateException(e);
        }
    }

    private UUID copied(String name) throws SQLException {
        UUID project = UUID.fromString(
                texts("select id::text from project join demo_loaded on project_id = id where name = ?", name)
                        .get(0));
        read("project", "id = ?", project);
        for (String table : texts(OWN_ROWS)) {
            read(table, "project_id = ?", project);
        }
        read("entry", "scheme_id in (select id from scheme where project_id = ?)", project);
        Map<String, String> others = new LinkedHashMap<>();
        others.put(project.toString(), UUID.randomUUID().toString());
        for (String table : List.of("scheme", "material", "saved_view", "note")) {
            for (String id : texts("select id::text from " + table + " where project_id = ?", project)) {
                others.put(id, UUID.randomUUID().toString());
            }
        }
        try (Statement s = database.createStatement()) {
            s.execute("set local session_replication_role = replica"); // rows come in any order
        }
        for (Map.Entry<String, List<String>> table : rows.entrySet()) {
            write(table.getKey(), table.getValue(), others);
        }
        return UUID.fromString(others.get(project.toString()));
    }

    private void read(String table, String which, UUID project) throws SQLException {
        rows.put(table, texts("select row_to_json(t)::text from " + table + " t where " + which, project));
    }

    private void write(String table, List<String> all, Map<String, String> others) throws SQLException {
        String columns = texts(COLUMNS, table).get(0);
        try (PreparedStatement insert = database.prepareStatement("insert into " + table + " (" + columns + ") select "
                + columns + " from json_populate_record(null::" + table + ", ?::json)")) {
            for (String row : all) {
                String copy = row;
                for (Map.Entry<String, String> id : others.entrySet()) {
                    copy = copy.replace(id.getKey(), id.getValue());
                }
                insert.setString(1, copy);
                insert.addBatch();
            }
            insert.executeBatch();
        }
    }

    private List<String> texts(String select, Object... values) throws SQLException {
        List<String> out = new ArrayList<>();
        try (PreparedStatement s = database.prepareStatement(select)) {
            for (int i = 0; i < values.length; i++) {
                s.setObject(i + 1, values[i]);
            }
            try (ResultSet r = s.executeQuery()) {
                while (r.next()) {
                    out.add(r.getString(1));
                }
            }
        }
        return out;
    }
}

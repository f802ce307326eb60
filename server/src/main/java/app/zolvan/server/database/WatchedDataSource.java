package app.zolvan.server.database;

import com.zaxxer.hikari.HikariDataSource;
import java.io.Closeable;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.concurrent.TimeUnit;
import org.springframework.jdbc.datasource.DelegatingDataSource;

/**
 * A pool that keeps nobody waiting for a database that does not answer: at once where that is known, else within the
 * watch's period. While the database is there, a request waits its turn for a connection as long as need be.
 */
public final class WatchedDataSource extends DelegatingDataSource implements Closeable {
    private static final long PATIENCE = TimeUnit.SECONDS.toNanos(30);

    private final HikariDataSource pool;
    private final DatabaseWatch watch;

    /** @param pool whose own time-out is short, so that the watch is asked now and then */
    WatchedDataSource(HikariDataSource pool, DatabaseWatch watch) {
        super(pool);
        this.pool = pool;
        this.watch = watch;
    }

    @Override
    public Connection getConnection() throws SQLException {
        long end = System.nanoTime() + PATIENCE;
        while (true) {
            if (!watch.isUp()) {
                throw new SQLTransientConnectionException("the database does not answer", "08001");
            }
            try {
                return pool.getConnection();
            } catch (SQLTransientConnectionException e) {
                if (System.nanoTime() > end) {
                    throw e;
                }
            }
        }
    }

    @Override
    public void close() {
        watch.close();
        pool.close();
    }
}

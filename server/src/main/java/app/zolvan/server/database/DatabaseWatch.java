package app.zolvan.server.database;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.util.Properties;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.TimeUnit;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/**
 * Knows whether the database answers, from a connection of its own that asks twice a second. Requests need not find out
 * each for itself, by waiting.
 */
public final class DatabaseWatch implements AutoCloseable {
    private static final Logger LOG = LoggerFactory.getLogger(DatabaseWatch.class);
    private static final int PERIOD_MS = 500;
    /** Seconds an answer may take. */
    private static final String PATIENCE = "1";

    private final String url;
    private final Properties properties = new Properties();
    private final CountDownLatch ended = new CountDownLatch(1);
    private final Thread thread = new Thread(this::watch, "database-watch");
    private volatile boolean up = true;

    DatabaseWatch(String url, String user, String password) {
        this.url = url;
        properties.setProperty("user", user);
        properties.setProperty("password", password);
        properties.setProperty("connectTimeout", PATIENCE);
        properties.setProperty("socketTimeout", PATIENCE);
        properties.setProperty("ApplicationName", "zolvan watch");
        thread.setDaemon(true);
    }

    void start() {
        thread.start();
    }

    /** True when the database answered the newest probe. */
    public boolean isUp() {
        return up;
    }

    private void watch() {
        boolean goesOn = true;
        while (goesOn) {
            try (Connection connection = DriverManager.getConnection(url, properties)) {
                while (goesOn && connection.isValid(1)) {
                    tell(true);
                    goesOn = pause();
                }
            } catch (SQLException e) {
                LOG.debug("the database does not answer", e);
            }
            if (goesOn) {
                tell(false);
                goesOn = pause();
            }
        }
    }

    private void tell(boolean now) {
        if (now != up) {
            LOG.warn(now ? "the database answers again" : "the database does not answer");
        }
        up = now;
    }

    /** False when it is time to end. */
    private boolean pause() {
        try {
            return !ended.await(PERIOD_MS, TimeUnit.MILLISECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    @Override
    public void close() {
        ended.countDown();
    }
}

package app.zolvan.server.database;

import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.transaction.TransactionSystemException;

/** Failures that lie with the database and pass: they say nothing about what was asked for. */
public final class Outage {
    /** SQLSTATE class 08, connection exception. */
    private static final String CONNECTION = "08";
    /** 57P01 to 57P03, the server is shutting down, has crashed or is starting. */
    private static final String SHUTDOWN = "57P";

    /** As the pool says of a connection that broke while it was lent. */
    private static final String CLOSED = "Connection is closed";

    private static final String DEADLOCK = "40P01";
    private static final String SERIALIZATION = "40001";
    /** Somebody else held a lock for longer than one may wait. */
    private static final String LOCKED = "55P03";

    private Outage() {}

    /** True for an error of a database that could not be reached, or went away during a statement. */
    public static boolean is(Throwable e) {
        if (e instanceof TransactionSystemException t
                && t.getApplicationException() != null
                && is(t.getApplicationException())) {
            return true; // what was wrong first: the rollback failed in its turn
        }
        SQLException sql = cause(e);
        if (sql == null) {
            return false;
        }
        String state = sql.getSQLState();
        return sql instanceof SQLTransientConnectionException
                || (state == null && CLOSED.equals(sql.getMessage()))
                || (state != null && (state.startsWith(CONNECTION) || state.startsWith(SHUTDOWN)));
    }

    /** True for a deadlock, a failed serialisation or a lock that did not come free, with this transaction as the victim. */
    public static boolean isClash(Throwable e) {
        SQLException sql = cause(e);
        return sql != null
                && sql.getSQLState() != null
                && Set.of(DEADLOCK, SERIALIZATION, LOCKED).contains(sql.getSQLState());
    }

    private static @Nullable SQLException cause(Throwable e) {
        int depth = 0;
        for (Throwable t = e; t != null && depth < 20; t = t.getCause(), depth++) {
            if (t instanceof SQLException sql) {
                return sql;
            }
        }
        return null;
    }
}

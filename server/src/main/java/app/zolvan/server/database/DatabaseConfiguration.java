package app.zolvan.server.database;

import com.zaxxer.hikari.HikariDataSource;
import org.springframework.boot.jdbc.autoconfigure.DataSourceProperties;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** The way to the database. */
@Configuration
class DatabaseConfiguration {
    private static final int CONNECTIONS = 12;
    /** Milliseconds until the pool says that it has nothing; who waits asks again. */
    private static final int TURN_MS = 500;

    /** Nothing holds a connection for ever: neither a lock that does not come free nor a transaction that nobody ends. */
    private static final String PATIENCE =
            "-c lock_timeout=30s -c idle_in_transaction_session_timeout=10min -c statement_timeout=10min";

    @Bean
    WatchedDataSource dataSource(DataSourceProperties properties) {
        HikariDataSource pool = properties
                .initializeDataSourceBuilder()
                .type(HikariDataSource.class)
                .build();
        pool.setMaximumPoolSize(CONNECTIONS);
        pool.setConnectionTimeout(TURN_MS);
        pool.setValidationTimeout(TURN_MS);
        pool.addDataSourceProperty("tcpKeepAlive", "true");
        pool.addDataSourceProperty("options", PATIENCE);
        DatabaseWatch watch = new DatabaseWatch(
                properties.determineUrl(), properties.determineUsername(), properties.determinePassword());
        watch.start();
        return new WatchedDataSource(pool, watch);
    }
}

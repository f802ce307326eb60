package app.zolvan.server.job;

import com.github.kagkarlsson.scheduler.Scheduler;
import com.zaxxer.hikari.HikariDataSource;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.boot.jdbc.autoconfigure.DataSourceProperties;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** The process's scheduler, from when everything else stands until the first thing ends. */
@Component
class JobConfiguration {
    /** One for polling, one for heartbeats, one for each of two jobs' outcomes. */
    private static final int CONNECTIONS = 4;

    private final JobService jobs;
    private final DataSourceProperties properties;
    private HikariDataSource connections;
    private Scheduler scheduler;

    JobConfiguration(JobService jobs, DataSourceProperties properties) {
        this.jobs = jobs;
        this.properties = properties;
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        connections = properties
                .initializeDataSourceBuilder()
                .type(HikariDataSource.class)
                .build();
        connections.setMaximumPoolSize(CONNECTIONS);
        connections.setMinimumIdle(1);
        scheduler = jobs.scheduler(connections);
        jobs.scheduleForgotten();
        scheduler.start();
    }

    @EventListener(ContextClosedEvent.class)
    void stop() {
        if (scheduler != null) {
            scheduler.stop();
            connections.close();
        }
    }
}

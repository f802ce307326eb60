package app.zolvan.server.job;

import com.github.kagkarlsson.scheduler.Scheduler;
import javax.sql.DataSource;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.event.EventListener;

@Configuration
class JobConfiguration {
    private final Scheduler[] scheduler = new Scheduler[1];

    @Bean(destroyMethod = "stop")
    Scheduler jobScheduler(JobService jobs, DataSource dataSource) {
        scheduler[0] = jobs.scheduler(dataSource);
        return scheduler[0];
    }

    /** Jobs start once everything else stands. */
    @EventListener(ApplicationReadyEvent.class)
    void start() {
        scheduler[0].start();
    }
}

package app.zolvan.server;

import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.boot.context.properties.ConfigurationPropertiesScan;

/** The application: HTTP, storage and jobs around the core. */
@SpringBootApplication
@ConfigurationPropertiesScan
public class ZolvanApplication {

    public static void main(String[] args) {
        SpringApplication.run(ZolvanApplication.class, args);
    }
}

package app.zolvan.server.config;

import java.nio.file.Path;
import java.time.Duration;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.util.unit.DataSize;

/**
 * What can be set from outside; defaults are in application.yaml.
 *
 * @param uploadLimit size of the largest file that is taken
 * @param demo        folder with the demo scenario to load at start, or null
 * @param supplier address of a supplier's catalogue, likewise
 * @param colourReader address of a colour reader, such as http://127.0.0.1:24000; empty where there is none
 */
@ConfigurationProperties("zolvan")
public record ZolvanProperties(
        DataSize uploadLimit,
        Duration sessionLifetime,
        SignIn signIn,
        Path demo,
        String colourReader,
        String supplier) {

    /**
     * @param tries how many wrong passwords in a row lock an account
     * @param pause how long it stays locked
     */
    public record SignIn(int tries, Duration pause) {}
}

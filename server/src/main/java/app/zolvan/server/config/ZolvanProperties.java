package app.zolvan.server.config;

import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.util.unit.DataSize;

/**
 * What can be set from outside; defaults are in application.yaml.
 *
 * @param uploadLimit size of the largest file that is taken
 * @param sessionLifetime  of a session that nobody uses
 * @param sessionLongest   of any session
 * @param library     folder where the shipped library is kept once it is drawn, or null
 * @param setUp       file with the word that proves who may make the first account, or null
 * @param hosts       names by which browsers may ask for Zolvan, besides this machine's own
 * @param demo        folder with the demo scenario to load at start, or null
 * @param supplier address of a supplier's catalogue, likewise
 * @param colourReader address of a colour reader, such as http://127.0.0.1:24000; empty where there is none
 */
@ConfigurationProperties("zolvan")
public record ZolvanProperties(
        DataSize uploadLimit,
        DataSize accountLimit,
        Requests requests,
        Duration sessionLifetime,
        Duration sessionLongest,
        SignIn signIn,
        Jobs jobs,
        Imports imports,
        Chips chips,
        Path demo,
        Path library,
        Path setUp,
        List<String> hosts,
        String colourReader,
        String supplier) {

    /**
     * How strangers' files are read.
     *
     * @param memory  heap of a process that reads one
     * @param longest that reading one may take
     * @param log     file for what such a process prints
     */
    public record Imports(DataSize memory, Duration longest, Path log) {}

    /**
     * Requests that one address may make.
     *
     * @param perSecond on and on
     * @param burst     at once after a pause
     */
    public record Requests(double perSecond, double burst) {}

    /** @param samples of each pixel of a traced chip; 0 for as many as make it good */
    public record Chips(int samples) {}

    /**
     * @param poll how often the database is asked for jobs that wait
     * @param most that an account may have waiting, running or asking
     */
    public record Jobs(Duration poll, int most) {}

    /**
     * @param tries    how many wrong passwords in a row lock an account
     * @param pause    how long it stays locked
     * @param strength of what passwords are kept as: bcrypt's cost
     */
    public record SignIn(int tries, Duration pause, int strength) {}
}

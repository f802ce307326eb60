package app.zolvan.bench.kill;

import app.zolvan.core.exchange.ImportException;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Proof by force: somebody edits through the API while the application or the database is killed with -9 at random moments.
 * Every acknowledged edit must be in the history, once and in order, and the last one in the scene; jobs that were taken go on.
 *
 * <p>Arguments: how often to kill, and a seed. Run by {@code ./zolvan bench kills [N] [SEED]}.
 */
public final class KillRun {
    private static final Pattern EDIT = Pattern.compile("Edit (\\d+)");
    private static final long JOBS_NS = 30_000_000_000L;
    /** Edits before each kill, at least: on a slow machine, too, there is something to lose. */
    public static final int EDITS_A_KILL = 5;

    /**
     * What came of a run.
     *
     * @param edits     acknowledged
     * @param lost      of these, not in the history
     * @param twice     in the history more than once
     * @param sentAgain edits whose first answer did not come
     * @param jobs      taken
     * @param stuck     jobs that were not where they should be 30 s after the last kill
     * @param shown     whether the scene shows the last edit
     * @param backAfterApplication seconds from the kill to the next acknowledged edit, sorted
     * @param backAfterDatabase    likewise
     */
    public record Outcome(
            int edits,
            int lost,
            int twice,
            int sentAgain,
            int jobs,
            List<String> stuck,
            boolean shown,
            List<Double> backAfterApplication,
            List<Double> backAfterDatabase) {

        private static String quantiles(List<Double> s) {
            return s.isEmpty()
                    ? "none"
                    : String.format(
                            "%d, back after %.1f s at best, %.1f s median, %.1f s p95, %.1f s at worst",
                            s.size(), s.get(0), s.get(s.size() / 2), s.get(s.size() * 95 / 100), s.get(s.size() - 1));
        }

        @Override
        public String toString() {
            return String.format(
                    "edits acknowledged %d, lost %d, done twice %d, sent again %d%njobs taken %d, stuck 30 s after the last kill %d %s%n"
                            + "the scene shows the last edit: %s%napplication killed: %s%ndatabase killed: %s",
                    edits,
                    lost,
                    twice,
                    sentAgain,
                    jobs,
                    stuck.size(),
                    stuck,
                    shown ? "yes" : "no",
                    quantiles(backAfterApplication),
                    quantiles(backAfterDatabase));
        }
    }

    private KillRun() {}

    public static void main(String[] args) throws Exception {
        int kills = args.length > 0 ? Integer.parseInt(args[0]) : 200;
        long seed = args.length > 1 ? Long.parseLong(args[1]) : 1;
        Path data = Files.createTempDirectory("zolvan-kills");
        Path app = args.length > 2 ? Path.of(args[2]) : null;
        System.out.println(run(Path.of("").toAbsolutePath(), data, app, kills, seed));
    }

    /**
     * @param root of the project
     * @param data an empty folder
     * @param app  folder with the unpacked application; null to build it
     */
    public static Outcome run(Path root, Path data, Path app, int kills, long seed)
            throws IOException, ImportException, InterruptedException, SQLException {
        Random random = new Random(seed);
        try (Launched zolvan = Launched.start(root, data, app)) {
            Editor editor = new Editor(zolvan.address());
            editor.begin(zolvan.setUpWord());
            List<Double> application = new ArrayList<>();
            List<Double> database = new ArrayList<>();
            for (int k = 0; k < kills; k++) {
                long until = System.nanoTime() + (long) (random.nextDouble() * 2e9);
                for (int e = 0; e < EDITS_A_KILL || System.nanoTime() < until; e++) {
                    editor.edit();
                }
                boolean ofApplication = random.nextBoolean();
                long[] killed = {0};
                int after = random.nextInt(60);
                Thread killer = new Thread(() -> killed[0] = kill(zolvan, ofApplication, after));
                killer.start();
                while (killer.isAlive()) { // in the middle of whatever is going on
                    editor.edit();
                }
                killer.join();
                long most = System.nanoTime() + JOBS_NS;
                while (editor.recovered() < killed[0] && System.nanoTime() < most) {
                    editor.edit();
                }
                (ofApplication ? application : database).add((editor.recovered() - killed[0]) / 1e9);
            }
            long end = System.nanoTime() + JOBS_NS;
            while (!editor.unfinished().isEmpty() && System.nanoTime() < end) {
                Thread.sleep(200);
            }
            return outcome(zolvan, editor, application, database);
        }
    }

    /** Kills, and says when that was. */
    private static long kill(Launched zolvan, boolean ofApplication, int afterMs) {
        try {
            Thread.sleep(afterMs);
            long pid = ofApplication ? zolvan.application() : zolvan.database();
            long now = System.nanoTime();
            new ProcessBuilder("kill", "-9", Long.toString(pid)).start().waitFor();
            return now;
        } catch (IOException e) {
            throw new IllegalStateException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    private static Outcome outcome(Launched zolvan, Editor editor, List<Double> application, List<Double> database)
            throws IOException, ImportException, SQLException {
        List<Integer> kept = new ArrayList<>();
        try (Connection c = DriverManager.getConnection(zolvan.databaseUrl(), "zolvan", zolvan.databasePassword());
                PreparedStatement s =
                        c.prepareStatement("select changes::text from command where project_id = ? order by id")) {
            s.setObject(1, editor.project());
            try (ResultSet r = s.executeQuery()) {
                while (r.next()) {
                    kept.add(lastNumber(r.getString(1)));
                }
            }
        }
        List<Integer> missing = new ArrayList<>(editor.acknowledged());
        missing.removeAll(kept);
        int twice = kept.size() - (int) kept.stream().distinct().count();
        Collections.sort(application);
        Collections.sort(database);
        int last = editor.acknowledged().get(editor.acknowledged().size() - 1);
        return new Outcome(
                editor.acknowledged().size(),
                missing.size(),
                twice,
                editor.sentAgain(),
                editor.jobs(),
                editor.unfinished(),
                editor.shown().equals("Edit " + last),
                application,
                database);
    }

    /** The number of the name that a stored rename gives: the later of the two in it. */
    private static int lastNumber(String changes) {
        int most = 0;
        Matcher m = EDIT.matcher(changes);
        while (m.find()) {
            most = Math.max(most, Integer.parseInt(m.group(1)));
        }
        return most;
    }
}

package app.zolvan.bench;

import app.zolvan.core.assign.Entry;
import app.zolvan.core.assign.Ladders;
import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.LookTrace;
import app.zolvan.core.assign.LookTrace.Aspect;
import app.zolvan.core.assign.Resolution;
import app.zolvan.core.assign.Scheme;
import app.zolvan.core.assign.Side;
import app.zolvan.core.assign.Slot;
import app.zolvan.core.assign.Target;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import org.openjdk.jmh.results.RunResult;
import org.openjdk.jmh.runner.Runner;
import org.openjdk.jmh.runner.RunnerException;
import org.openjdk.jmh.runner.options.OptionsBuilder;
import org.openjdk.jmh.runner.options.VerboseMode;

/**
 * Which look wins on each of 100,000 faces, by 50 entries over all levels in two schemes, for both sides, material and
 * mapping: with the ladders made anew, with ladders at hand, after one change, and face by face by the rule's plain wording
 * (the peer).
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 4, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class LookBenchmark {
    private static final int FACES = 100_000;
    private static final int PARTS = 5_000;
    private static final int GROUPS = 400;
    private static final int SETS = 40;
    private static final int ENTRIES = 50;

    private final List<List<Target>> model = new ArrayList<>();
    private Scheme scheme;
    private Ladders ladders;
    private Resolution standing;
    private boolean other;

    @Setup
    public void make() {
        Random random = new Random(8);
        int[] parent = new int[GROUPS];
        for (int g = 0; g < GROUPS; g++) {
            parent[g] = random.nextInt(g + 1) - 1;
        }
        for (int face = 0; face < FACES; face++) {
            int part = face * PARTS / FACES;
            List<Target> groups = new ArrayList<>();
            for (int g = part * GROUPS / PARTS; g >= 0; g = parent[g]) {
                groups.add(0, target(Level.GROUP, g));
            }
            List<Target> ladder = new ArrayList<>(List.of(target(Level.MODEL, 0), target(Level.SET, part % SETS)));
            ladder.addAll(groups);
            ladder.add(target(Level.PART, part));
            ladder.add(target(Level.FACE, face));
            model.add(ladder);
        }
        scheme = new Scheme("a", new Scheme("b", null, entries(random)), entries(random));
        ladders = Ladders.of(model);
        standing = Resolution.of(ladders, scheme);
    }

    private Map<Slot, Entry> entries(Random random) {
        Map<Slot, Entry> out = new HashMap<>();
        while (out.size() < ENTRIES / 2) {
            List<Target> ladder = model.get(random.nextInt(FACES));
            Slot slot = new Slot(ladder.get(random.nextInt(ladder.size())), Side.BOTH);
            out.put(slot, new Entry("m" + random.nextInt(20), null, false));
        }
        return out;
    }

    private static Target target(Level level, int index) {
        return new Target(level, String.valueOf(index));
    }

    /** Prints the figures as one line of JSON. */
    public static void main(String[] args) throws RunnerException {
        Collection<RunResult> results = new Runner(new OptionsBuilder()
                        .include(LookBenchmark.class.getName())
                        .verbosity(VerboseMode.SILENT)
                        .build())
                .run();
        System.out.println(results.stream()
                .map(r -> String.format(
                        Locale.ROOT,
                        "\"%s\": %.4f",
                        r.getPrimaryResult().getLabel(),
                        r.getPrimaryResult().getScore()))
                .collect(Collectors.joining(
                        ", ", "{\"faces\": " + FACES + ", \"entries\": " + ENTRIES + ", \"ms\": {", "}}")));
    }

    @Benchmark
    public Resolution laddersAndAll() {
        return Resolution.of(Ladders.of(model), scheme);
    }

    @Benchmark
    public Resolution all() {
        return Resolution.of(ladders, scheme);
    }

    @Benchmark
    public int[] changeOfAFace() {
        return change(target(Level.FACE, 77_777));
    }

    @Benchmark
    public int[] changeOfASet() {
        return change(target(Level.SET, 7));
    }

    @Benchmark
    public int[] changeOfTheModel() {
        return change(target(Level.MODEL, 0));
    }

    private int[] change(Target target) {
        other = !other;
        return standing.change(new Slot(target, Side.BOTH), Entry.ofMaterial(other ? "x" : "y"));
    }

    @Benchmark
    public int faceByFace() {
        int dressed = 0;
        for (List<Target> ladder : model) {
            for (Side side : List.of(Side.FRONT, Side.BACK)) {
                for (Aspect aspect : Aspect.values()) {
                    dressed += LookTrace.of(scheme, ladder, side, aspect).winner() < 0 ? 0 : 1;
                }
            }
        }
        return dressed;
    }
}

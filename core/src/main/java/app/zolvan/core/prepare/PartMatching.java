package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * Finds the parts of a model again in a newer file of it. Each pair of an older and a newer part has a score, the weighted
 * mean of how alike their shapes, places, names, groups and source materials are; names that say nothing weigh little,
 * since programs number them anew. Pairs are taken from the highest score down. A pair that scores too little, or hardly
 * more than another one of its parts would, is doubtful and is for the designer to decide.
 */
public final class PartMatching {
    /** From here on a pair is taken for the same part. */
    public static final double SURE = 0.65;
    /** Pairs below this are not told. */
    public static final double DOUBT = 0.5;

    private static final double SHAPE = 0.35;
    private static final double PLACE = 0.25;
    private static final double NAME = 0.22;
    private static final double NUMBERED_NAME = 0.1;
    private static final double PATH = 0.1;
    private static final double SOURCE = 0.08;
    /** A pair must score so much more than the next one of either of its parts. */
    private static final double MARGIN = 0.05;
    /** How far a part may have gone to count as near, as a share of the model's diagonal. */
    private static final double NEAR = 0.02;

    /** What became of a part. */
    public enum Fate {
        /** Shape and place are as they were. */
        SAME,
        /** The same part with another shape, or at another place. */
        CHANGED,
        /** Perhaps the same part. */
        DOUBTFUL,
        NEW
    }

    /**
     * @param newer index in the newer model
     * @param older index in the older one, or {@link Model#NONE}
     * @param score in [0, 1]
     */
    public record Match(int newer, int older, double score, Fate fate) {
        /** Whether the two are taken for one part unless a designer says otherwise. */
        public boolean isSure() {
            return fate == Fate.SAME || fate == Fate.CHANGED;
        }
    }

    /**
     * A model to be compared.
     *
     * @param names of its parts as they arrived, where designers have given them others
     */
    public record Version(Model model, List<String> names) {}

    /** What can be compared of a part. */
    private record Traits(
            ShapeSignature shape,
            Vec3 inGroup,
            String name,
            String given,
            Set<String> words,
            boolean numbered,
            int path,
            int sources) {}

    private record Pair(int newer, int older, double score) {}

    private final List<Traits> older;
    private final List<Traits> newer;
    private final double near;
    /** The different paths of groups and sets of source materials, and how much each has in common with each. */
    private final List<List<String>> paths = new ArrayList<>();

    private final List<Set<String>> sources = new ArrayList<>();
    private final double[][] commonOfPaths;
    private final double[][] commonOfSources;

    private PartMatching(Version older, Version newer) {
        this.older = traits(older);
        this.newer = traits(newer);
        commonOfPaths = common(paths.stream().<Set<String>>map(HashSet::new).toList());
        commonOfSources = common(sources);
        near = NEAR * Math.max(1e-9, older.model.bounds().size().length());
    }

    /** One match for each part of the newer model, in its order. Older parts in none of them are lost. */
    public static List<Match> of(Version older, Version newer) {
        return new PartMatching(older, newer).match();
    }

    private List<Traits> traits(Version version) {
        Model model = version.model;
        List<Traits> out = new ArrayList<>();
        Map<List<String>, Integer> numberOfPath = numbers(paths);
        Map<Set<String>, Integer> numberOfSources = numbers(sources);
        for (int p = 0; p < model.parts().size(); p++) {
            Model.Part part = model.parts().get(p);
            List<String> path = new ArrayList<>();
            for (int g = part.group();
                    g != Model.NONE;
                    g = model.groups().get(g).parent()) {
                path.add(model.groups().get(g).name());
            }
            Set<String> worn = new HashSet<>();
            part.sourceOfSpan()
                    .forEach(s -> worn.add(
                            s == Model.NONE ? "" : model.sources().get(s).name()));
            ShapeSignature shape = ShapeSignature.of(model.meshOf(part), model.partToWorld(part));
            Vec3 inGroup = model.groupToWorld(part.group()).inverse().point(shape.centre());
            String name = version.names.get(p);
            out.add(new Traits(
                    shape,
                    inGroup,
                    name,
                    part.name(),
                    words(name),
                    Names.saysNothing(name),
                    number(path, paths, numberOfPath),
                    number(worn, sources, numberOfSources)));
        }
        return out;
    }

    private static <T> Map<T, Integer> numbers(List<T> known) {
        Map<T, Integer> out = new HashMap<>();
        known.forEach(k -> out.put(k, out.size()));
        return out;
    }

    private static <T> int number(T one, List<T> known, Map<T, Integer> numbers) {
        return numbers.computeIfAbsent(one, k -> {
            known.add(k);
            return known.size() - 1;
        });
    }

    private static double[][] common(List<Set<String>> all) {
        double[][] out = new double[all.size()][all.size()];
        for (int i = 0; i < out.length; i++) {
            for (int j = 0; j < out.length; j++) {
                out[i][j] = common(all.get(i), all.get(j));
            }
        }
        return out;
    }

    private List<Match> match() {
        List<Pair> pairs = new ArrayList<>();
        for (int n = 0; n < newer.size(); n++) {
            for (int o = 0; o < older.size(); o++) {
                double score = score(older.get(o), newer.get(n));
                if (score >= DOUBT) {
                    pairs.add(new Pair(n, o, score));
                }
            }
        }
        pairs.sort(Comparator.comparingDouble(Pair::score)
                .reversed()
                .thenComparingInt(Pair::newer)
                .thenComparingInt(Pair::older));
        List<List<Pair>> ofNewer = new ArrayList<>();
        List<List<Pair>> ofOlder = new ArrayList<>();
        newer.forEach(n -> ofNewer.add(new ArrayList<>()));
        older.forEach(o -> ofOlder.add(new ArrayList<>()));
        for (Pair p : pairs) {
            ofNewer.get(p.newer).add(p);
            ofOlder.get(p.older).add(p);
        }
        Match[] of = new Match[newer.size()];
        boolean[] taken = new boolean[older.size()];
        for (Pair p : pairs) {
            if (of[p.newer] == null && !taken[p.older]) {
                double next =
                        Math.max(next(ofNewer.get(p.newer), p, of, taken), next(ofOlder.get(p.older), p, of, taken));
                boolean sure = p.score >= SURE && p.score - next >= MARGIN;
                Fate found = isSame(older.get(p.older), newer.get(p.newer)) ? Fate.SAME : Fate.CHANGED;
                of[p.newer] = new Match(p.newer, p.older, p.score, sure ? found : Fate.DOUBTFUL);
                taken[p.older] = true;
            }
        }
        for (int n = 0; n < of.length; n++) {
            of[n] = of[n] == null ? new Match(n, Model.NONE, 0, Fate.NEW) : of[n];
        }
        return Arrays.asList(of);
    }

    /** The score of the best other pair whose parts are both free. */
    private static double next(List<Pair> pairs, Pair besides, Match[] of, boolean[] taken) {
        for (Pair p : pairs) {
            if (!p.equals(besides) && of[p.newer] == null && !taken[p.older]) {
                return p.score;
            }
        }
        return 0;
    }

    private boolean isSame(Traits a, Traits b) {
        return a.shape.isLike(b.shape) && distance(a, b) < 0.01 * near;
    }

    /** From where it was in the world, or within its group where that itself has moved. */
    private static double distance(Traits a, Traits b) {
        double inWorld = distance(a.shape.centre(), b.shape.centre());
        return a.path == b.path ? Math.min(inWorld, distance(a.inGroup, b.inGroup)) : inWorld;
    }

    private static double distance(Vec3 a, Vec3 b) {
        double x = a.x() - b.x();
        double y = a.y() - b.y();
        double z = a.z() - b.z();
        return Math.sqrt(x * x + y * y + z * z);
    }

    /** Of most pairs the names need not be looked at. */
    private double score(Traits a, Traits b) {
        double away = distance(a, b) / near;
        double sum = SHAPE * shape(a.shape, b.shape)
                + PLACE * (away < 20 ? Math.exp(-away) : 0)
                + PATH * commonOfPaths[a.path][b.path]
                + SOURCE * commonOfSources[a.sources][b.sources];
        double nameWeight = a.numbered && b.numbered ? NUMBERED_NAME : NAME;
        double all = SHAPE + PLACE + nameWeight + PATH + SOURCE;
        if (sum + nameWeight < DOUBT * all) {
            return 0;
        }
        double name = a.name.equals(b.name) || a.given.equals(b.name) ? 1 : 0.6 * common(a.words, b.words);
        return (sum + nameWeight * name) / all;
    }

    private static double shape(ShapeSignature a, ShapeSignature b) {
        if (a.isLike(b)) {
            return 1;
        }
        double size = Math.max(1e-9, Math.max(a.most(), b.most()));
        double spread = Math.max(
                Math.abs(a.most() - b.most()),
                Math.max(Math.abs(a.middle() - b.middle()), Math.abs(a.least() - b.least())));
        double area = Math.abs(a.area() - b.area()) / Math.max(1e-12, Math.max(a.area(), b.area()));
        return 0.9 * Math.exp(-4 * Math.max(spread / size, area));
    }

    private static Set<String> words(String name) {
        Set<String> out =
                new HashSet<>(Arrays.asList(name.toLowerCase(Locale.ROOT).split("[^\\p{L}\\p{N}]+")));
        out.remove("");
        return out;
    }

    /** The share of what either has that both have. */
    private static double common(Set<String> a, Set<String> b) {
        int both = 0;
        for (String word : a) {
            both += b.contains(word) ? 1 : 0;
        }
        int all = a.size() + b.size() - both;
        return all == 0 ? 1 : (double) both / all;
    }
}

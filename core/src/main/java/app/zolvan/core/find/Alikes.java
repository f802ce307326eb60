package app.zolvan.core.find;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.measure.PatternMeasure;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;

/** Materials that nobody needs two of: hard to tell apart by colour, gloss, what shows through, pattern and reflection. */
public final class Alikes {
    /** Mean colours nearer than this, by ΔE2000, look alike unless they touch. */
    private static final double COLOUR = 2;
    /** As {@link app.zolvan.core.measure.Likeness} tells distances: what two finishes that look alike may differ by. */
    private static final double REFLECTION = 12;

    /** In GU. */
    private static final double GLOSS = 5;

    private static final double BUSYNESS = 0.15;
    private static final double SIZE = 0.1;

    private Alikes() {}

    /** Whether two materials look alike. */
    public static boolean areAlike(Sample a, Sample b) {
        return a.measure().finish() == b.measure().finish()
                && Math.abs(a.measure().gloss() - b.measure().gloss()) < GLOSS
                && a.measure().clarity() == b.measure().clarity()
                && CieLab.of(a.measure().mean())
                                .difference(CieLab.of(b.measure().mean()))
                        < COLOUR
                && patternsAreAlike(a.measure().pattern(), b.measure().pattern())
                && a.measure().look().distance(b.measure().look()) < REFLECTION;
    }

    private static boolean patternsAreAlike(PatternMeasure a, PatternMeasure b) {
        if (a == null || b == null) {
            return a == null && b == null;
        }
        return near(a.busyness(), b.busyness(), BUSYNESS, 0.1) && near(a.width(), b.width(), SIZE, 0.001);
    }

    private static boolean near(double a, double b, double share, double least) {
        return Math.abs(a - b) <= Math.max(least, share * Math.max(a, b));
    }

    /**
     * Materials in groups of those that look alike, each at least two; whoever looks like one of a group belongs to it. In the
     * order in which they come.
     */
    public static <T> List<List<T>> groups(Collection<T> all, Function<T, Sample> sample) {
        List<T> list = List.copyOf(all);
        int[] group = new int[list.size()];
        Arrays.setAll(group, i -> i);
        Map<Object, List<Integer>> near = new LinkedHashMap<>();
        for (int i = 0; i < list.size(); i++) {
            Sample s = sample.apply(list.get(i));
            near.computeIfAbsent(List.of(s.measure().finish(), s.measure().clarity()), k -> new ArrayList<>())
                    .add(i);
        }
        for (List<Integer> some : near.values()) {
            for (int i = 0; i < some.size(); i++) {
                for (int j = 0; j < i; j++) {
                    int a = some.get(i);
                    int b = some.get(j);
                    if (root(group, a) != root(group, b)
                            && areAlike(sample.apply(list.get(a)), sample.apply(list.get(b)))) {
                        group[root(group, a)] = root(group, b);
                    }
                }
            }
        }
        Map<Integer, List<T>> found = new LinkedHashMap<>();
        for (int i = 0; i < list.size(); i++) {
            found.computeIfAbsent(root(group, i), k -> new ArrayList<>()).add(list.get(i));
        }
        return found.values().stream().filter(g -> g.size() > 1).toList();
    }

    private static int root(int[] group, int i) {
        int at = i;
        while (group[at] != at) {
            at = group[at];
        }
        return at;
    }
}

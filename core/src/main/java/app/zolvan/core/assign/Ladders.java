package app.zolvan.core.assign;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * The targets that contain each region of a model, from broad to narrow. Regions whose ladders begin alike share that
 * beginning, so that a rule which goes down a ladder need not go down the same rungs again and again. A rung has a number;
 * those below it follow it directly. Immutable.
 */
public final class Ladders {
    static final int NONE = -1;

    private final List<Target> targets;
    private final Map<Target, Integer> numberOf = new HashMap<>();
    /** Of each rung. */
    final int[] target;

    final int[] above;
    /** One past the last rung below each. */
    final int[] end;
    /** The regions that end at each rung: {@code regions} from {@code firstRegion[rung]} to that of the next. */
    final int[] firstRegion;

    final int[] regions;
    /** Of each region. */
    final int[] rungOf;

    private final int[][] rungsOf;

    private Ladders(List<Target> targets, int[] target, int[] above, int[] end, int[] rungOf) {
        this.targets = targets;
        for (Target t : targets) {
            numberOf.put(t, numberOf.size());
        }
        this.target = target;
        this.above = above;
        this.end = end;
        this.rungOf = rungOf;
        firstRegion = new int[target.length + 1];
        for (int rung : rungOf) {
            firstRegion[rung + 1]++;
        }
        for (int i = 0; i < target.length; i++) {
            firstRegion[i + 1] += firstRegion[i];
        }
        regions = new int[rungOf.length];
        int[] next = firstRegion.clone();
        for (int r = 0; r < rungOf.length; r++) {
            regions[next[rungOf[r]]++] = r;
        }
        int[] count = new int[targets.size()];
        for (int t : target) {
            count[t]++;
        }
        rungsOf = new int[targets.size()][];
        Arrays.setAll(rungsOf, t -> new int[count[t]]);
        for (int i = target.length - 1; i >= 0; i--) {
            rungsOf[target[i]][--count[target[i]]] = i;
        }
    }

    /** @param ladders of each region, never empty */
    public static Ladders of(List<List<Target>> ladders) {
        Map<Target, Integer> numbers = new HashMap<>();
        List<Target> targets = new ArrayList<>();
        Map<Long, Integer> rungs = new HashMap<>();
        List<int[]> made = new ArrayList<>(); // target and rung above
        int[] last = new int[ladders.size()];
        for (int r = 0; r < last.length; r++) {
            int at = NONE;
            for (Target t : ladders.get(r)) {
                int number = numbers.computeIfAbsent(t, k -> {
                    targets.add(k);
                    return targets.size() - 1;
                });
                int above = at;
                at = rungs.computeIfAbsent(((long) above << 32) | number, k -> {
                    made.add(new int[] {number, above});
                    return made.size() - 1;
                });
            }
            last[r] = at;
        }
        return numbered(targets, made, last);
    }

    /** Gives rungs new numbers, so that all below one follow it. */
    private static Ladders numbered(List<Target> targets, List<int[]> made, int[] last) {
        int n = made.size();
        int[] size = new int[n]; // with all below; those below were made later
        Arrays.fill(size, 1);
        for (int i = n - 1; i >= 0; i--) {
            if (made.get(i)[1] != NONE) {
                size[made.get(i)[1]] += size[i];
            }
        }
        int[] number = new int[n];
        int[] free = new int[n]; // the number that the next rung below gets
        int[] target = new int[n];
        int[] above = new int[n];
        int[] end = new int[n];
        int atTop = 0;
        for (int i = 0; i < n; i++) {
            int up = made.get(i)[1];
            int mine;
            if (up == NONE) {
                mine = atTop;
                atTop += size[i];
            } else {
                mine = free[up];
                free[up] += size[i];
            }
            number[i] = mine;
            free[i] = mine + 1;
            target[mine] = made.get(i)[0];
            above[mine] = up == NONE ? NONE : number[up];
            end[mine] = mine + size[i];
        }
        return new Ladders(
                List.copyOf(targets),
                target,
                above,
                end,
                Arrays.stream(last).map(i -> number[i]).toArray());
    }

    public int regionCount() {
        return rungOf.length;
    }

    /** How many targets hold a region. */
    int targetCount() {
        return targets.size();
    }

    Target targetOf(int number) {
        return targets.get(number);
    }

    /** The number of a target; {@link #NONE} where it holds no region. */
    int numberOf(Target t) {
        return numberOf.getOrDefault(t, NONE);
    }

    /** Where a target stands in ladders, ascending. */
    int[] rungsOf(int number) {
        return rungsOf[number];
    }
}

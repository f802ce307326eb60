package app.zolvan.core.assign;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Where two schemes of one model look different: regions that go from the same look to the same other one stand together,
 * those that cover most first.
 */
public final class SchemeDifferences {
    private SchemeDifferences() {}

    /**
     * @param <L>     what tells looks apart
     * @param regions indices into the lists that were compared, ascending
     */
    public record Difference<L>(L from, L to, List<Integer> regions, double area) {}

    private record Step<L>(L from, L to) {}

    /**
     * @param from  the look of each region in one scheme, none of them null
     * @param to    likewise in the other
     * @param areas of each region, m²
     */
    public static <L> List<Difference<L>> of(List<L> from, List<L> to, double[] areas) {
        Map<Step<L>, List<Integer>> steps = new LinkedHashMap<>();
        for (int r = 0; r < areas.length; r++) {
            if (!from.get(r).equals(to.get(r))) {
                steps.computeIfAbsent(new Step<>(from.get(r), to.get(r)), s -> new ArrayList<>())
                        .add(r);
            }
        }
        List<Difference<L>> out = new ArrayList<>();
        steps.forEach((step, regions) -> out.add(new Difference<>(
                step.from,
                step.to,
                List.copyOf(regions),
                regions.stream().mapToDouble(r -> areas[r]).sum())));
        out.sort((a, b) -> Double.compare(b.area, a.area));
        return out;
    }
}

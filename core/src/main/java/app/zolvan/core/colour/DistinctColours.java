package app.zolvan.core.colour;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Colours that are easy to tell apart, for things that have none of their own: each is, of many candidates, the one
 * farthest by ΔE2000 from all before it. The order is fixed, so the first ones differ most.
 */
public final class DistinctColours {
    /** So many there are; after them they begin anew. */
    public static final int COUNT = 48;

    private static final double[] LIGHTNESSES = {0.45, 0.58, 0.7, 0.8, 0.9};
    private static final double[] CHROMAS = {0.04, 0.08, 0.12};
    private static final int HUES = 24;
    private static final List<LinearRgb> ALL = choose();

    private DistinctColours() {}

    /** @param index from 0 */
    public static LinearRgb get(int index) {
        return ALL.get(index % COUNT);
    }

    private static List<LinearRgb> choose() {
        List<LinearRgb> candidates = new ArrayList<>();
        for (double l : LIGHTNESSES) {
            for (double c : CHROMAS) {
                for (int h = 0; h < HUES; h++) {
                    OkLch colour = new OkLch(l, c, 360.0 * h / HUES);
                    if (c <= colour.chromaLimit()) {
                        candidates.add(colour.toLinear().clamped());
                    }
                }
            }
        }
        List<CieLab> labs = candidates.stream().map(CieLab::of).toList();
        double[] nearest = new double[candidates.size()];
        Arrays.fill(nearest, Double.POSITIVE_INFINITY);
        List<LinearRgb> out = new ArrayList<>();
        int next = candidates.size() / 2;
        while (out.size() < COUNT) {
            out.add(candidates.get(next));
            CieLab taken = labs.get(next);
            next = 0;
            for (int i = 0; i < nearest.length; i++) {
                nearest[i] = Math.min(nearest[i], labs.get(i).difference(taken));
                next = nearest[i] > nearest[next] ? i : next;
            }
        }
        return List.copyOf(out);
    }
}

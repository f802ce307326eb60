package app.zolvan.core.prepare;

import app.zolvan.core.model.Model;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;

/** The broadest groups that divide a model: those of the first level, from the outside, on which there is more than one. */
public final class Divisions {
    private Divisions() {}

    /**
     * In which division each group lies.
     *
     * @param parents of each group, or {@link Model#NONE}; a parent stands before what it holds
     * @param aside   groups that are none of the design, with all that is in them
     * @return by group; {@link Model#NONE} for those around the divisions, and where nothing divides the model
     */
    public static int[] of(List<Integer> parents, Set<Integer> aside) {
        List<Integer> level = within(parents, Model.NONE, aside);
        while (level.size() == 1) {
            level = within(parents, level.get(0), aside);
        }
        Set<Integer> divisions = new HashSet<>(level);
        int[] out = new int[parents.size()];
        for (int g = 0; g < out.length; g++) {
            int parent = parents.get(g);
            out[g] = divisions.contains(g) ? g : parent == Model.NONE ? Model.NONE : out[parent];
        }
        return out;
    }

    private static List<Integer> within(List<Integer> parents, int group, Set<Integer> aside) {
        return IntStream.range(0, parents.size())
                .filter(g -> parents.get(g) == group && !aside.contains(g))
                .boxed()
                .toList();
    }
}

package app.zolvan.core.prepare;

import app.zolvan.core.model.Model;
import java.util.HashMap;
import java.util.Map;
import java.util.TreeMap;

/**
 * How much of a model's surface each source has, or each matching set in a model whose spans name their sets.
 *
 * @param parts how many parts have some of it
 * @param area  m², all triangles counted once
 * @param share of the whole model's area, in [0, 1]
 */
public record Coverage(int parts, double area, double share) {

    /** By what the spans name. */
    public static Map<Integer, Coverage> of(Model model) {
        Map<Integer, Double> areas = new TreeMap<>();
        Map<Integer, Integer> lastPart = new HashMap<>();
        Map<Integer, Integer> parts = new HashMap<>();
        double all = 0;
        for (int p = 0; p < model.parts().size(); p++) {
            Model.Part part = model.parts().get(p);
            for (int s = 0; s < part.sourceOfSpan().size(); s++) {
                int source = part.sourceOfSpan().get(s);
                double area = area(model, p, s);
                all += area;
                areas.merge(source, area, Double::sum);
                Integer before = lastPart.put(source, p);
                if (before == null || before != p) {
                    parts.merge(source, 1, Integer::sum);
                }
            }
        }
        double whole = all;
        Map<Integer, Coverage> out = new TreeMap<>();
        areas.forEach(
                (source, area) -> out.put(source, new Coverage(parts.get(source), area, whole > 0 ? area / whole : 0)));
        return out;
    }

    /** The area of one span of a part in the world, m². */
    public static double area(Model model, int part, int span) {
        Model.Part p = model.parts().get(part);
        int[] starts = model.meshOf(p).spanStarts();
        return model.meshOf(p).area(starts[span], starts[span + 1], model.partToWorld(p));
    }
}

package app.zolvan.core.prepare;

import app.zolvan.core.colour.DistinctColours;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Colours by which the parts of a model can be told apart on the stage while nothing else tells them apart. They are not
 * looks. What has most area gets the colours that differ most.
 */
public final class PlainColours {
    private PlainColours() {}

    /** One colour a matching set, in a model whose spans name their sets; a part takes its first span's. */
    public static List<LinearRgb> bySet(Model model) {
        List<Integer> firsts =
                model.parts().stream().map(p -> p.sourceOfSpan().get(0)).toList();
        return colours(model, firsts);
    }

    /** One colour a shape, wherever it stands. */
    public static List<LinearRgb> byShape(Model model) {
        List<ShapeSignature> known = new ArrayList<>();
        List<Integer> shapes = new ArrayList<>();
        Map<Integer, Integer> shapeOfMesh = new HashMap<>();
        for (Model.Part p : model.parts()) {
            shapes.add(shapeOfMesh.computeIfAbsent(p.mesh(), m -> {
                ShapeSignature s = ShapeSignature.of(model.meshOf(p), model.partToWorld(p));
                int k = 0;
                while (k < known.size() && !known.get(k).isLike(s)) {
                    k++;
                }
                if (k == known.size()) {
                    known.add(s);
                }
                return k;
            }));
        }
        return colours(model, shapes);
    }

    private static List<LinearRgb> colours(Model model, List<Integer> kinds) {
        Map<Integer, Double> areas = new HashMap<>();
        for (int p = 0; p < kinds.size(); p++) {
            Model.Part part = model.parts().get(p);
            double area = 0;
            for (int s = 0; s < part.sourceOfSpan().size(); s++) {
                area += Coverage.area(model, p, s);
            }
            areas.merge(kinds.get(p), area, Double::sum);
        }
        List<Integer> order = areas.keySet().stream()
                .sorted(Comparator.comparingDouble((Integer k) -> -areas.get(k)).thenComparing(k -> k))
                .toList();
        Map<Integer, LinearRgb> colours = new HashMap<>();
        order.forEach(k -> colours.put(k, DistinctColours.get(colours.size())));
        return kinds.stream().map(colours::get).toList();
    }
}

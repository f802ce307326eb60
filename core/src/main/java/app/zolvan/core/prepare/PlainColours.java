package app.zolvan.core.prepare;

import app.zolvan.core.colour.DistinctColours;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.Drawing;
import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
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

    /**
     * A colour and a way of hatching, so that things are told apart without colour, too.
     *
     * @param hatch from 0, for none, to {@link Drawing#HATCHES} − 1
     */
    public record Mark(LinearRgb colour, int hatch) {}

    /**
     * Marks for things, those of most area first: of neighbours in that order neither colour nor hatch is the same.
     *
     * @param areas of each
     * @return in that order
     */
    public static <K extends Comparable<K>> Map<K, Mark> marks(Map<K, Double> areas) {
        Map<K, Mark> marks = new LinkedHashMap<>();
        for (K k : byArea(areas)) {
            marks.put(k, new Mark(DistinctColours.get(marks.size()), marks.size() % Drawing.HATCHES));
        }
        return marks;
    }

    private static <K extends Comparable<K>> List<K> byArea(Map<K, Double> areas) {
        return areas.keySet().stream()
                .sorted(Comparator.comparingDouble((K k) -> -areas.get(k)).thenComparing(Comparator.naturalOrder()))
                .toList();
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
        Map<Integer, LinearRgb> colours = new HashMap<>();
        byArea(areas).forEach(k -> colours.put(k, DistinctColours.get(colours.size())));
        return kinds.stream().map(colours::get).toList();
    }
}

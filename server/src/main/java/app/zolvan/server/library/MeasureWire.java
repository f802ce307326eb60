package app.zolvan.server.library;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.measure.MaterialMeasure;
import app.zolvan.core.measure.PatternMeasure;
import app.zolvan.server.colour.ColourWire;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What is measured of a material.
 *
 * @param colour  the mean of what it shows
 * @param tone    the everyday word for it
 * @param gloss   in GU at 60°, over its pictures
 * @param finish  the trade's word for that
 * @param clarity how much shows through
 * @param usedIn  names of the designer's projects that show it, or one made from it
 */
public record MeasureWire(
        ColourWire colour,
        String tone,
        double gloss,
        String finish,
        String clarity,
        @Nullable PatternWire pattern,
        List<String> usedIn) {
    /**
     * @param size           of one repeat, in metres
     * @param pixelsPerMetre of the coarsest picture
     * @param tiles          whether its edges meet without a seam
     * @param seams          how the steps across its edges rank, 0 … 1: left to right, top to bottom
     * @param word           for its busyness
     * @param detail         the size of detail that makes it so, in metres
     * @param sharpFrom      the narrowest view of a still that stays sharp, in metres
     * @param sharp          whether a still of the whole model does
     */
    public record PatternWire(
            List<Double> size,
            double pixelsPerMetre,
            boolean tiles,
            List<Double> seams,
            double busyness,
            String word,
            double detail,
            double sharpFrom,
            boolean sharp) {}

    /** How wide the stills are that sharpness is told for, in pixels. */
    private static final int STILL = 1920;

    public static MeasureWire of(MaterialMeasure m, Vec3 modelSize, List<String> usedIn) {
        PatternMeasure p = m.pattern();
        return new MeasureWire(
                ColourWire.of(m.mean()),
                m.tone().word(),
                m.gloss(),
                m.finish().word(),
                m.clarity().word(),
                p == null
                        ? null
                        : new PatternWire(
                                List.of(p.width(), p.height()),
                                p.pixelsPerMetre(),
                                p.tiles(),
                                List.of(p.seamU(), p.seamV()),
                                p.busyness(),
                                p.word(),
                                p.detail(),
                                p.sharpFrom(STILL),
                                p.isSharp(modelSize, STILL)),
                usedIn);
    }
}

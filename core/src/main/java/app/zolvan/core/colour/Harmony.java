package app.zolvan.core.colour;

import java.util.ArrayList;
import java.util.List;

/** Colours that go with one, by rules of the colour circle, which is OKLCh's here: equal lightness, turned hues. */
public enum Harmony {
    TONES("Tones of it"),
    NEIGHBOURS("Neighbours", -30, 30),
    OPPOSITE("Opposite", 180),
    SPLIT_OPPOSITE("Beside the opposite", 150, 210),
    TRIAD("Three apart", 120, 240),
    FOURFOLD("Four apart", 90, 180, 270);

    private static final double[] TONE_STEPS = {-0.3, -0.15, 0.12, 0.24};

    private final String label;
    private final double[] turns;

    Harmony(String label, double... turns) {
        this.label = label;
        this.turns = turns;
    }

    public String label() {
        return label;
    }

    /** The other colours, the nearest that sRGB can show; never the colour itself. */
    public List<LinearRgb> with(LinearRgb colour) {
        OkLch c = OkLch.of(colour);
        List<LinearRgb> others = new ArrayList<>();
        if (this == TONES) {
            for (double step : TONE_STEPS) {
                double l = Math.max(0.08, Math.min(0.98, c.lightness() + step));
                others.add(new OkLch(l, c.chroma(), c.hue()).toSrgbGamut());
            }
        }
        for (double turn : turns) {
            others.add(new OkLch(c.lightness(), c.chroma(), (c.hue() + turn + 360) % 360).toSrgbGamut());
        }
        return others;
    }
}

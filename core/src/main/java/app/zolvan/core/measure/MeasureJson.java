package app.zolvan.core.measure;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Map;

/** Measures as JSON, to six digits. */
public final class MeasureJson {
    private MeasureJson() {}

    public static Map<String, Object> write(MaterialMeasure m) {
        Map<String, Object> o = new LinkedHashMap<>();
        o.put("mean", rounded(m.mean().toArray()));
        o.put("gloss", rounded(m.gloss()));
        o.put("clarity", m.clarity().name());
        PatternMeasure p = m.pattern();
        if (p != null) {
            double[] all = {p.width(), p.height(), p.pixelsPerMetre(), p.seamU(), p.seamV(), p.busyness(), p.detail()};
            o.put("pattern", rounded(all));
        }
        o.put("look", rounded(m.look().toArray()));
        return o;
    }

    public static MaterialMeasure read(JsonValue o) throws ImportException {
        PatternMeasure pattern = null;
        if (o.has("pattern")) {
            double[] p = o.require("pattern").numbers();
            pattern = new PatternMeasure(p[0], p[1], p[2], p[3], p[4], p[5], p[6]);
        }
        return new MaterialMeasure(
                LinearRgb.of(o.require("mean").numbers()),
                o.require("gloss").number(),
                Clarity.valueOf(o.require("clarity").text()),
                pattern,
                Likeness.of(o.require("look").numbers()));
    }

    private static double[] rounded(double[] values) {
        return Arrays.stream(values).map(MeasureJson::rounded).toArray();
    }

    private static double rounded(double v) {
        return v == 0 || !Double.isFinite(v) ? 0 : Double.parseDouble(String.format(java.util.Locale.ROOT, "%.5e", v));
    }
}

package app.zolvan.bench;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.HueColour;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.OkLch;
import app.zolvan.core.colour.Srgb;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;

/** Takes every 8-bit sRGB colour, 16,777,216 of them, to each space and back, and counts those that come back changed. */
public final class ColourRoundTrips {
    private ColourRoundTrips() {}

    public static void main(String[] args) {
        Map<String, UnaryOperator<LinearRgb>> ways = new LinkedHashMap<>();
        ways.put("linear", c -> c);
        ways.put("CIELAB", c -> CieLab.of(c).toLinear());
        ways.put("CIELCh", c -> {
            CieLab lab = CieLab.of(c);
            return CieLab.ofLch(lab.l(), lab.chroma(), lab.hue()).toLinear();
        });
        ways.put("OKLab", c -> {
            OkLch o = OkLch.of(c);
            return OkLch.ofLab(o.lightness(), o.a(), o.b()).toLinear();
        });
        ways.put("OKLCh", c -> OkLch.of(c).toLinear());
        ways.put("HSV", c -> HueColour.hsv(c).fromHsv());
        ways.put("HSL", c -> HueColour.hsl(c).fromHsl());
        ways.forEach((name, way) -> {
            long start = System.nanoTime();
            long changed = IntStream.range(0, 1 << 24)
                    .parallel()
                    .filter(rgb -> {
                        LinearRgb c = Srgb.fromCodes(rgb >> 16, (rgb >> 8) & 255, rgb & 255);
                        int[] back = Srgb.toCodes(way.apply(c));
                        return ((back[0] << 16) | (back[1] << 8) | back[2]) != rgb;
                    })
                    .count();
            System.out.printf(
                    "{\"space\": \"%s\", \"colours\": %d, \"changed\": %d, \"seconds\": %.1f}%n",
                    name, 1 << 24, changed, (System.nanoTime() - start) / 1e9);
        });
    }
}

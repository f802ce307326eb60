package app.zolvan.server.colour;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.HueColour;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.OkLch;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.colour.ToneWord;
import app.zolvan.core.colour.Undertone;
import java.util.Arrays;
import java.util.List;

/**
 * One colour in every notation the interface shows.
 *
 * @param linear              scene-linear components
 * @param hex                 #RRGGBB
 * @param word                the everyday word for it
 * @param codes               0 … 255
 * @param lightness           OKLCh lightness, 0 … 100
 * @param chroma              OKLCh chroma × 100, 0 … about 32
 * @param hue                 degrees
 * @param chromaLimit         the strongest chroma that a screen shows at this lightness and hue
 * @param lightReflectanceValue 0 … 100
 * @param lab                 CIELAB L*, a*, b* under D65
 * @param hsv                 degrees and per cent
 * @param hsl                 degrees and per cent
 * @param undertone           which way it leans, in words
 * @param nearlyGrey          whether it is a tinted grey rather than a full colour
 */
public record ColourWire(
        List<Double> linear,
        String hex,
        String word,
        List<Integer> codes,
        double lightness,
        double chroma,
        double hue,
        double chromaLimit,
        double lightReflectanceValue,
        List<Double> lab,
        List<Double> hsv,
        List<Double> hsl,
        String undertone,
        boolean nearlyGrey) {

    public static ColourWire of(LinearRgb c) {
        return of(c, OkLch.of(c));
    }

    /** @param lch keeps hue and chroma as asked for where the colour itself is neutral or was limited */
    static ColourWire of(LinearRgb c, OkLch lch) {
        CieLab lab = CieLab.of(c);
        Undertone undertone = Undertone.of(c);
        return new ColourWire(
                List.of(c.r(), c.g(), c.b()),
                Srgb.toHex(c),
                ToneWord.of(lab).word(),
                Arrays.stream(Srgb.toCodes(c)).boxed().toList(),
                100 * lch.lightness(),
                100 * lch.chroma(),
                lch.hue(),
                100 * lch.chromaLimit(),
                c.lightReflectanceValue(),
                List.of(lab.l(), lab.a(), lab.b()),
                perCent(HueColour.hsv(c)),
                perCent(HueColour.hsl(c)),
                undertone.words(),
                undertone.strength() < Undertone.FULL);
    }

    private static List<Double> perCent(HueColour h) {
        return List.of(h.hue(), 100 * h.saturation(), 100 * h.level());
    }
}

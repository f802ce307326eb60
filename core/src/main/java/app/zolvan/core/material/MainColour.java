package app.zolvan.core.material;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Tone;
import java.util.function.Function;

/** Which parameter a designer means by "the colour" of a surface, and what it shows. */
public final class MainColour {
    private MainColour() {}

    /** What passes through for a clear body, the glow for a lamp that reflects nothing, else the base. */
    public static Parameter of(Surface s) {
        if (s.number(Parameter.TRANSMISSION_WEIGHT) >= 0.5) {
            return Parameter.TRANSMISSION_COLOR;
        }
        boolean dark = s.colour(Parameter.BASE_COLOR).luminance() == 0;
        return dark && s.number(Parameter.EMISSION_LUMINANCE) > 0 ? Parameter.EMISSION_COLOR : Parameter.BASE_COLOR;
    }

    /**
     * The colour that is seen from afar: of a picture, the mean of what it shows.
     *
     * @param means gives the mean of a picture's linear colours by its digest
     */
    public static LinearRgb seen(Surface s, Function<String, LinearRgb> means) {
        Parameter main = of(s);
        TextureUse picture = s.textures().get(main);
        if (picture == null) {
            return s.colour(main);
        }
        return under(picture, s.colour(main), means.apply(picture.image()));
    }

    /** The mean of a colour times a picture, whose own mean is given. */
    public static LinearRgb under(TextureUse picture, LinearRgb colour, LinearRgb mean) {
        Tone tone = picture.tone();
        return colour.times(tone == null ? mean : tone.of(mean).clamped());
    }

    /** The surface with another colour; a picture becomes shades of it, with the contrast that it had. */
    public static Surface with(Surface s, LinearRgb colour, Function<String, LinearRgb> means) {
        Parameter main = of(s);
        TextureUse picture = s.textures().get(main);
        if (picture == null) {
            return s.with(main, colour.toArray());
        }
        Tone before = picture.tone() == null ? Tone.plain(means.apply(picture.image())) : picture.tone();
        return s.with(main, LinearRgb.WHITE.toArray()).withTexture(main, picture.toned(before.stained(colour)));
    }
}

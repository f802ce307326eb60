package app.zolvan.core.adjust;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import java.util.ArrayList;
import java.util.List;

/** What looks odd about a surface, a sentence each. Nothing is forbidden: odd may be wanted. */
public final class Remarks {
    /** As much as the whitest paint reflects, and as little as the blackest but soot. */
    private static final double WHITEST = 0.92;

    private static final double BLACKEST = 0.01;
    private static final double DIAMOND = 2.42;

    private Remarks() {}

    public static List<String> of(Surface s) {
        List<String> said = new ArrayList<>();
        double metal = s.number(Parameter.BASE_METALNESS);
        double clear = s.number(Parameter.TRANSMISSION_WEIGHT);
        boolean textured = s.textures().containsKey(Parameter.BASE_METALNESS);
        if (metal > 0.02 && metal < 0.98 && !textured) {
            said.add("Metalness between 0 and 1 is no real substance. Set it to one of them.");
        }
        if (metal > 0.5) {
            ofMetal(s, said);
        }
        if (metal > 0.5 && clear > 0) {
            said.add("Metal lets no light through, so being clear has hardly any effect.");
        }
        ofBody(s, metal, clear, said);
        ofIndex(s, clear, said);
        ofAge(s, said);
        if (clear > 0.5 && s.number(Parameter.GEOMETRY_OPACITY) < 1) {
            said.add("Glass that is only partly there loses its reflections, too. Leave opacity at 1.");
        }
        if (s.flag(Parameter.GEOMETRY_THIN_WALLED) && clear > 0 && s.number(Parameter.TRANSMISSION_DEPTH) > 0) {
            said.add("A thin pane has no depth, so its colour shows at once and the colour depth does nothing.");
        }
        if (s.number(Parameter.FUZZ_WEIGHT) > 0.3 && (clear > 0.5 || metal > 0.5)) {
            said.add("Fuzz belongs on cloth and dust; here it looks like haze.");
        }
        if (s.number(Parameter.EMISSION_LUMINANCE) > 100_000) {
            said.add("Brighter than 100,000 nits is a bare filament or the sun.");
        }
        return said;
    }

    private static void ofMetal(Surface s, List<String> said) {
        if (s.number(Parameter.SPECULAR_WEIGHT) < 0.5) {
            said.add("Metal shows by its reflection alone; turned down it goes black.");
        }
        if (s.flag(Parameter.GENERALIZED_SCHLICK) && isEven(s)) {
            said.add("Metal that reflects the same at every angle looks flat at its edges.");
        }
        if (s.number(Parameter.COAT_WEIGHT) < 0.5
                && s.colour(Parameter.BASE_COLOR).luminance() < 0.15) {
            said.add("No clean metal is so dark. A dark metal is a patina, an oxide or a paint.");
        }
    }

    private static void ofAge(Surface s, List<String> said) {
        if (s.number(Parameter.AGE_WEATHERING) > 0 && Ageing.isNoble(s)) {
            said.add("Gold and platinum don’t corrode: weathering changes nothing here.");
        }
    }

    private static boolean isEven(Surface s) {
        LinearRgb facing = s.colour(Parameter.SCHLICK_COLOR0);
        LinearRgb edge = s.colour(Parameter.SCHLICK_COLOR90);
        return edge.luminance() - facing.luminance() < 0.05;
    }

    private static void ofBody(Surface s, double metal, double clear, List<String> said) {
        if (metal > 0.5 || clear > 0.5 || s.textures().containsKey(Parameter.BASE_COLOR)) {
            return;
        }
        double back =
                s.number(Parameter.BASE_WEIGHT) * s.colour(Parameter.BASE_COLOR).luminance();
        if (back > WHITEST) {
            said.add("Nothing real is whiter than LRV 92; snow and chalk are about 90. Rooms turn out washed out.");
        } else if (back < BLACKEST && s.number(Parameter.EMISSION_LUMINANCE) == 0) {
            said.add("Few things are blacker than LRV 1; black paint is about 4. Shapes drown in it.");
        }
    }

    private static void ofIndex(Surface s, double clear, List<String> said) {
        double n = s.number(Parameter.SPECULAR_IOR);
        if (clear > 0 && n < 1.01) {
            said.add("At an index of 1 a clear body neither bends nor reflects: it vanishes.");
        } else if (n < 1.2) {
            said.add("No solid or liquid has an index below 1.3.");
        } else if (n > DIAMOND) {
            said.add("An index above diamond's, 2.42, belongs to hardly anything one can build with.");
        }
        double coat = s.number(Parameter.COAT_WEIGHT);
        if (coat > 0 && s.number(Parameter.COAT_IOR) < 1.05) {
            said.add("A coat with an index of 1 is air: it doesn’t show.");
        }
    }
}

package app.zolvan.core.adjust;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.snag.Certainty;
import app.zolvan.core.snag.Fix;
import app.zolvan.core.snag.Snag;
import app.zolvan.core.snag.SnagKind;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** What looks odd about a surface. Nothing is forbidden: odd may be wanted. */
public final class Remarks {
    /** As much as the whitest paint reflects, and as little as the blackest but soot. */
    private static final double WHITEST = 0.92;

    private static final double BLACKEST = 0.01;
    private static final double DIAMOND = 2.42;

    private Remarks() {}

    /** What can be odd about a surface. */
    public enum Kind implements SnagKind {
        METALNESS_BETWEEN(Certainty.LIKELY),
        CLEAR_METAL(Certainty.CERTAIN),
        FAINT_GLASS(Certainty.LIKELY),
        DEPTH_OF_PANE(Certainty.CERTAIN),
        FUZZ(Certainty.LIKELY),
        GLARING(Certainty.PERHAPS),
        BLACK_METAL(Certainty.LIKELY),
        FLAT_METAL(Certainty.LIKELY),
        DARK_METAL(Certainty.PERHAPS),
        NOBLE(Certainty.CERTAIN),
        TOO_WHITE(Certainty.LIKELY),
        TOO_BLACK(Certainty.LIKELY),
        VANISHING(Certainty.CERTAIN),
        INDEX_TOO_LOW(Certainty.LIKELY),
        INDEX_TOO_HIGH(Certainty.LIKELY),
        COAT_OF_AIR(Certainty.CERTAIN);

        private final Certainty certainty;

        Kind(Certainty certainty) {
            this.certainty = certainty;
        }

        @Override
        public String why() {
            return "";
        }

        @Override
        public Certainty certainty() {
            return certainty;
        }
    }

    private static Fix set(String label, Parameter parameter, double value) {
        return new Fix.OfMaterial(label, Map.of(parameter, value));
    }

    public static List<Snag> of(Surface s) {
        List<Snag> said = new ArrayList<>();
        double metal = s.number(Parameter.BASE_METALNESS);
        double clear = s.number(Parameter.TRANSMISSION_WEIGHT);
        boolean textured = s.textures().containsKey(Parameter.BASE_METALNESS);
        if (metal > 0.02 && metal < 0.98 && !textured) {
            said.add(Snag.ofMaterial(
                    Kind.METALNESS_BETWEEN,
                    Parameter.BASE_METALNESS,
                    "Metalness between 0 and 1 is no real substance. Set it to one of them.",
                    null));
        }
        if (metal > 0.5) {
            ofMetal(s, said);
        }
        if (metal > 0.5 && clear > 0) {
            said.add(Snag.ofMaterial(
                    Kind.CLEAR_METAL,
                    Parameter.TRANSMISSION_WEIGHT,
                    "Metal lets no light through, so being clear has hardly any effect.",
                    set("Make it opaque", Parameter.TRANSMISSION_WEIGHT, 0)));
        }
        ofBody(s, metal, clear, said);
        ofIndex(s, clear, said);
        ofAge(s, said);
        if (clear > 0.5 && s.number(Parameter.GEOMETRY_OPACITY) < 1) {
            said.add(Snag.ofMaterial(
                    Kind.FAINT_GLASS,
                    Parameter.GEOMETRY_OPACITY,
                    "Glass that is only partly there loses its reflections, too. Leave opacity at 1.",
                    set("Set opacity to 1", Parameter.GEOMETRY_OPACITY, 1)));
        }
        if (s.flag(Parameter.GEOMETRY_THIN_WALLED) && clear > 0 && s.number(Parameter.TRANSMISSION_DEPTH) > 0) {
            said.add(Snag.ofMaterial(
                    Kind.DEPTH_OF_PANE,
                    Parameter.TRANSMISSION_DEPTH,
                    "A thin pane has no depth, so its colour shows at once and the colour depth does nothing.",
                    set("Take the colour depth away", Parameter.TRANSMISSION_DEPTH, 0)));
        }
        if (s.number(Parameter.FUZZ_WEIGHT) > 0.3 && (clear > 0.5 || metal > 0.5)) {
            said.add(Snag.ofMaterial(
                    Kind.FUZZ,
                    Parameter.FUZZ_WEIGHT,
                    "Fuzz belongs on cloth and dust; here it looks like haze.",
                    set("Take the fuzz away", Parameter.FUZZ_WEIGHT, 0)));
        }
        if (s.number(Parameter.EMISSION_LUMINANCE) > 100_000) {
            said.add(Snag.ofMaterial(
                    Kind.GLARING,
                    Parameter.EMISSION_LUMINANCE,
                    "Brighter than 100,000 nits is a bare filament or the sun.",
                    null));
        }
        return said;
    }

    private static void ofMetal(Surface s, List<Snag> said) {
        if (s.number(Parameter.SPECULAR_WEIGHT) < 0.5) {
            said.add(Snag.ofMaterial(
                    Kind.BLACK_METAL,
                    Parameter.SPECULAR_WEIGHT,
                    "Metal shows by its reflection alone; turned down it goes black.",
                    set("Reflect fully", Parameter.SPECULAR_WEIGHT, 1)));
        }
        if (s.flag(Parameter.GENERALIZED_SCHLICK) && isEven(s)) {
            said.add(Snag.ofMaterial(
                    Kind.FLAT_METAL,
                    Parameter.GENERALIZED_SCHLICK,
                    "Metal that reflects the same at every angle looks flat at its edges.",
                    null));
        }
        if (s.number(Parameter.COAT_WEIGHT) < 0.5
                && s.colour(Parameter.BASE_COLOR).luminance() < 0.15) {
            said.add(Snag.ofMaterial(
                    Kind.DARK_METAL,
                    Parameter.BASE_COLOR,
                    "No clean metal is so dark. A dark metal is a patina, an oxide or a paint.",
                    null));
        }
    }

    private static void ofAge(Surface s, List<Snag> said) {
        if (s.number(Parameter.AGE_WEATHERING) > 0 && Ageing.isNoble(s)) {
            said.add(Snag.ofMaterial(
                    Kind.NOBLE,
                    Parameter.AGE_WEATHERING,
                    "Gold and platinum don’t corrode: weathering changes nothing here.",
                    set("Take the weathering away", Parameter.AGE_WEATHERING, 0)));
        }
    }

    private static boolean isEven(Surface s) {
        LinearRgb facing = s.colour(Parameter.SCHLICK_COLOR0);
        LinearRgb edge = s.colour(Parameter.SCHLICK_COLOR90);
        return edge.luminance() - facing.luminance() < 0.05;
    }

    private static void ofBody(Surface s, double metal, double clear, List<Snag> said) {
        if (metal > 0.5 || clear > 0.5 || s.textures().containsKey(Parameter.BASE_COLOR)) {
            return;
        }
        double back =
                s.number(Parameter.BASE_WEIGHT) * s.colour(Parameter.BASE_COLOR).luminance();
        if (back > WHITEST) {
            said.add(Snag.ofMaterial(
                    Kind.TOO_WHITE,
                    Parameter.BASE_COLOR,
                    "Nothing real is whiter than LRV 92; snow and chalk are about 90. Rooms turn out washed out.",
                    null));
        } else if (back < BLACKEST && s.number(Parameter.EMISSION_LUMINANCE) == 0) {
            said.add(Snag.ofMaterial(
                    Kind.TOO_BLACK,
                    Parameter.BASE_COLOR,
                    "Few things are blacker than LRV 1; black paint is about 4. Shapes drown in it.",
                    null));
        }
    }

    private static void ofIndex(Surface s, double clear, List<Snag> said) {
        double n = s.number(Parameter.SPECULAR_IOR);
        if (clear > 0 && n < 1.01) {
            said.add(Snag.ofMaterial(
                    Kind.VANISHING,
                    Parameter.SPECULAR_IOR,
                    "At an index of 1 a clear body neither bends nor reflects: it vanishes.",
                    set("Set the index to 1.5", Parameter.SPECULAR_IOR, 1.5)));
        } else if (n < 1.2) {
            said.add(Snag.ofMaterial(
                    Kind.INDEX_TOO_LOW, Parameter.SPECULAR_IOR, "No solid or liquid has an index below 1.3.", null));
        } else if (n > DIAMOND) {
            said.add(Snag.ofMaterial(
                    Kind.INDEX_TOO_HIGH,
                    Parameter.SPECULAR_IOR,
                    "An index above diamond's, 2.42, belongs to hardly anything one can build with.",
                    null));
        }
        double coat = s.number(Parameter.COAT_WEIGHT);
        if (coat > 0 && s.number(Parameter.COAT_IOR) < 1.05) {
            said.add(Snag.ofMaterial(
                    Kind.COAT_OF_AIR,
                    Parameter.COAT_IOR,
                    "A coat with an index of 1 is air: it doesn’t show.",
                    set("Set the coat’s index to 1.5", Parameter.COAT_IOR, 1.5)));
        }
    }
}

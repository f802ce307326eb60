package app.zolvan.core.material;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/**
 * What years make of a surface: layers that come over it one after another, each where its cover is. How readily a place
 * is covered is baked on the part as its resistance, 0 (at once) to 1.25 (never); how far it has gone is the surface's
 * own. Stage, tracer and exported pictures lay the same layers over the same resistances.
 *
 * @param layers   weathering, growth, wear and dust, in this order
 * @param corrodes whether weathering starts where water stays, as on metal, rather than where sun and rain reach
 */
public record Ageing(List<Layer> layers, boolean corrodes) {
    /** What ages nothing. */
    public static final Ageing NONE = new Ageing(List.of(), false);
    /** The resistance of what is never covered. */
    public static final double NEVER = 1.25;

    /** CIELAB chroma and lightness from which a metal of no known kind counts as copper’s or as aluminium’s. */
    private static final double COLOURED = 14;

    private static final double BRIGHT = 92;
    /** A middling resistance. */
    public static final double MIDDLE = 0.55;

    private static final LinearRgb MOSS = new LinearRgb(0.05, 0.068, 0.022);
    private static final LinearRgb RUST = new LinearRgb(0.19, 0.065, 0.022);
    private static final LinearRgb VERDIGRIS = new LinearRgb(0.19, 0.36, 0.29);
    private static final LinearRgb WHITE_OXIDE = new LinearRgb(0.5, 0.51, 0.52);
    private static final LinearRgb TARNISH = new LinearRgb(0.055, 0.045, 0.035);
    private static final LinearRgb DUST = new LinearRgb(0.36, 0.33, 0.28);

    /**
     * One layer. Where it covers wholly the base colour is {@code self}·(what it was) + {@code grey}·(its luminance) +
     * {@code colour}·{@link #shade}.
     *
     * @param amount    0 … 1: how far it has gone
     * @param softness  how gradually it ends
     * @param mottled   how much darker it is where it came first than where it came last, as a share
     * @param roughness of what covers
     * @param metalness likewise
     */
    public record Layer(
            double amount,
            double softness,
            double self,
            double grey,
            LinearRgb colour,
            double mottled,
            double roughness,
            double metalness) {

        /** What its colour is multiplied by at a place with a resistance. */
        public double shade(double resistance) {
            return Math.max(0, 1 + mottled * (resistance - MIDDLE));
        }

        /** How much of a place with a resistance is covered, 0 … 1. */
        public double cover(double resistance) {
            return amount <= 0 ? 0 : Math.max(0, Math.min(1, (amount * (1 + softness) - resistance) / softness));
        }
    }

    /**
     * A surface under what years have brought.
     *
     * @param bare what of it is covered by nothing
     */
    public record Laid(LinearRgb colour, double roughness, double metalness, double bare) {

        /** Lays the layers over a surface where it has these resistances. */
        public static Laid over(Ageing ageing, double[] resistances, LinearRgb fresh, double rough, double metal) {
            LinearRgb grey = LinearRgb.grey(fresh.luminance());
            Laid l = new Laid(fresh, rough, metal, 1);
            for (int i = 0; i < ageing.layers().size(); i++) {
                Layer a = ageing.layers().get(i);
                double cover = a.cover(resistances[i]);
                LinearRgb lies = fresh.times(a.self())
                        .plus(grey.times(a.grey()))
                        .plus(a.colour().times(a.shade(resistances[i])));
                l = new Laid(
                        l.colour.mix(lies, cover),
                        l.roughness + cover * (a.roughness() - l.roughness),
                        l.metalness + cover * (a.metalness() - l.metalness),
                        l.bare * (1 - cover));
            }
            return l;
        }
    }

    public static Ageing of(Surface s) {
        double[] amounts = {
            isNoble(s) ? 0 : s.number(Parameter.AGE_WEATHERING),
            s.number(Parameter.AGE_GROWTH),
            s.number(Parameter.AGE_WEAR),
            s.number(Parameter.AGE_DUST)
        };
        if (Arrays.stream(amounts).allMatch(a -> a <= 0)) {
            return NONE;
        }
        boolean metal = s.number(Parameter.BASE_METALNESS) > 0.5;
        double rough = s.number(Parameter.SPECULAR_ROUGHNESS);
        Layer weathering = metal
                ? new Layer(amounts[0], 0.15, 0, 0, product(s), 0.9, 0.85, 0)
                : new Layer(amounts[0], 0.6, 0.2, 0.5, LinearRgb.grey(0.09), 0.2, Math.max(rough, 0.8), 0);
        Layer growth = new Layer(amounts[1], 0.18, 0, 0, MOSS, 1, 0.95, 0);
        Layer wear = metal
                ? new Layer(amounts[2], 0.15, 1, 0, LinearRgb.BLACK, 0, Math.min(rough, 0.25), 1)
                : new Layer(amounts[2], 0.15, 0.75, 0.25, LinearRgb.grey(0.12), 0, Math.max(0.4, 0.8 * rough), 0);
        Layer dust = new Layer(amounts[3], 0.6, 0.12, 0, DUST.times(0.88), 0.1, 1, 0);
        return new Ageing(List.of(weathering, growth, wear, dust), metal);
    }

    public boolean isNone() {
        return layers.isEmpty();
    }

    /** What a metal turns to: by which metal it is, or where none is known by its colour. */
    private static LinearRgb product(Surface s) {
        Optional<Metal> known =
                Arrays.stream(Metal.values()).filter(m -> m.isOf(s)).findFirst();
        if (known.isPresent()) {
            return switch (known.get()) {
                case COPPER, BRASS -> VERDIGRIS;
                case ALUMINIUM, LEAD -> WHITE_OXIDE;
                case IRON -> RUST;
                default -> TARNISH;
            };
        }
        CieLab colour = CieLab.of(s.colour(Parameter.BASE_COLOR));
        return colour.chroma() > COLOURED ? VERDIGRIS : colour.l() > BRIGHT ? WHITE_OXIDE : RUST;
    }

    /** Whether a surface is of a metal that air and water leave alone. */
    public static boolean isNoble(Surface s) {
        return Metal.GOLD.isOf(s) || Metal.PLATINUM.isOf(s);
    }
}

package app.zolvan.core.adjust;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.MainColour;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Substance;
import app.zolvan.core.material.Surface;
import java.util.EnumSet;
import java.util.Set;

/**
 * Makes one kind of material another. What still makes sense stays: the colour a designer means, pictures, relief, gloss
 * and coat; only what the new kind can't be without, or can't have, is set.
 */
public final class KindChange {
    private static final double BLURRED = 0.5;
    private static final double GLOW = 1000;

    /** What flakes lie in. */
    private static final Set<MaterialKind> FLAKED = EnumSet.of(
            MaterialKind.PAINT, MaterialKind.PLASTIC, MaterialKind.METAL, MaterialKind.STONE, MaterialKind.COMPOSITE);

    private KindChange() {}

    public static Surface to(MaterialKind kind, Surface s) {
        LinearRgb colour = s.colour(MainColour.of(s));
        Surface changed = FLAKED.contains(kind) ? s : s.with(Parameter.FLAKE_WEIGHT, 0);
        return of(kind, changed, colour);
    }

    private static Surface of(MaterialKind kind, Surface s, LinearRgb colour) {
        return switch (kind) {
            case METAL ->
                opaque(s, colour)
                        .with(Parameter.BASE_METALNESS, 1)
                        .with(Parameter.SUBSURFACE_WEIGHT, 0)
                        .with(Parameter.FUZZ_WEIGHT, 0);
            case GLASS -> clear(s, colour, Substance.WINDOW_GLASS);
            case LIQUID -> clear(s, colour, Substance.WATER).with(Parameter.GEOMETRY_THIN_WALLED, false);
            case LIGHT ->
                opaque(s, colour)
                        .with(Parameter.BASE_METALNESS, 0)
                        .with(Parameter.EMISSION_COLOR, brightest(colour))
                        .with(
                                Parameter.EMISSION_LUMINANCE,
                                s.number(Parameter.EMISSION_LUMINANCE) > 0
                                        ? s.number(Parameter.EMISSION_LUMINANCE)
                                        : GLOW);
            default -> body(opaque(s, colour));
        };
    }

    private static Surface body(Surface s) {
        Surface changed = s.with(Parameter.BASE_METALNESS, 0);
        boolean wasMetal = s.number(Parameter.BASE_METALNESS) > 0.5;
        return wasMetal ? changed.with(Parameter.SPECULAR_COLOR, LinearRgb.WHITE) : changed; // a metal's edge tint
    }

    private static Surface opaque(Surface s, LinearRgb colour) {
        boolean wasClear = s.number(Parameter.TRANSMISSION_WEIGHT) >= 0.5;
        boolean wasGlow = MainColour.of(s) == Parameter.EMISSION_COLOR;
        Surface changed = s.with(Parameter.TRANSMISSION_WEIGHT, 0);
        if (wasClear) {
            changed = changed.with(Parameter.GEOMETRY_THIN_WALLED, false);
        }
        if (wasGlow) {
            changed = changed.with(Parameter.EMISSION_LUMINANCE, 0);
        }
        return wasClear || wasGlow ? changed.with(Parameter.BASE_COLOR, colour) : changed;
    }

    private static Surface clear(Surface s, LinearRgb colour, Substance substance) {
        boolean wasClear = s.number(Parameter.TRANSMISSION_WEIGHT) >= 0.5;
        boolean blurred = s.number(Parameter.SPECULAR_ROUGHNESS) > BLURRED;
        Surface changed = s.with(Parameter.TRANSMISSION_WEIGHT, 1)
                .with(Parameter.BASE_METALNESS, 0)
                .with(Parameter.SPECULAR_COLOR, LinearRgb.WHITE)
                .with(Parameter.SUBSURFACE_WEIGHT, 0)
                .with(Parameter.FUZZ_WEIGHT, 0)
                .with(Parameter.GEOMETRY_OPACITY, 1)
                .with(Parameter.TRANSMISSION_COLOR, colour)
                .with(Parameter.SPECULAR_IOR, substance.ior())
                .with(Parameter.SPECULAR_ROUGHNESS, blurred ? 0 : s.number(Parameter.SPECULAR_ROUGHNESS));
        return wasClear ? changed : changed.with(Parameter.BASE_COLOR, colour);
    }

    /** The same hue, as bright as a colour can be. */
    private static LinearRgb brightest(LinearRgb c) {
        double most = Math.max(c.r(), Math.max(c.g(), c.b()));
        return most > 0 ? c.times(1 / most).clamped() : LinearRgb.WHITE;
    }
}

package app.zolvan.server.library;

import app.zolvan.core.exchange.library.MaterialJson;
import app.zolvan.core.material.FinishWord;
import app.zolvan.core.material.MainColour;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.chip.Chip;
import app.zolvan.server.colour.ColourWire;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A material as the tray and the look card show it.
 *
 * @param adjusted        whether it differs from the material it was made from
 * @param colour          the colour a designer means, and its numbers
 * @param colourParameter the parameter that holds it
 * @param finish          the trade's word for its roughness
 * @param chip            names the picture of its sample: another one where that looks different
 * @param physical        what a chip of it shows, as a body 4 mm thick
 * @param values          every parameter by its OpenPBR name: a number, three linear components, or true or false
 */
public record MaterialWire(
        UUID id,
        @Nullable UUID origin,
        String code,
        String name,
        @Nullable String kind,
        boolean arrived,
        boolean adjusted,
        ColourWire colour,
        String colourParameter,
        String finish,
        String chip,
        PhysicalWire physical,
        Map<String, Object> values) {
    private static final double CHIP_THICKNESS = 0.004;

    /** @param origin the material it was made from; null where there is none */
    public static MaterialWire of(MaterialRow m, @Nullable MaterialRow origin) {
        Surface s = m.toSurface();
        Parameter colour = MainColour.of(s);
        return new MaterialWire(
                m.id(),
                m.origin(),
                m.code(),
                m.name(),
                m.kind(),
                m.arrived(),
                origin != null && !origin.toSurface().equals(s),
                ColourWire.of(s.colour(colour)),
                colour.openPbrName(),
                FinishWord.of(s).word(),
                Chip.key(s),
                PhysicalWire.of(PhysicalMaterial.of(s, CHIP_THICKNESS)),
                values(s));
    }

    private static Map<String, Object> values(Surface s) {
        Map<String, Object> values = new LinkedHashMap<>();
        for (Parameter p : Parameter.values()) {
            if (p.shape() != Parameter.Shape.TEXTURE_ONLY) {
                values.put(p.openPbrName(), MaterialJson.value(s, p));
            }
        }
        return values;
    }
}

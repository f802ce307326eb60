package app.zolvan.core.assign;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.ModelUv;

/**
 * What a region of a part ends up showing. The stage, the picture and every exported file take this same value.
 *
 * @param mapping  how its textures lie
 * @param physical the same surface in glTF's terms, for this part's thickness
 * @param from     the level that decided, or null for the look that arrived (or neutral grey)
 * @param oneSided whether it is not what the other side of the same surface shows
 */
public record Look(Material material, Mapping mapping, PhysicalMaterial physical, Level from, boolean oneSided) {
    /** What shows where nothing is assigned and the file said nothing: sRGB #B9B9B7, roughness 0.6. */
    public static final Material NEUTRAL =
            new Material("", "No look yet", null, neutral(Srgb.fromCodes(0xB9, 0xB9, 0xB7)));

    private static Surface neutral(LinearRgb grey) {
        return Surface.STANDARD.with(Parameter.BASE_COLOR, grey).with(Parameter.SPECULAR_ROUGHNESS, 0.6);
    }

    /**
     * @param mapping       the winning entry's mapping, or null for the material's natural one
     * @param meanThickness of the part, in its mesh's own units
     */
    public static Look of(Material material, Mapping mapping, double meanThickness, Level from) {
        return new Look(
                material,
                mapping != null ? mapping : naturalMapping(material.surface()),
                PhysicalMaterial.of(material.surface(), meanThickness),
                from,
                false);
    }

    /** The same of another surface where what glTF tells of it is the same. */
    public Look showing(Surface other) {
        return new Look(material.with(other), mapping, physical, from, oneSided);
    }

    /** Another surface in the place of this one, and what glTF tells of it. */
    public Look wearing(Surface other) {
        PhysicalMaterial told = PhysicalMaterial.of(other, physical.thickness());
        return new Look(material.with(other), mapping, told, from, oneSided);
    }

    /** The same on one side alone. */
    public Look onOneSide() {
        return new Look(material, mapping, physical, from, true);
    }

    private static Mapping naturalMapping(Surface s) {
        boolean followsModel =
                s.textures().values().stream().map(TextureUse::placement).anyMatch(ModelUv.class::isInstance);
        return followsModel ? new Mapping.ModelUvs() : new Mapping.Box();
    }
}

package app.zolvan.core.material;

import java.util.Locale;

/** What a material is in the trade; decides its drawer and, later, which controls the designer sees first. */
public enum MaterialKind {
    PAINT,
    METAL,
    WOOD,
    STONE,
    CONCRETE,
    BRICK,
    CERAMIC,
    PLASTER,
    PLASTIC,
    RUBBER,
    GLASS,
    LIQUID,
    FABRIC,
    LEATHER,
    PAPER,
    FOLIAGE,
    LIGHT,
    COMPOSITE;

    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** @throws IllegalArgumentException if there is no such kind */
    public static MaterialKind ofWord(String word) {
        return valueOf(word.toUpperCase(Locale.ROOT));
    }
}

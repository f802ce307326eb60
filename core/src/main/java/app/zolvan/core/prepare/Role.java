package app.zolvan.core.prepare;

import java.util.List;
import java.util.Locale;

/** What a part is in the design; broad, as dressing needs it. */
public enum Role {
    FLOOR("floor", "floor", "deck", "decking", "paving", "terrace", "parquet", "slab"),
    WALL("wall", "wall", "cladding", "lining", "partition", "facade", "panelling", "splashback"),
    CEILING("matt white paint", "ceiling", "soffit"),
    ROOF("roof", "roof", "shingle", "shingles", "rafter", "gable", "eaves"),
    GLASS("clear glass", "glass", "glazing", "pane", "glas", "window", "chimney", "lens", "globe"),
    FRAME("wood", "frame", "mullion", "post", "beam", "rail", "sill", "strut", "bar", "rod", "stile", "batten"),
    FASTENER("steel", "screw", "bolt", "nut", "rivet", "washer", "nail", "pin", "clip", "stud"),
    HANDLE("fittings", "handle", "knob", "pull", "grip", "bail", "lever", "key"),
    SEAT("oak", "seat", "bench", "stool", "chair", "sofa"),
    CUSHION("sofa", "cushion", "pillow", "mattress", "pad", "upholstery"),
    TEXTILE("fabric", "towel", "curtain", "rug", "blanket", "cloth", "carpet", "drape", "wick"),
    LEG("steel", "leg", "foot", "castor"),
    LAMP("lamp", "lamp", "bulb", "light", "lantern", "flame", "led"),
    LIQUID("water", "water", "oil", "fuel", "liquid", "juice", "pool"),
    DOOR("oak", "door", "drawer", "shutter", "hatch", "gate"),
    WORKTOP("kitchen", "worktop", "tabletop", "top", "counter", "shelf"),
    BODYWORK("vehicle", "bodywork", "fender", "bonnet", "mudguard", "hull", "fairing"),
    MASONRY("facade", "masonry", "brickwork", "stonework", "plinth", "pier");

    private final String suits;
    private final List<String> names;

    Role(String suits, String... names) {
        this.suits = suits;
        this.names = List.of(names);
    }

    /** As a designer reads it. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** Words by which materials are found that such parts are often made of. */
    public String suits() {
        return suits;
    }

    /** Whether a word of a name, in small letters, speaks for the role; in the plural, too. */
    boolean isNamed(String part) {
        return names.contains(part) || (part.endsWith("s") && names.contains(part.substring(0, part.length() - 1)));
    }
}

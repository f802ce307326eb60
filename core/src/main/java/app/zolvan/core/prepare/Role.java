package app.zolvan.core.prepare;

import java.util.List;
import java.util.Locale;

/** What a part is in the design; broad, as dressing needs it. */
public enum Role {
    FLOOR("floor", "deck", "decking", "paving", "terrace", "parquet", "slab"),
    WALL("wall", "cladding", "lining", "partition", "facade", "panelling", "splashback"),
    CEILING("ceiling", "soffit"),
    ROOF("roof", "shingle", "shingles", "rafter", "gable", "eaves"),
    GLASS("glass", "glazing", "pane", "glas", "window", "chimney", "lens", "globe"),
    FRAME("frame", "mullion", "post", "beam", "rail", "sill", "strut", "bar", "rod", "stile", "batten"),
    FASTENER("screw", "bolt", "nut", "rivet", "washer", "nail", "pin", "clip", "stud"),
    HANDLE("handle", "knob", "pull", "grip", "bail", "lever", "key"),
    SEAT("seat", "bench", "stool", "chair", "sofa"),
    CUSHION("cushion", "pillow", "mattress", "pad", "upholstery"),
    TEXTILE("towel", "curtain", "rug", "blanket", "cloth", "carpet", "drape", "wick"),
    LEG("leg", "foot", "castor"),
    LAMP("lamp", "bulb", "light", "lantern", "flame", "led"),
    LIQUID("water", "oil", "fuel", "liquid", "juice", "pool"),
    DOOR("door", "drawer", "shutter", "hatch", "gate"),
    WORKTOP("worktop", "tabletop", "top", "counter", "shelf");

    private final List<String> names;

    Role(String... names) {
        this.names = List.of(names);
    }

    /** As a designer reads it. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /** Whether a word of a name, in small letters, speaks for the role; in the plural, too. */
    boolean isNamed(String part) {
        return names.contains(part) || (part.endsWith("s") && names.contains(part.substring(0, part.length() - 1)));
    }
}

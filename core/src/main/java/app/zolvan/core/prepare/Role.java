package app.zolvan.core.prepare;

import java.util.List;

/** What a part is in the design; broad, as dressing needs it. */
public enum Role {
    FLOOR("floor", "floor", "deck", "decking", "paving", "terrace", "parquet", "slab"),
    WALL("wall", "wall", "cladding", "lining", "partition", "facade", "panelling", "splashback"),
    CEILING("ceiling", "ceiling", "soffit"),
    ROOF("roof", "roof", "shingle", "shingles", "rafter", "gable", "eaves"),
    GLASS("glass", "glass", "glazing", "pane", "glas", "window", "chimney", "lens", "globe"),
    FRAME("frame", "frame", "mullion", "post", "beam", "rail", "sill", "strut", "bar", "rod", "stile", "batten"),
    FASTENER("fastener", "screw", "bolt", "nut", "rivet", "washer", "nail", "pin", "clip", "stud"),
    HANDLE("handle", "handle", "knob", "pull", "grip", "bail", "lever", "key"),
    SEAT("seat", "seat", "bench", "stool", "chair", "sofa"),
    CUSHION("cushion", "cushion", "pillow", "mattress", "pad", "upholstery"),
    TEXTILE("textile", "towel", "curtain", "rug", "blanket", "cloth", "carpet", "drape", "wick"),
    LEG("leg", "leg", "foot", "castor"),
    LAMP("lamp", "lamp", "bulb", "light", "lantern", "flame", "led"),
    LIQUID("liquid", "water", "oil", "fuel", "liquid", "juice", "pool"),
    DOOR("door", "door", "drawer", "shutter", "hatch", "gate"),
    TOP("worktop", "worktop", "tabletop", "top", "counter", "shelf");

    private final String word;
    private final List<String> names;

    Role(String word, String... names) {
        this.word = word;
        this.names = List.of(names);
    }

    /** As a designer reads it. */
    public String word() {
        return word;
    }

    /** Whether a word of a name, in small letters, speaks for the role; in the plural, too. */
    boolean isNamed(String part) {
        return names.contains(part) || (part.endsWith("s") && names.contains(part.substring(0, part.length() - 1)));
    }
}

package app.zolvan.core.texture;

import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/** The generated patterns, each seamless by construction, by their names. */
public final class Patterns {
    private static final Map<String, Function<Recipe, Pattern>> ALL = Map.ofEntries(
            // fields
            Map.entry("noise", Fields::noise),
            Map.entry("clouds", Fields::clouds),
            Map.entry("turbulence", Fields::turbulence),
            Map.entry("waves", Fields::waves),
            Map.entry("ripples", Fields::ripples),
            Map.entry("cells", Fields::cells),
            // what grows and what is ground
            Map.entry("wood", Grains::wood),
            Map.entry("crown", Grains::crown),
            Map.entry("leather", Grains::leather),
            Map.entry("marble", Grains::marble),
            Map.entry("granite", Grains::granite),
            Map.entry("terrazzo", Grains::terrazzo),
            Map.entry("travertine", Grains::travertine),
            Map.entry("cork", Grains::cork),
            Map.entry("cast", Grains::cast),
            Map.entry("turf", Grains::turf),
            // bonds
            Map.entry("courses", r -> Bonds.of(r, Bonds.courses(r))),
            Map.entry("boards", r -> Bonds.of(r, Bonds.boards(r))),
            Map.entry("herringbone", r -> Bonds.of(r, Bonds.herringbone(r, blocks(r)))),
            Map.entry("basket", r -> Bonds.of(r, Bonds.basket(r, blocks(r)))),
            Map.entry("hexagons", r -> Bonds.of(r, Bonds.hexagons(r))),
            Map.entry("polygons", r -> Bonds.of(r, Bonds.polygons(r))),
            // threads
            Map.entry("weave", r -> Weaves.of(r, Weaves.PLAIN)),
            Map.entry("twill", r -> Weaves.of(r, Weaves.TWILL)),
            Map.entry("satin", r -> Weaves.of(r, Weaves.SATIN)),
            Map.entry("hopsack", r -> Weaves.of(r, Weaves.BASKET)),
            Map.entry("zigzag", r -> Weaves.of(r, Weaves.ZIGZAG)),
            Map.entry("knit", Weaves::knit),
            Map.entry("loops", Weaves::loops),
            // what tools and moulds leave
            Map.entry("brushed", Reliefs::brushed),
            Map.entry("hammered", Reliefs::hammered),
            Map.entry("knurled", r -> Reliefs.diamonds(r.count())),
            Map.entry("diamonds", r -> Reliefs.diamonds(r.count())),
            Map.entry("ribs", Reliefs::ribs),
            Map.entry("pebbled", Reliefs::pebbled),
            Map.entry("orange-peel", Reliefs::orangePeel),
            Map.entry("trowelled", Reliefs::trowelled),
            Map.entry("bubbles", Reliefs::bubbles),
            Map.entry("perforated", Reliefs::perforated));

    public static final Set<String> NAMES = ALL.keySet();

    private Patterns() {}

    /** @throws IllegalArgumentException for a name that no pattern has */
    public static Pattern of(Recipe r) {
        Function<Recipe, Pattern> maker = ALL.get(r.name());
        if (maker == null) {
            throw new IllegalArgumentException("no pattern is called " + r.name());
        }
        return maker.apply(r);
    }

    /** How many times as long as wide a block is. */
    private static int blocks(Recipe r) {
        return 2 + (int) Math.round(2 * r.share());
    }
}

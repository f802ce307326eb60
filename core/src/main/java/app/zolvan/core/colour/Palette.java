package app.zolvan.core.colour;

import java.util.List;

/** Swatches that belong together, in their order. */
public record Palette(String name, List<Swatch> swatches) {}

package app.zolvan.core.colour;

/** A colour that somebody named. */
public record Swatch(String name, LinearRgb colour) {}

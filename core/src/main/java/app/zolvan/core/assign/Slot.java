package app.zolvan.core.assign;

/** A place that holds at most one entry in a scheme. */
public record Slot(Target target, Side side) {}

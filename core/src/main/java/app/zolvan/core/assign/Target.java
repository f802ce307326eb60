package app.zolvan.core.assign;

/** One thing that can hold an assignment: a level and the identity of the model, set, group, part or face. */
public record Target(Level level, String id) {}

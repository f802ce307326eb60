package app.zolvan.core.context;

/** What a model is to a project. */
public enum Belonging {
    /** It is designed, delivered and counted. */
    DESIGN,
    /** It is there to be seen with the design, and counts nowhere. */
    SURROUNDINGS
}

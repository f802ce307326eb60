package app.zolvan.core.snag;

/** Certainty that something is not as it should be. */
public enum Certainty {
    /** A fact, whatever was meant. */
    CERTAIN,
    /** Hardly ever meant. */
    LIKELY,
    /** Often meant; somebody has to look. */
    PERHAPS
}

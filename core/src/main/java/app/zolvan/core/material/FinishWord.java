package app.zolvan.core.material;

/** The trade's word for how glossy a surface is, by its gloss at 60° in gloss units. */
public enum FinishWord {
    DEAD_MATT("dead matt", 5),
    MATT("matt", 15),
    EGGSHELL("eggshell", 30),
    SATIN("satin", 50),
    SEMI_GLOSS("semi-gloss", 75),
    GLOSS("gloss", Double.POSITIVE_INFINITY);

    private final String word;
    private final double below;

    FinishWord(String word, double below) {
        this.word = word;
        this.below = below;
    }

    public String word() {
        return word;
    }

    /** @param gloss in GU, at least 0 */
    public static FinishWord ofGloss(double gloss) {
        for (FinishWord w : values()) {
            if (gloss < w.below) {
                return w;
            }
        }
        return GLOSS;
    }
}

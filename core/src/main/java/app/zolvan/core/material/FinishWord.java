package app.zolvan.core.material;

/**
 * The trade's word for how sharply a surface reflects, read off specular roughness (or the coat's, where a full coat
 * covers the base). The bands are steps on the roughness scale; they say nothing about measured gloss units.
 */
public enum FinishWord {
    MIRROR("mirror", 0.05),
    GLOSS("gloss", 0.2),
    SEMI_GLOSS("semi-gloss", 0.35),
    SATIN("satin", 0.5),
    EGGSHELL("eggshell", 0.65),
    MATT("matt", 0.85),
    DEAD_MATT("dead matt", 1);

    private final String word;
    private final double upTo;

    FinishWord(String word, double upTo) {
        this.word = word;
        this.upTo = upTo;
    }

    public String word() {
        return word;
    }

    public static FinishWord of(Surface s) {
        boolean coated = s.number(Parameter.COAT_WEIGHT) >= 0.5;
        return of(s.number(coated ? Parameter.COAT_ROUGHNESS : Parameter.SPECULAR_ROUGHNESS));
    }

    public static FinishWord of(double roughness) {
        for (FinishWord w : values()) {
            if (roughness <= w.upTo) {
                return w;
            }
        }
        return DEAD_MATT;
    }
}

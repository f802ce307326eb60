package app.zolvan.core.assign;

import java.util.Arrays;
import java.util.Optional;

/** Where an assignment is made, from broad to narrow. Groups nest: an outer group is broader than an inner one. */
public enum Level {
    MODEL("model"),
    SET("set"),
    GROUP("group"),
    PART("part"),
    FACE("face");

    private final String word;

    Level(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }

    /** Empty where no level is called so. */
    public static Optional<Level> ofWord(String word) {
        return Arrays.stream(values()).filter(l -> l.word.equals(word)).findFirst();
    }
}

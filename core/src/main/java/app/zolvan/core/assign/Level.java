package app.zolvan.core.assign;

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
}

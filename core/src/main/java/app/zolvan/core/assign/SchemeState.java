package app.zolvan.core.assign;

/** How far a scheme has got on its way to the client. */
public enum SchemeState {
    IDEA("idea"),
    READY("ready to show"),
    APPROVED("approved"),
    REJECTED("rejected");

    private final String word;

    SchemeState(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }

    /** A rejected option is kept with the reason, so that nobody draws it up again. */
    public boolean needsReason() {
        return this == REJECTED;
    }
}

package app.zolvan.core.assign;

/** Which side of a face an assignment dresses. */
public enum Side {
    FRONT,
    BACK,
    BOTH;

    /** Whether an assignment for this side shows on {@code side}, which is FRONT or BACK. */
    public boolean covers(Side side) {
        return this == BOTH || this == side;
    }
}

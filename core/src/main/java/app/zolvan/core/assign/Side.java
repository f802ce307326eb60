package app.zolvan.core.assign;

/** Which side of a face an assignment dresses. */
public enum Side {
    FRONT(0),
    BACK(1),
    BOTH(2);

    /** Where it stands in tables of slots. */
    final int place;

    Side(int place) {
        this.place = place;
    }

    /** Whether an assignment for this side shows on {@code side}, which is FRONT or BACK. */
    public boolean covers(Side side) {
        return this == BOTH || this == side;
    }
}

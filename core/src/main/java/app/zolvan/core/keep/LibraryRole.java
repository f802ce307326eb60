package app.zolvan.core.keep;

/** What somebody may do in a library. Each role may do what those before it may. */
public enum LibraryRole {
    /** Put what is approved on models. */
    USE,
    /** Keep materials and drawers there, change them and take them out; what is kept waits for approval. */
    EDIT,
    /** Approve, and say who may do what. */
    APPROVE;

    public boolean mayEdit() {
        return this != USE;
    }

    public boolean mayApprove() {
        return this == APPROVE;
    }

    /** Whether somebody in this role sees a material. */
    public boolean sees(boolean approved) {
        return approved || mayEdit();
    }
}

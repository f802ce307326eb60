package app.zolvan.server.scheme;

import app.zolvan.server.project.Edit;

/** Ends a command that has been done already: its answer was lost, and it was sent again. Becomes the state as it is now. */
final class DoneBefore extends RuntimeException {
    private final transient Edit edit;

    DoneBefore(Edit edit) {
        super("the command was done before");
        this.edit = edit;
    }

    Edit edit() {
        return edit;
    }
}

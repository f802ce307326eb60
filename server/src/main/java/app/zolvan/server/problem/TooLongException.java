package app.zolvan.server.problem;

import java.io.IOException;

/** A body went on beyond what its request may hold. */
public final class TooLongException extends IOException {

    /** @param most bytes */
    public TooLongException(long most) {
        super("a body of more than " + most + " bytes");
    }
}

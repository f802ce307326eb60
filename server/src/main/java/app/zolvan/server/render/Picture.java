package app.zolvan.server.render;

import java.util.Set;
import java.util.UUID;

/** A picture that is traced, some of it at a time. */
public interface Picture {
    /** Urgency of the work on a picture, the most urgent first. */
    enum Rank {
        /** There is nothing to look at yet. */
        FIRST,
        /** A sample's chip. */
        CHIP,
        /** A closer look gets finer. */
        CLOSER,
        /** A proof gets finer. */
        PROOF,
        /** A still. */
        STILL
    }

    /** Equal for pictures of the same thing, of which one is enough. */
    Object key();

    /** Accounts that wait for it; never none. */
    Set<UUID> accounts();

    /** Of the work that comes next. */
    Rank rank();

    /**
     * Works on it until it is finished or its turn is over.
     *
     * @return true where more is to be done
     */
    boolean work(Turn turn);

    /** A picture's time at the cores. */
    interface Turn {
        int threads();

        /** True once another picture is to be worked on; may be asked from any thread, often. */
        boolean isOver();
    }
}

package app.zolvan.core.snag;

import java.io.Serializable;

/** A kind of snag; implemented by an enum of each package that finds some, in the order in which they are told. */
public interface SnagKind extends Serializable {
    /** Its stable name. */
    String name();

    /** Why it matters and what to do, as a sentence or two; empty where what is said says it all. */
    String why();

    Certainty certainty();
}

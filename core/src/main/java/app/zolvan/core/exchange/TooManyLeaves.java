package app.zolvan.core.exchange;

/** More leaves than a file may hold; the message is a sentence for the designer. */
public final class TooManyLeaves extends Exception {
    TooManyLeaves() {
        super("A file holds at most " + LeafParts.MOST / 1000
                + " thousand leaves. Have them cover fewer parts or less of them, or make them longer.");
    }
}

package app.zolvan.core.exchange.text;

/** Numbers as text, as short as reading them back exactly allows. */
public final class PlainNumber {
    private PlainNumber() {}

    /** Reads back as the same float. */
    public static void append(StringBuilder out, float v) {
        if (v == (int) v && Math.abs(v) < 1e7f) {
            out.append((int) v);
        } else {
            out.append(v);
        }
    }

    /** Reads back as the same double. */
    public static String of(double v) {
        return v == Math.rint(v) && Math.abs(v) < 1e15 ? Long.toString((long) v) : Double.toString(v);
    }
}

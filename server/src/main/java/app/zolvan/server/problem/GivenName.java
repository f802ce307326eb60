package app.zolvan.server.problem;

/** What designers may call things. */
public final class GivenName {
    private static final int LONGEST = 120;

    private GivenName() {}

    /** The name without spaces around it; a problem where nothing is left, or too much. */
    public static String require(String name) {
        String stripped = name.strip();
        if (stripped.isEmpty() || stripped.length() > LONGEST) {
            throw Problem.ofField("name", "A name has 1 to 120 characters.");
        }
        return stripped;
    }
}

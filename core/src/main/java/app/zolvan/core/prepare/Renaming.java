package app.zolvan.core.prepare;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * New names for many parts at once.
 *
 * <p>A pattern is text in which {@code {name}} stands for the name so far and a run of {@code #} for the number in order,
 * with at least as many digits. Find and replace takes text as it is, in any case of letters.
 */
public final class Renaming {
    /** A name has 1 to so many characters. */
    public static final int LONGEST = 120;

    private static final Pattern FIELD = Pattern.compile("\\{name}|#+");

    private Renaming() {}

    /**
     * What is wanted.
     *
     * @param pattern     null to replace a text
     * @param first       the number of the first
     * @param find        null for nothing
     * @param replacement null for nothing
     */
    public record Wish(String pattern, int first, String find, String replacement) {
        /** The names made anew, in order. */
        public List<String> of(List<String> names) {
            return pattern != null
                    ? byPattern(names, pattern, first)
                    : byReplacing(names, find == null ? "" : find, replacement == null ? "" : replacement);
        }
    }

    /**
     * Names by a pattern.
     *
     * @param first the number of the first
     */
    public static List<String> byPattern(List<String> names, String pattern, int first) {
        List<String> out = new ArrayList<>();
        for (String name : names) {
            int number = first + out.size();
            out.add(fit(FIELD.matcher(pattern)
                    .replaceAll(m -> Matcher.quoteReplacement(
                            m.group().equals("{name}")
                                    ? name
                                    : padded(number, m.group().length())))));
        }
        return out;
    }

    private static String padded(int number, int digits) {
        String plain = Integer.toString(number);
        return "0".repeat(Math.max(0, digits - plain.length())) + plain;
    }

    /** Names with a text replaced wherever it stands in them. */
    public static List<String> byReplacing(List<String> names, String find, String replacement) {
        if (find.isEmpty()) {
            return List.copyOf(names);
        }
        Pattern text = Pattern.compile(Pattern.quote(find), Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE);
        return names.stream()
                .map(n -> fit(text.matcher(n).replaceAll(Matcher.quoteReplacement(replacement))))
                .toList();
    }

    /** Without spaces at its ends, doubled ones made one, and no longer than a name may be; empty where nothing is left. */
    private static String fit(String name) {
        String one = name.strip().replaceAll("\\s+", " ");
        int end = Math.min(LONGEST, one.length());
        return one.substring(0, end > 0 && Character.isHighSurrogate(one.charAt(end - 1)) ? end - 1 : end);
    }
}

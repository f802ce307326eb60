package app.zolvan.core.prepare;

import java.util.Locale;
import java.util.function.Predicate;
import java.util.regex.Pattern;

/** Patterns of names in which * stands for any text; upper and lower case are the same. */
final class Wildcard {
    private Wildcard() {}

    static Predicate<String> of(String pattern) {
        StringBuilder regex = new StringBuilder();
        for (String text : pattern.strip().toLowerCase(Locale.ROOT).split("\\*", -1)) {
            regex.append(regex.length() > 0 ? ".*" : "").append(Pattern.quote(text));
        }
        Pattern compiled = Pattern.compile(regex.toString(), Pattern.DOTALL);
        return name -> compiled.matcher(name.strip().toLowerCase(Locale.ROOT)).matches();
    }
}

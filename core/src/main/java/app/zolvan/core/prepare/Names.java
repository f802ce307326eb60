package app.zolvan.core.prepare;

import java.util.Locale;
import java.util.regex.Pattern;

/** Tells names that say nothing: a general word, a number, an address, or nothing at all. */
public final class Names {
    private static final Pattern GENERAL = Pattern.compile(
            "(mesh|node|object|obj|part|body|solid|shape|group|geometry|geom|material|mat|colou?r|default|untitled|unnamed"
                    + "|no name|none|instance|component|block|layer|element|item|face|surface|primitive|scene|root|model"
                    + "|new|copy|of|the|a|and|id)");
    private static final Pattern ADDRESS = Pattern.compile("[0-9a-f]{8,}|[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}");

    private Names() {}

    public static boolean saysNothing(String name) {
        String plain = name.strip().toLowerCase(Locale.ROOT);
        if (ADDRESS.matcher(plain).matches()) {
            return true;
        }
        for (String word : plain.split("[^\\p{L}]+")) {
            if (word.length() > 1 && !GENERAL.matcher(word).matches()) {
                return false;
            }
        }
        return true;
    }
}

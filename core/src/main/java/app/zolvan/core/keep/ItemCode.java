package app.zolvan.core.keep;

import app.zolvan.core.material.MaterialKind;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;

/** Codes of a library's materials: two letters of the kind and a number, as the shipped ones have them. */
public final class ItemCode {
    /** A code has up to so many characters. */
    public static final int LONGEST = 24;

    private static final Pattern ALLOWED = Pattern.compile("[\\p{L}\\p{N}][\\p{L}\\p{N} ._/-]*");
    private static final Map<MaterialKind, String> LETTERS = Map.ofEntries(
            Map.entry(MaterialKind.PAINT, "PT"),
            Map.entry(MaterialKind.METAL, "MT"),
            Map.entry(MaterialKind.WOOD, "WD"),
            Map.entry(MaterialKind.STONE, "ST"),
            Map.entry(MaterialKind.CONCRETE, "CN"),
            Map.entry(MaterialKind.BRICK, "BK"),
            Map.entry(MaterialKind.CERAMIC, "CR"),
            Map.entry(MaterialKind.PLASTER, "PS"),
            Map.entry(MaterialKind.PLASTIC, "PL"),
            Map.entry(MaterialKind.RUBBER, "RB"),
            Map.entry(MaterialKind.GLASS, "GL"),
            Map.entry(MaterialKind.LIQUID, "LQ"),
            Map.entry(MaterialKind.FABRIC, "FB"),
            Map.entry(MaterialKind.LEATHER, "LE"),
            Map.entry(MaterialKind.PAPER, "PA"),
            Map.entry(MaterialKind.FOLIAGE, "FO"),
            Map.entry(MaterialKind.LIGHT, "LI"),
            Map.entry(MaterialKind.COMPOSITE, "CO"));

    private ItemCode() {}

    /** Whether somebody may give it: letters, digits and what joins them; none at all is a code, too. */
    public static boolean isAllowed(String code) {
        return code.isEmpty()
                || (code.length() <= LONGEST && ALLOWED.matcher(code).matches());
    }

    /** A material's own code where a library can take it, else the first that is free; a copy of one that ships has none of its own. */
    public static String free(String own, MaterialKind kind, Set<String> taken) {
        boolean free = !own.isEmpty() && isAllowed(own) && !taken.contains(own.toLowerCase(Locale.ROOT));
        return free ? own : next(kind, taken);
    }

    /**
     * The first code that is free.
     *
     * @param kind  null for none
     * @param taken in any case of letters
     */
    public static String next(MaterialKind kind, Set<String> taken) {
        String letters = kind == null ? "XX" : LETTERS.getOrDefault(kind, "XX");
        for (int n = 501; ; n++) {
            String code = letters + "-" + n;
            if (!taken.contains(code) && !taken.contains(code.toLowerCase(Locale.ROOT))) {
                return code;
            }
        }
    }
}

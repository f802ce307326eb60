package app.zolvan.core.exchange.imageset;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;

/** What a picture of a set is for, by the common words in the names of such files. */
enum PictureRole {
    COLOUR(
            Set.of("basecolor", "basecolour", "albedo", "diffuse", "diff", "color", "colour", "col", "bc"),
            Set.of("d", "c")),
    NORMAL(
            Set.of(
                    "normal",
                    "normals",
                    "nor",
                    "nrm",
                    "nrml",
                    "norm",
                    "normalgl",
                    "normaldx",
                    "normalopengl",
                    "normaldirectx"),
            Set.of("n")),
    ROUGHNESS(Set.of("roughness", "rough", "rgh"), Set.of("r")),
    GLOSS(Set.of("gloss", "glossiness", "smoothness", "smooth"), Set.of("g")),
    METALNESS(Set.of("metalness", "metallic", "metal", "mtl", "met"), Set.of("m")),
    HEIGHT(Set.of("height", "displacement", "displace", "disp", "bump"), Set.of("h")),
    OCCLUSION(Set.of("ao", "occlusion", "ambientocclusion", "occ"), Set.of()),
    OPACITY(Set.of("opacity", "alpha", "mask", "transparency"), Set.of("o", "a")),
    GLOW(Set.of("emissive", "emission", "emit", "glow"), Set.of("e")),
    /** Occlusion, roughness and metalness in red, green and blue. */
    PACKED(Set.of("orm", "arm", "occlusionroughnessmetallic"), Set.of());

    private static final Pattern HUMPS = Pattern.compile("(?<=[a-z])(?=[A-Z])|[^\\p{L}\\p{N}]+");
    /** Words of two parts, as names are cut at their joints. */
    private static final Set<String> FIRST_HALVES = Set.of("base", "ambient", "normal");

    private final Set<String> words;
    private final Set<String> letters;

    PictureRole(Set<String> words, Set<String> letters) {
        this.words = words;
        this.letters = letters;
    }

    /** @param set what the names of a set have in common */
    record Named(PictureRole role, String set, List<String> words) {}

    /** @param file a file's name without its folder */
    static Optional<Named> of(String file) {
        String base = file.substring(0, Math.max(0, file.lastIndexOf('.')));
        List<String> words = new ArrayList<>();
        for (String w : HUMPS.split(base)) {
            if (!w.isEmpty()) {
                words.add(w);
            }
        }
        for (int i = words.size() - 1; i >= 0; i--) {
            String word = words.get(i).toLowerCase(Locale.ROOT);
            String before = i > 0 ? words.get(i - 1).toLowerCase(Locale.ROOT) : "";
            boolean last = i == words.size() - 1;
            for (PictureRole role : values()) {
                boolean two = FIRST_HALVES.contains(before) && role.words.contains(before + word);
                if (two || role.words.contains(word) || (last && i > 0 && role.letters.contains(word))) {
                    List<String> rest = new ArrayList<>(words.subList(0, two ? i - 1 : i));
                    return Optional.of(new Named(role, String.join(" ", rest), words));
                }
            }
        }
        return Optional.empty();
    }

    /** Whether the name says that green points down. */
    static boolean saysGreenDown(List<String> words) {
        String all = String.join("", words).toLowerCase(Locale.ROOT);
        return all.contains("directx")
                || words.stream().anyMatch(w -> w.equalsIgnoreCase("dx") || w.equalsIgnoreCase("normaldx"));
    }
}

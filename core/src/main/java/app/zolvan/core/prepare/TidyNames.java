package app.zolvan.core.prepare;

import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/**
 * Proposes names for parts whose names say nothing, so that what belongs together stands together in a sorted list: what a
 * part is, then a number. What it is comes from its role, else from the nearest group or the source material whose name
 * says something, else from its form. Parts of one shape get numbers in a row.
 */
public final class TidyNames {
    private TidyNames() {}

    /** @param part its index */
    public record Proposal(int part, String name) {}

    /** @param roles of all parts, given or proposed; null for none */
    public static List<Proposal> propose(Model model, List<Role> roles) {
        Set<String> taken = new HashSet<>();
        Map<String, List<List<Integer>>> byWord = new TreeMap<>();
        Map<String, List<ShapeSignature>> shapesOfWord = new LinkedHashMap<>();
        for (int p = 0; p < model.parts().size(); p++) {
            Model.Part part = model.parts().get(p);
            if (!Names.saysNothing(part.name())) {
                taken.add(part.name().toLowerCase(Locale.ROOT));
                continue;
            }
            ShapeSignature shape = ShapeSignature.of(model.meshOf(part), model.partToWorld(part));
            String word = word(model, part, roles.get(p), shape);
            List<List<Integer>> alike = byWord.computeIfAbsent(word, k -> new ArrayList<>());
            List<ShapeSignature> known = shapesOfWord.computeIfAbsent(word, k -> new ArrayList<>());
            int k = 0;
            while (k < known.size() && !known.get(k).isLike(shape)) {
                k++;
            }
            if (k == known.size()) {
                known.add(shape);
                alike.add(new ArrayList<>());
            }
            alike.get(k).add(p);
        }
        List<Proposal> out = new ArrayList<>();
        byWord.forEach((word, alike) -> {
            alike.sort(Comparator.comparingInt(l -> -l.size()));
            int count = alike.stream().mapToInt(List::size).sum();
            int digits = Math.max(2, String.valueOf(count).length());
            int number = 0;
            for (List<Integer> same : alike) {
                for (int p : same) {
                    String name = count == 1 && !taken.contains(word.toLowerCase(Locale.ROOT)) ? word : "";
                    while (name.isEmpty() || !taken.add(name.toLowerCase(Locale.ROOT))) {
                        name = word + " " + String.format(Locale.ROOT, "%0" + digits + "d", ++number);
                    }
                    out.add(new Proposal(p, name));
                }
            }
        });
        return out;
    }

    private static String word(Model model, Model.Part part, Role role, ShapeSignature shape) {
        if (role != null) {
            return capital(role.word());
        }
        for (int g = part.group(); g != Model.NONE; g = model.groups().get(g).parent()) {
            if (!Names.saysNothing(model.groups().get(g).name())) {
                return capital(model.groups().get(g).name().strip());
            }
        }
        for (int s : part.sourceOfSpan()) {
            if (s != Model.NONE && !Names.saysNothing(model.sources().get(s).name())) {
                return capital(model.sources().get(s).name().strip());
            }
        }
        return capital(Splitting.form(shape));
    }

    private static String capital(String word) {
        return word.substring(0, 1).toUpperCase(Locale.ROOT) + word.substring(1);
    }
}

package app.zolvan.core.find;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.text.Normalizer;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;

/** What is typed to find a material by, taken apart, with the trade's other words for the same. */
public final class Words {
    /** Longer texts are cut: nobody types more to find something. */
    private static final int MOST_LETTERS = 200;

    private static final int MOST_TERMS = 12;
    private static final Pattern BETWEEN = Pattern.compile("[^\\p{L}\\p{N}]+");
    private static final Pattern MARKS = Pattern.compile("\\p{M}+");
    private static final Pattern CODE = Pattern.compile("(?i)\\b([a-z]{2})-?([0-9]{3})\\b");
    private static final Set<String> EMPTY =
            Set.of("a", "an", "the", "of", "for", "with", "and", "or", "in", "on", "to", "some", "like", "look");
    private static final Map<String, List<String>> SYNONYMS = read();

    private Words() {}

    /**
     * One thing that is sought.
     *
     * @param word  as typed, in small letters
     * @param others what means the same
     */
    public record Term(String word, List<String> others) {}

    public static List<Term> terms(String typed) {
        List<String> words = split(typed);
        List<Term> terms = new ArrayList<>();
        for (int i = 0; i < words.size() && terms.size() < MOST_TERMS; i++) {
            String pair = i + 1 < words.size() ? words.get(i) + " " + words.get(i + 1) : "";
            if (SYNONYMS.containsKey(pair)) {
                terms.add(term(SYNONYMS.get(pair).get(0), SYNONYMS.get(pair)));
                i++;
            } else if (!EMPTY.contains(words.get(i))) {
                terms.add(term(words.get(i), SYNONYMS.getOrDefault(words.get(i), List.of())));
            }
        }
        return terms;
    }

    private static Term term(String word, List<String> others) {
        return new Term(word, others.stream().filter(o -> !o.equals(word)).toList());
    }

    /** Small letters without accents; a code such as PT-014 stays one word, pt014. */
    public static List<String> split(String text) {
        String cut = text.length() > MOST_LETTERS ? text.substring(0, MOST_LETTERS) : text;
        String plain =
                MARKS.matcher(Normalizer.normalize(cut, Normalizer.Form.NFD)).replaceAll("");
        String whole = CODE.matcher(plain).replaceAll("$1$2").toLowerCase(Locale.ROOT);
        return BETWEEN.splitAsStream(whole).filter(w -> !w.isEmpty()).toList();
    }

    /** Every word that is known to have others, so that misspelt ones are recognised, too. */
    public static Set<String> known() {
        return SYNONYMS.keySet();
    }

    private static Map<String, List<String>> read() {
        Map<String, List<String>> all = new LinkedHashMap<>();
        try (BufferedReader in = new BufferedReader(
                new InputStreamReader(Words.class.getResourceAsStream("synonyms.txt"), StandardCharsets.UTF_8))) {
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                int colon = line.indexOf(':');
                if (colon > 0 && line.charAt(0) != '#') {
                    all.put(line.substring(0, colon), split(line.substring(colon + 1)));
                }
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return all;
    }
}

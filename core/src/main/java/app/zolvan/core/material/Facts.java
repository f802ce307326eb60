package app.zolvan.core.material;

import java.io.Serializable;
import java.util.ArrayList;
import java.util.List;

/**
 * What is known of a material besides its look; null for what nobody told.
 *
 * @param density   in kg/m³
 * @param price     per m², in the project's currency
 * @param waste     share of what is bought that is cut away, in percent
 * @param carbon    embodied, in kg CO₂e per m²; below 0 where it stores more
 * @param tags      words of tone, finish, room and use
 * @param substance what it is made of, where that is not what it looks like
 * @param source    where its look came from
 * @param licence   on what terms it may be used
 * @param supplier  who sells it
 * @param article   the supplier's number for it
 * @param drawing   how it is drawn in diagrams; null for as comes
 */
public record Facts(
        Double density,
        Double price,
        Double waste,
        Double carbon,
        List<String> tags,
        String substance,
        String source,
        String licence,
        String supplier,
        String article,
        Drawing drawing)
        implements Serializable {
    public static final Facts NONE = new Facts(null, null, null, null, List.of(), null, null, null, null, null, null);

    private static final double DENSEST = 25_000;
    private static final int MOST_TAGS = 24;
    private static final int LONGEST_TAG = 40;
    private static final int LONGEST = 200;

    public Facts {
        tags = tags == null ? List.of() : List.copyOf(tags);
    }

    /** The numbers that are known of every shipped material. */
    public static Facts of(double density, double price, double waste, double carbon, List<String> tags) {
        return new Facts(density, price, waste, carbon, tags, null, null, null, null, null, null);
    }

    /** @throws ParameterException where they can't be true */
    public void check() {
        require("density", density, 0.1, DENSEST, "A density lies between 0.1 and 25,000 kg/m³.");
        require("price", price, 0, 1e7, "A price per m² lies between 0 and 10,000,000.");
        require("waste", waste, 0, 100, "Waste is a share between 0 and 100 %.");
        require("carbon", carbon, -10_000, 100_000, "Carbon lies between −10,000 and 100,000 kg CO₂e per m².");
        if (tags.size() > MOST_TAGS || tags.stream().anyMatch(t -> t.isBlank() || t.length() > LONGEST_TAG)) {
            throw new ParameterException("tags", "Up to 24 words, each of up to 40 characters.");
        }
        if (drawing != null) {
            drawing.check();
        }
        for (String text : new String[] {source, licence, supplier, article, substance}) {
            if (text != null && text.length() > LONGEST) {
                throw new ParameterException("source", "Each of these texts has at most 200 characters.");
            }
        }
    }

    private static void require(String field, Double value, double least, double most, String sentence) {
        if (value != null && !(value >= least && value <= most)) { // not a number lies outside, too
            throw new ParameterException(field, sentence);
        }
    }

    /** What a finish schedule needs and nobody told, in words. */
    public List<String> missing() {
        List<String> all = new ArrayList<>();
        Object[] needed = {density, price, waste, carbon};
        String[] words = {"density", "price", "waste", "carbon"};
        for (int i = 0; i < needed.length; i++) {
            if (needed[i] == null) {
                all.add(words[i]);
            }
        }
        return all;
    }

    /**
     * The same look made of something else: its density, price, waste and carbon come along; words and where the look came
     * from stay.
     *
     * @param name of the other substance
     */
    public Facts madeOf(String name, Facts other) {
        return new Facts(
                other.density,
                other.price,
                other.waste,
                other.carbon,
                tags,
                name,
                source,
                licence,
                other.supplier,
                other.article,
                drawing);
    }

    /** The look alone: what it is made of is not known any more. */
    public Facts withoutSubstance() {
        return new Facts(null, null, null, null, tags, null, source, licence, null, null, drawing);
    }

    /** Whether anything is told of what it is made of. */
    public boolean hasSubstance() {
        return missing().size() < 4 || substance != null || supplier != null || article != null;
    }
}

package app.zolvan.core.exchange;

import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import java.io.Serializable;
import java.util.List;
import java.util.Map;

/**
 * A model as it came out of a file, already in metres with Y up, and how its size and stance were decided.
 *
 * @param format   the file's format as people call it, such as {@code OBJ}
 * @param variants alternative sets of source materials that the file offers; empty for most
 */
public record Arrival(String format, Model model, UnitDecision unit, UpDecision up, List<Variant> variants)
        implements Serializable {
    public Arrival {
        variants = List.copyOf(variants);
    }

    /** True when the designer should be asked what the file does not say. */
    public boolean isAsking() {
        return !unit.certain() || !up.certain();
    }

    /**
     * What one unit of the file's numbers is.
     *
     * @param metres     length of one unit
     * @param label      the unit's name, such as {@code mm}
     * @param reason     a sentence: where that comes from
     * @param certain    false where it is a guess
     * @param candidates the units it might be, most plausible first, with the model's longest side in metres; empty when
     *                   certain
     */
    public record UnitDecision(double metres, String label, String reason, boolean certain, List<Candidate> candidates)
            implements Serializable {
        public UnitDecision {
            candidates = List.copyOf(candidates);
        }
    }

    /** @param longestSide of the whole model in metres if this were the unit */
    public record Candidate(LengthUnit unit, double longestSide) implements Serializable {}

    /** Which axis pointed up in the file, where that comes from, and false for {@code certain} where it is a guess. */
    public record UpDecision(UpAxis axis, String reason, boolean certain) implements Serializable {}

    /**
     * One of several ways in which the file dresses the model.
     *
     * @param materials for regions by part and span, the source material it shows; others keep their own
     */
    public record Variant(String name, Map<Model.Region, Integer> materials) implements Serializable {}
}

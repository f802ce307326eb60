package app.zolvan.core.snag;

import app.zolvan.core.material.Parameter;
import java.io.Serializable;
import java.util.Map;

/** A change that mends something without a doubt, as one command that can be undone. */
public sealed interface Fix extends Serializable {
    /** Of the parts that a snag is about. */
    enum OfParts implements Fix {
        /** {@code prepare.Sides#unify}. */
        TURN_OUTWARD,
        /** {@code prepare.Repair#DROP}. */
        DROP,
        /** All groups that hold nothing go. */
        REMOVE_GROUPS
    }

    /**
     * Of a material's parameters.
     *
     * @param label  what a button for it says
     * @param values by parameter; flags are 0 or 1
     */
    record OfMaterial(String label, Map<Parameter, Double> values) implements Fix {
        public OfMaterial {
            values = Map.copyOf(values);
        }
    }
}

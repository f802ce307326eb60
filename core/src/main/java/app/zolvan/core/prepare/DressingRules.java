package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Vec3;
import java.util.List;
import java.util.Optional;
import java.util.function.Predicate;

/**
 * Which material each part gets by what is known of it. Rules come in an order: the first that fits a part decides.
 */
public record DressingRules(List<Rule> rules) {

    public DressingRules {
        rules = List.copyOf(rules);
    }

    /** How a part lies in the world. */
    public enum Lie {
        /** Its smallest extent is the one upwards: floors, boards, table tops. */
        FLAT("lies flat"),
        /** Its smallest extent is a level one, and it is wider than high. */
        UPRIGHT("stands upright"),
        /** It is higher than it is wide either way: posts, legs. */
        TALL("is tall");

        private final String word;

        Lie(String word) {
            this.word = word;
        }

        public String word() {
            return word;
        }

        /** @param size extents along the world's axes, y upwards */
        public static Lie of(Vec3 size) {
            if (size.y() >= size.x() && size.y() >= size.z()) {
                return TALL;
            }
            return size.y() <= size.x() && size.y() <= size.z() ? FLAT : UPRIGHT;
        }
    }

    /**
     * All that is said has to fit; what is left open fits everything.
     *
     * @param name     of the part, * for any text; empty for any
     * @param source   name of the material that one of its surfaces arrived with, the same way
     * @param role     null for any
     * @param lie      null for any
     * @param shortest least length of its longest extent, in metres; 0 for any
     * @param longest  greatest length of it, in metres; 0 for any
     * @param material what it becomes
     */
    public record Rule(
            String name, String source, Role role, Lie lie, double shortest, double longest, String material) {

        /** Whether it says anything at all of the parts that it is for. */
        public boolean isOpen() {
            return name.isBlank() && source.isBlank() && role == null && lie == null && shortest <= 0 && longest <= 0;
        }

        boolean fits(Thing t) {
            double length = Math.max(t.size.x(), Math.max(t.size.y(), t.size.z()));
            Predicate<String> ofSource = Wildcard.of(source);
            return (name.isBlank() || Wildcard.of(name).test(t.name))
                    && (source.isBlank() || t.sources.stream().anyMatch(ofSource))
                    && (role == null || role == t.role)
                    && (lie == null || lie == Lie.of(t.size))
                    && length >= shortest
                    && (longest <= 0 || length <= longest);
        }
    }

    /**
     * A part.
     *
     * @param role    null while nobody has said
     * @param size    extents along the world's axes in metres, y upwards
     * @param sources names of the materials that its surfaces arrived with
     */
    public record Thing(String name, Role role, Vec3 size, List<String> sources) {}

    /** The number of the rule that decides about a part; nothing where none fits. */
    public Optional<Integer> first(Thing thing) {
        for (int i = 0; i < rules.size(); i++) {
            if (rules.get(i).fits(thing)) {
                return Optional.of(i);
            }
        }
        return Optional.empty();
    }
}

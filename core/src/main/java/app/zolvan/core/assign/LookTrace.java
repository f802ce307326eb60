package app.zolvan.core.assign;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;

/**
 * Which entry gives one side of one face its material (or its mapping), and why each other one loses. Rules.md, section
 * 1: the broadest level with an on-top entry wins; without one, the narrowest level with an entry. Within a level only its
 * on-top entries count if it has any, and then the side-specific entry comes before the one for both sides.
 *
 * @param steps     one for each level that contains the face, broad to narrow
 * @param winner    index of the winning step, or −1 when nothing is assigned and the look is the one that arrived
 * @param ifCleared index of the step that would win if the winner were cleared, or −1
 * @param beneath   the entry that would win then, which may be of the same level for both sides; null where none would
 */
public record LookTrace(List<Step> steps, int winner, int ifCleared, Entry beneath) {

    /** Why a level's entry shows or does not. */
    public enum Outcome {
        NOTHING,
        WINS,
        HIDDEN_BY_NARROWER,
        HIDDEN_BY_ON_TOP
    }

    /**
     * @param slot  the slot whose entry speaks for the level; null where it has none
     * @param entry null where the level has none
     */
    public record Step(Target target, Slot slot, Entry entry, Outcome outcome) {}

    /** The two things an entry can carry. */
    public enum Aspect {
        MATERIAL(0, Entry::material),
        MAPPING(1, Entry::mapping);

        /** Where it stands in tables. */
        final int place;

        private final Function<Entry, Object> value;

        Aspect(int place, Function<Entry, Object> value) {
            this.place = place;
            this.value = value;
        }

        boolean carriedBy(Entry e) {
            return e != null && value.apply(e) != null;
        }

        /** Whether two entries say the same about it and as strongly; null for none. */
        boolean isSame(Entry a, Entry b) {
            return carriedBy(a) == carriedBy(b)
                    && (!carriedBy(a) || (value.apply(a).equals(value.apply(b)) && a.onTop() == b.onTop()));
        }
    }

    /**
     * @param ladder every target that contains the face, from broad to narrow: model, set, groups outer to inner, part,
     *               face
     * @param side   FRONT or BACK
     */
    public static LookTrace of(Scheme scheme, List<Target> ladder, Side side, Aspect aspect) {
        List<Slot> slots = new ArrayList<>();
        for (Target target : ladder) {
            slots.add(speaker(scheme, target, side, aspect, null));
        }
        int winner = winner(scheme, slots);
        List<Step> steps = new ArrayList<>();
        for (int i = 0; i < ladder.size(); i++) {
            Slot slot = slots.get(i);
            Entry entry = slot == null ? null : scheme.at(slot);
            Outcome outcome = entry == null
                    ? Outcome.NOTHING
                    : i == winner
                            ? Outcome.WINS
                            : scheme.at(slots.get(winner)).onTop()
                                    ? Outcome.HIDDEN_BY_ON_TOP
                                    : Outcome.HIDDEN_BY_NARROWER;
            steps.add(new Step(ladder.get(i), slot, entry, outcome));
        }
        int next = -1;
        Entry beneath = null;
        if (winner >= 0) {
            List<Slot> without = new ArrayList<>(slots);
            without.set(winner, speaker(scheme, ladder.get(winner), side, aspect, slots.get(winner)));
            next = winner(scheme, without);
            beneath = next < 0 ? null : scheme.at(without.get(next));
        }
        return new LookTrace(List.copyOf(steps), winner, next, beneath);
    }

    /** The slot of a level that speaks for it, leaving {@code except} out; null where the level has nothing. */
    static Slot speaker(Scheme scheme, Target target, Side side, Aspect aspect, Slot except) {
        Slot own = carrying(scheme, new Slot(target, side), aspect, except);
        Slot both = carrying(scheme, new Slot(target, Side.BOTH), aspect, except);
        if (own == null || both == null) {
            return own != null ? own : both;
        }
        return !scheme.at(own).onTop() && scheme.at(both).onTop() ? both : own;
    }

    private static Slot carrying(Scheme scheme, Slot slot, Aspect aspect, Slot except) {
        return !slot.equals(except) && aspect.carriedBy(scheme.at(slot)) ? slot : null;
    }

    private static int winner(Scheme scheme, List<Slot> slots) {
        int narrowest = -1;
        for (int i = 0; i < slots.size(); i++) {
            if (slots.get(i) != null) {
                if (scheme.at(slots.get(i)).onTop()) {
                    return i;
                }
                narrowest = i;
            }
        }
        return narrowest;
    }

    /** Why a level shows or does not, as a designer reads it; empty where it has nothing. */
    public String why(int step) {
        return switch (steps.get(step).outcome()) {
            case NOTHING -> "";
            case WINS ->
                steps.get(step).entry().onTop()
                        ? "shows: it is on top, and nothing broader is"
                        : "shows: nothing narrower has a look";
            case HIDDEN_BY_NARROWER ->
                "hidden: the " + steps.get(winner).target().level().word() + " has its own";
            case HIDDEN_BY_ON_TOP ->
                "hidden: the " + steps.get(winner).target().level().word() + "’s is on top";
        };
    }

    /**
     * Where a look shows that is put on the face: at the level that shows now. A look of the whole model that is not on top
     * gives way to its matching set's, and so does one that arrived.
     */
    public Target standing() {
        Step now = winner < 0 ? null : steps.get(winner);
        if (now != null && (now.target().level() != Level.MODEL || now.entry().onTop())) {
            return now.target();
        }
        return steps.stream()
                .map(Step::target)
                .filter(t -> t.level() == Level.SET)
                .findFirst()
                .orElseThrow();
    }

    /**
     * A target that holds the face, some levels away from where a look shows: the nearest there is.
     *
     * @param levels narrower; broader below 0
     */
    public Target stepped(int levels) {
        List<Target> ladder = steps.stream().map(Step::target).toList();
        int to = ladder.indexOf(standing()) + levels;
        return ladder.get(Math.max(0, Math.min(ladder.size() - 1, to)));
    }

    /** What things are called where a look is explained. */
    public interface Names {
        /** The part. */
        String part();

        /** A matching set or group. */
        String of(Target target);

        String material(String id);

        /** What shows where nothing is assigned. */
        String arrived();

        /** The letter of the scheme that a slot's entry comes from; empty for the one that is looked at. */
        String scheme(Slot slot);
    }

    /** Why the face shows what it shows, and what would show without it, in a sentence or two. */
    public String sentence(Names names) {
        if (winner < 0) {
            return names.part() + " shows " + names.arrived()
                    + ": nothing has been put on it, nor on anything that it belongs to.";
        }
        Step now = steps.get(winner);
        String owner = switch (now.target().level()) {
            case MODEL -> "the whole model";
            case SET -> "its matching set “" + names.of(now.target()) + "”";
            case GROUP -> "the group “" + names.of(now.target()) + "”";
            case PART -> "the part itself";
            case FACE -> "its face “" + names.of(now.target()) + "”";
        };
        String scheme = names.scheme(now.slot());
        return names.part() + " shows " + names.material(now.entry().material()) + " because " + owner
                + (now.entry().onTop() ? " has it on top" : " has it")
                + (scheme.isEmpty() ? "" : " in scheme " + scheme) + ", and "
                + (now.entry().onTop() ? "nothing broader is on top" : "nothing narrower has a look")
                + ". Without it, " + (beneath == null ? names.arrived() : names.material(beneath.material()))
                + " would show.";
    }

    /** The winning entry, or null. */
    public Entry winningEntry() {
        return winner < 0 ? null : steps.get(winner).entry();
    }
}

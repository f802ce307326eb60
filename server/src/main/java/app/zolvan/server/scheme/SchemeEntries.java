package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Side;
import app.zolvan.server.model.Scene;
import app.zolvan.server.scheme.SchemeMapper.EntryRow;
import app.zolvan.server.scheme.SchemeMapper.SchemeRow;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;

/**
 * What a scheme's slots hold as things stand, to make changes of. A scheme that is based on another stores what differs:
 * where its base has something, taking off means storing that there is nothing.
 */
final class SchemeEntries {
    private final SchemeRow scheme;
    private final Map<InSlot, EntryRow> own = new HashMap<>();
    private final @Nullable SchemeEntries base;

    private record InSlot(String level, int target, String side) {
        static InSlot of(EntryRow e) {
            return new InSlot(e.level(), e.target(), e.side());
        }
    }

    private SchemeEntries(SchemeRow scheme, @Nullable SchemeEntries base) {
        this.scheme = scheme;
        this.base = base;
    }

    /**
     * @param rows  all schemes of the project
     * @param ownOf what each has by itself
     */
    static SchemeEntries of(Map<UUID, SchemeRow> rows, Function<UUID, List<EntryRow>> ownOf, SchemeRow scheme) {
        SchemeEntries base =
                scheme.base() == null ? null : of(rows, ownOf, Objects.requireNonNull(rows.get(scheme.base())));
        SchemeEntries out = new SchemeEntries(scheme, base);
        ownOf.apply(scheme.id()).forEach(e -> out.own.put(InSlot.of(e), e));
        return out;
    }

    SchemeRow scheme() {
        return scheme;
    }

    Collection<EntryRow> own() {
        return own.values();
    }

    /**
     * The material that covers most of what the scheme dresses by itself; null where it dresses nothing.
     *
     * @param clear materials that are seen through and say little
     */
    @Nullable
    UUID sign(Scene scene, Set<UUID> clear) {
        Map<UUID, Double> areas = new HashMap<>();
        for (EntryRow e : own.values()) {
            if (e.materialId() != null && !clear.contains(e.materialId())) {
                double area = scene.parts().stream()
                        .filter(p -> scene.covers(Level.valueOf(e.level()), e.target(), p))
                        .mapToDouble(Scene.Part::area)
                        .sum();
                areas.merge(e.materialId(), area, Double::sum);
            }
        }
        return areas.entrySet().stream()
                .max(Map.Entry.<UUID, Double>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
                .map(Map.Entry::getKey)
                .orElse(null);
    }

    /** What is in force in every slot that holds something, as if it were the scheme's own. */
    Map<InSlot, EntryRow> inForce() {
        Map<InSlot, EntryRow> all = base == null ? new HashMap<>() : base.inForce();
        all.putAll(own);
        all.values().removeIf(EntryRow::isCleared);
        all.replaceAll((place, e) -> e.in(scheme.id()));
        return all;
    }

    /** What is in force in a slot, its own or its base's; null where nothing is. */
    @Nullable
    EntryRow at(Level level, int target, Side side) {
        return inForce(new InSlot(level.name(), target, side.name()));
    }

    private @Nullable EntryRow inForce(InSlot place) {
        EntryRow e = own.get(place);
        if (e == null) {
            return base == null ? null : base.inForce(place);
        }
        return e.isCleared() ? null : e;
    }

    /** The letter of the scheme that what is in force in a slot comes from; null where it is this scheme's own, or nothing is. */
    @Nullable
    String inheritedFrom(Level level, int target, Side side) {
        InSlot place = new InSlot(level.name(), target, side.name());
        if (own.containsKey(place)) {
            return null;
        }
        for (SchemeEntries s = base; s != null; s = s.base) {
            EntryRow e = s.own.get(place);
            if (e != null) {
                return e.isCleared() ? null : s.scheme.letter();
            }
        }
        return null;
    }

    /** Whether a slot holds whatever another scheme has in it. */
    boolean takesOver(UUID from, Level level, int target, Side side) {
        InSlot slot = new InSlot(level.name(), target, side.name());
        for (SchemeEntries s = this; s.base != null && !s.own.containsKey(slot); s = s.base) {
            if (s.base.scheme.id().equals(from)) {
                return true;
            }
        }
        return false;
    }

    /** Whether the scheme differs from its base in a slot. */
    boolean differs(Level level, int target, Side side) {
        return base != null && own.containsKey(new InSlot(level.name(), target, side.name()));
    }

    /**
     * A slot gets a material; how it lies and whether it is on top stay.
     *
     * @param mapping how it is to lie; null for as it does
     */
    Change put(Level level, int target, Side side, UUID material, @Nullable String mapping) {
        EntryRow before = at(level, target, side);
        return put(new EntryRow(
                scheme.id(),
                level.name(),
                target,
                side.name(),
                material,
                mapping != null || before == null ? mapping : before.mapping(),
                before != null && before.onTop()));
    }

    Change put(EntryRow after) {
        return change(InSlot.of(after), after);
    }

    /** Takes off what a slot holds, if anything: of a base's, it is stored that there is nothing. */
    @Nullable
    Change take(Level level, int target, Side side) {
        InSlot place = new InSlot(level.name(), target, side.name());
        if (inForce(place) == null) {
            return null;
        }
        boolean inherits = base != null && base.inForce(place) != null;
        return change(place, inherits ? EntryRow.cleared(scheme.id(), level, target, side) : null);
    }

    /** Has a slot hold what the base has. */
    Change back(Level level, int target, Side side) {
        return change(new InSlot(level.name(), target, side.name()), null);
    }

    private Change change(InSlot place, @Nullable EntryRow after) {
        return new Change.OfEntry(scheme.id(), place.level, place.target, place.side, own.get(place), after);
    }
}

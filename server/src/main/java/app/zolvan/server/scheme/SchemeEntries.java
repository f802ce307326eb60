package app.zolvan.server.scheme;

import app.zolvan.core.assign.Entry;
import app.zolvan.core.assign.Scheme;
import app.zolvan.core.assign.Side;
import app.zolvan.core.assign.Slot;
import app.zolvan.core.assign.Target;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.server.scheme.SchemeMapper.EntryRow;
import app.zolvan.server.scheme.SchemeMapper.SchemeRow;
import java.util.HashMap;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A scheme as things stand, to make changes of what its slots hold.
 *
 * @param row    how it is stored
 * @param scheme the same as core has it, with those that it is based on
 */
record SchemeEntries(SchemeRow row, Scheme scheme) {

    /** A slot gets a material; {@code mapping} is how it is to lie, null for as it does. */
    Change put(Slot slot, UUID material, @Nullable Mapping mapping) {
        return put(slot, scheme.given(slot, material.toString(), mapping));
    }

    Change put(Slot slot, @Nullable Entry after) {
        Entry before = scheme.entries().get(slot);
        return new Change.OfEntry(
                row.id(),
                slot.target().level().name(),
                LookTable.index(slot.target()),
                slot.side().name(),
                before == null ? null : EntryRow.of(row.id(), slot, before),
                after == null ? null : EntryRow.of(row.id(), slot, after));
    }

    /** Takes off what a slot holds, if anything. */
    @Nullable
    Change take(Slot slot) {
        return scheme.at(slot) == null ? null : put(slot, scheme.taken(slot));
    }

    /**
     * The material that covers most of what the scheme dresses by itself; null where it dresses nothing.
     *
     * @param areaOf what each target covers, in m²
     * @param clear  materials that are seen through and say little
     */
    @Nullable
    UUID sign(Map<Target, Double> areaOf, Set<UUID> clear) {
        Map<UUID, Double> areas = new HashMap<>();
        scheme.entries().forEach((slot, entry) -> {
            UUID material = entry.material() == null ? null : UUID.fromString(entry.material());
            boolean seen = slot.side() != Side.BACK; // a back rarely shows
            if (seen && material != null && !clear.contains(material)) {
                areas.merge(material, areaOf.getOrDefault(slot.target(), 0.0), Double::sum);
            }
        });
        return areas.entrySet().stream()
                .max(Map.Entry.<UUID, Double>comparingByValue().thenComparing(Map.Entry.comparingByKey()))
                .map(Map.Entry::getKey)
                .orElse(null);
    }
}

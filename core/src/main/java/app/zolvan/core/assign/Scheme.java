package app.zolvan.core.assign;

import java.util.HashMap;
import java.util.Map;

/**
 * One option for the whole model: its own entries over those of the scheme it is based on.
 *
 * @param base the scheme it inherits from, or null
 */
public record Scheme(String id, Scheme base, Map<Slot, Entry> entries) {

    public Scheme {
        entries = Map.copyOf(entries);
    }

    /** The entry in force in a slot: this scheme's own, else its base's; null where there is none or it is cleared. */
    public Entry at(Slot slot) {
        for (Scheme s = this; s != null; s = s.base) {
            Entry e = s.entries.get(slot);
            if (e != null) {
                return e.isCleared() ? null : e;
            }
        }
        return null;
    }

    /** What is in force in every slot that holds something, whichever scheme it comes from. */
    public Map<Slot, Entry> effective() {
        Map<Slot, Entry> all = base == null ? new HashMap<>() : base.effective();
        all.putAll(entries);
        all.values().removeIf(Entry::isCleared);
        return all;
    }
}

package app.zolvan.core.assign;

import app.zolvan.core.assign.LookTrace.Aspect;
import app.zolvan.core.mapping.Mapping;
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

    /** The scheme, near or far at its base, that a slot's entry comes from; null where it is its own, or there is none. */
    public Scheme inheritedFrom(Slot slot) {
        for (Scheme s = entries.containsKey(slot) ? null : base; s != null; s = s.base) {
            Entry e = s.entries.get(slot);
            if (e != null) {
                return e.isCleared() ? null : s;
            }
        }
        return null;
    }

    /**
     * The slot of a target that its material shows by on one side; where it has none, the one for both sides.
     *
     * @param side FRONT or BACK
     */
    public Slot speaking(Target target, Side side) {
        Slot speaker = LookTrace.speaker(this, target, side, Aspect.MATERIAL, null);
        return speaker == null ? new Slot(target, Side.BOTH) : speaker;
    }

    /** Whether it has something of its own in a slot, or has it cleared, in the place of what its base has. */
    public boolean differs(Slot slot) {
        return base != null && entries.containsKey(slot);
    }

    /** Whether a slot holds whatever another scheme, near or far at its base, has in it. */
    public boolean takesOver(String from, Slot slot) {
        for (Scheme s = this; s.base != null && !s.entries.containsKey(slot); s = s.base) {
            if (s.base.id.equals(from)) {
                return true;
            }
        }
        return false;
    }

    /**
     * What a slot holds once it is given a material: how it lies and whether it is on top stay.
     *
     * @param mapping how it is to lie; null for as it does
     */
    public Entry given(Slot slot, String material, Mapping mapping) {
        Entry now = at(slot);
        Mapping kept = now == null ? null : now.mapping();
        return new Entry(material, mapping != null ? mapping : kept, now != null && now.onTop());
    }

    /** What has to be stored in a slot so that it holds nothing: where the base has something, that it is cleared; else null. */
    public Entry taken(Slot slot) {
        return base != null && base.at(slot) != null ? Entry.CLEARED : null;
    }

    /** The same without its base, on that one's own base instead: what it took over from it is its own now. */
    public Scheme settled() {
        Map<Slot, Entry> all = new HashMap<>(base.entries);
        all.putAll(entries);
        return new Scheme(id, base.base, all);
    }

    /** What is in force in every slot that holds something, whichever scheme it comes from. */
    public Map<Slot, Entry> effective() {
        Map<Slot, Entry> all = base == null ? new HashMap<>() : base.effective();
        all.putAll(entries);
        all.values().removeIf(Entry::isCleared);
        return all;
    }
}

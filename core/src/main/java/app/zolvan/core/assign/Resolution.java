package app.zolvan.core.assign;

import app.zolvan.core.assign.LookTrace.Aspect;
import java.util.Arrays;

/**
 * Which entry gives each side of each region of a model its material and its mapping in one scheme. The rule is that of
 * {@link LookTrace}, worked out for all regions in one go down their shared ladders; a change of a slot is worked out again
 * only below its target, and only as far down as anything else comes of it. Not for several threads at once.
 */
public final class Resolution {
    private static final int NONE = Ladders.NONE;
    /** Of a target: FRONT, BACK and BOTH. */
    private static final int SLOTS = Side.values().length;
    /** Front and back, material and mapping. */
    private static final int WAYS = 4;

    private static final int ON_TOP = 4;
    private static final Side[] SIDES = {Side.FRONT, Side.BACK};
    private static final Side[] ALL_SIDES = {Side.FRONT, Side.BACK, Side.BOTH};
    private static final Aspect[] ASPECTS = {Aspect.MATERIAL, Aspect.MAPPING};

    private final Ladders ladders;
    /** What each slot holds: which aspects, as bits, and whether it is on top. */
    private final byte[] held;

    private final Entry[] entries;
    /** The slot that wins at each rung, of all above it and its own, in each way; {@link #NONE} for none. */
    private final int[] wins;

    private Resolution(Ladders ladders) {
        this.ladders = ladders;
        held = new byte[SLOTS * ladders.targetCount()];
        entries = new Entry[held.length];
        wins = new int[WAYS * ladders.target.length];
    }

    public static Resolution of(Ladders ladders, Scheme scheme) {
        Resolution r = new Resolution(ladders);
        scheme.effective().forEach((slot, entry) -> {
            int target = ladders.numberOf(slot.target());
            if (target != NONE) {
                r.hold(SLOTS * target + slot.side().place, entry);
            }
        });
        for (int way = 0; way < WAYS; way++) {
            r.resolveAll(way);
        }
        return r;
    }

    private void hold(int slot, Entry entry) {
        entries[slot] = entry;
        held[slot] = 0;
        if (entry != null) {
            for (Aspect a : Aspect.values()) {
                held[slot] |= (byte) (a.carriedBy(entry) ? 1 << a.place : 0);
            }
            held[slot] |= (byte) (entry.onTop() ? ON_TOP : 0);
        }
    }

    private void resolveAll(int way) {
        int n = ladders.target.length;
        int[] speaks = new int[ladders.targetCount()];
        Arrays.setAll(speaks, t -> speaker(t, way));
        for (int rung = 0, at = way * n; rung < n; rung++, at++) {
            int above = ladders.above[rung];
            wins[at] = winner(above == NONE ? NONE : wins[way * n + above], speaks[ladders.target[rung]]);
        }
    }

    /** The slot that speaks for a target: that of the side first, unless only the one for both is on top. */
    private int speaker(int target, int way) {
        int aspect = 1 << (way & 1);
        int own = SLOTS * target + (way >> 1);
        int both = SLOTS * target + Side.BOTH.place;
        boolean ownSpeaks = (held[own] & aspect) != 0;
        if ((held[both] & aspect) == 0) {
            return ownSpeaks ? own : NONE;
        }
        boolean bothIsAbove = (held[own] & ON_TOP) == 0 && (held[both] & ON_TOP) != 0;
        return ownSpeaks && !bothIsAbove ? own : both;
    }

    private int winner(int above, int own) {
        boolean aboveIsOnTop = above != NONE && (held[above] & ON_TOP) != 0;
        return own == NONE || aboveIsOnTop ? above : own;
    }

    /**
     * Puts another entry into a slot.
     *
     * @param entry null or cleared for none
     * @return the regions that show something else from then on, or lie otherwise, on either side; each once
     */
    public int[] change(Slot slot, Entry entry) {
        int target = ladders.numberOf(slot.target());
        if (target == NONE) {
            return new int[0];
        }
        int changed = SLOTS * target + slot.side().place;
        Entry before = entries[changed];
        Entry after = entry == null || entry.isCleared() ? null : entry;
        hold(changed, after);
        boolean[] touched = new boolean[0];
        int n = ladders.target.length;
        int found = 0;
        for (int way = 0; way < WAYS; way++) {
            if (!slot.side().covers(SIDES[way >> 1]) || ASPECTS[way & 1].isSame(before, after)) {
                continue;
            }
            int speaks = speaker(target, way);
            for (int top : ladders.rungsOf(target)) {
                int above = ladders.above[top] == NONE ? NONE : wins[way * n + ladders.above[top]];
                for (int rung = top; rung < ladders.end[top]; ) {
                    int up = ladders.above[rung];
                    int was = wins[way * n + rung];
                    int now = rung == top
                            ? winner(above, speaks)
                            : winner(wins[way * n + up], speaker(ladders.target[rung], way));
                    if (now == was && now != changed) {
                        rung = ladders.end[rung];
                        continue;
                    }
                    wins[way * n + rung] = now;
                    int from = ladders.firstRegion[rung];
                    int to = ladders.firstRegion[rung + 1];
                    if (from < to && touched.length == 0) {
                        touched = new boolean[ladders.regionCount()];
                    }
                    for (int i = from; i < to; i++) {
                        found += touched[ladders.regions[i]] ? 0 : 1;
                        touched[ladders.regions[i]] = true;
                    }
                    rung++;
                }
            }
        }
        int[] out = new int[found];
        for (int r = 0, k = 0; k < found; r++) {
            if (touched[r]) {
                out[k++] = r;
            }
        }
        return out;
    }

    /**
     * The winning entry.
     *
     * @param side FRONT or BACK
     * @return null where nothing is assigned
     */
    public Entry entry(int region, Side side, Aspect aspect) {
        int slot = slotAt(region, side, aspect);
        return slot == NONE ? null : entries[slot];
    }

    /** Where the winning entry is; null where nothing is assigned. */
    public Slot slot(int region, Side side, Aspect aspect) {
        int slot = slotAt(region, side, aspect);
        return slot == NONE ? null : new Slot(ladders.targetOf(slot / SLOTS), ALL_SIDES[slot % SLOTS]);
    }

    private int slotAt(int region, Side side, Aspect aspect) {
        return wins[(side.place * 2 + aspect.place) * ladders.target.length + ladders.rungOf[region]];
    }
}

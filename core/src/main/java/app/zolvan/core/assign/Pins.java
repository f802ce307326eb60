package app.zolvan.core.assign;

import app.zolvan.core.assign.LookTrace.Aspect;
import app.zolvan.core.mapping.Mapping;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;

/** What has to be put onto things so that they keep what they show while things around them are given something else. */
public final class Pins {
    private static final List<Side> SIDES = List.of(Side.FRONT, Side.BACK);

    private Pins() {}

    /**
     * A region that is to keep what it shows.
     *
     * @param number  of the region, see {@link Ladders}
     * @param own     the narrowest target that holds it
     * @param arrived the material that it shows where nobody has put any; null for none that could be put on it
     */
    public record Kept(int number, Target own, String arrived) {}

    /** Something can't keep what it shows. */
    public static final class CannotStayException extends Exception {
        private static final long serialVersionUID = 1;

        private final transient Target target;

        CannotStayException(Target target) {
            super("can't stay: " + target);
            this.target = target;
        }

        public Target target() {
            return target;
        }
    }

    private record Value(String material, Mapping mapping) {}

    /**
     * @param before  the scheme as it is
     * @param changes what slots are about to have in force; null or cleared for nothing
     * @return entries for slots of the narrowest targets; none where nothing that is kept would change
     * @throws CannotStayException where no entry of a thing's own would keep it: something broader is on top, or its regions
     *     show different things
     */
    public static Map<Slot, Entry> of(Ladders ladders, Scheme before, Map<Slot, Entry> changes, List<Kept> kept)
            throws CannotStayException {
        Resolution r = Resolution.of(ladders, before);
        Map<Target, List<Kept>> things = new LinkedHashMap<>();
        kept.forEach(k -> things.computeIfAbsent(k.own, t -> new ArrayList<>()).add(k));
        Map<Kept, List<Value>> was = new HashMap<>();
        kept.forEach(k -> was.put(k, values(r, k)));
        changes.forEach(r::change);
        Map<Slot, Entry> pins = new LinkedHashMap<>();
        for (Map.Entry<Target, List<Kept>> thing : things.entrySet()) {
            pin(r, thing.getKey(), thing.getValue(), was, pins);
        }
        pins.forEach(r::change);
        for (Kept k : kept) {
            if (!values(r, k).equals(was.get(k))) {
                throw new CannotStayException(k.own);
            }
        }
        return pins;
    }

    private static void pin(
            Resolution now, Target own, List<Kept> regions, Map<Kept, List<Value>> was, Map<Slot, Entry> pins)
            throws CannotStayException {
        List<Value> wanted = new ArrayList<>();
        for (int side = 0; side < SIDES.size(); side++) {
            int s = side;
            boolean stays = regions.stream()
                    .allMatch(k -> values(now, k).get(s).equals(was.get(k).get(s)));
            List<Value> values =
                    regions.stream().map(k -> was.get(k).get(s)).distinct().toList();
            if (!stays && (values.size() > 1 || values.get(0).material == null)) {
                throw new CannotStayException(own);
            }
            wanted.add(stays ? null : values.get(0));
        }
        if (wanted.get(0) != null && Objects.equals(wanted.get(0), wanted.get(1))) {
            pins.put(new Slot(own, Side.BOTH), entry(wanted.get(0)));
            return;
        }
        for (int side = 0; side < SIDES.size(); side++) {
            if (wanted.get(side) != null) {
                pins.put(new Slot(own, SIDES.get(side)), entry(wanted.get(side)));
            }
        }
    }

    private static Entry entry(Value v) {
        return new Entry(v.material, v.mapping, false);
    }

    private static List<Value> values(Resolution r, Kept k) {
        return SIDES.stream()
                .map(side -> {
                    Entry material = r.entry(k.number, side, Aspect.MATERIAL);
                    Entry mapping = r.entry(k.number, side, Aspect.MAPPING);
                    return new Value(
                            material == null ? k.arrived : material.material(),
                            mapping == null ? null : mapping.mapping());
                })
                .toList();
    }
}

package app.zolvan.core.adjust;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Shade;
import app.zolvan.core.material.MainColour;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/**
 * Materials that follow others, near and far: variations their parent in all that is not their own, colours another's main
 * colour as a shade of it.
 *
 * @param <K> what tells materials apart
 */
public final class Following<K> {
    /** CIEDE2000 up to which a colour counts as unchanged: less than anybody sees. */
    private static final double SAME = 0.05;

    private final Map<K, Member<K>> members = new LinkedHashMap<>();
    private final Function<String, LinearRgb> means;

    /**
     * A material, and whom it follows.
     *
     * @param parent that it is a variation of; null for none
     * @param own    of a variation, the parameters that are its own
     * @param main   whose colour it follows; null for none
     * @param shade  of the main colour; null where it follows none
     */
    public record Member<K>(K id, Surface surface, K parent, Set<Parameter> own, K main, Shade shade) {
        private boolean follows(K other) {
            return other.equals(parent) || other.equals(main);
        }
    }

    /** @param means gives the mean of a picture's linear colours by its digest */
    public Following(List<Member<K>> all, Function<String, LinearRgb> means) {
        all.forEach(m -> members.put(m.id, m));
        this.means = means;
    }

    /**
     * What all those become that follow some that have changed. Where materials follow each other in a circle, each changes as
     * often as there are materials at most.
     *
     * @param changed what some materials look like now
     * @return without those that changed by themselves
     */
    public Map<K, Surface> after(Map<K, Surface> changed) {
        Map<K, Surface> now = new LinkedHashMap<>(changed);
        Map<K, Integer> times = new HashMap<>();
        Deque<K> open = new ArrayDeque<>(changed.keySet());
        while (!open.isEmpty()) {
            K leader = open.remove();
            for (Member<K> m : members.values()) {
                if (!m.follows(leader)
                        || changed.containsKey(m.id)
                        || times.merge(m.id, 1, Integer::sum) > members.size()) {
                    continue;
                }
                Surface shown = shown(m, now);
                if (!shown.equals(surface(m.id, now))) {
                    now.put(m.id, shown);
                    open.add(m.id);
                }
            }
        }
        now.keySet().removeAll(changed.keySet());
        return now;
    }

    private Surface shown(Member<K> m, Map<K, Surface> now) {
        Surface s = m.surface;
        if (m.parent != null) {
            s = Variation.of(surface(m.parent, now), s, m.own);
        }
        return m.main == null ? s : MainColour.with(s, m.shade.of(MainColour.seen(surface(m.main, now), means)), means);
    }

    private Surface surface(K id, Map<K, Surface> now) {
        return now.containsKey(id) ? now.get(id) : members.get(id).surface;
    }

    /** Whether what one material looks like decides about another, near or far, or they are the same. */
    public boolean decides(K one, K other) {
        return decides(one, other, new HashSet<>());
    }

    private boolean decides(K one, K other, Set<K> seen) {
        if (one.equals(other)) {
            return true;
        }
        Member<K> m = members.get(other);
        if (m == null || !seen.add(other)) {
            return false;
        }
        return (m.parent != null && decides(one, m.parent, seen)) || (m.main != null && decides(one, m.main, seen));
    }

    /** Whether a material still has its colour after it was changed: if not, it follows another's no longer. */
    public static boolean keepsColour(Surface before, Surface after, Function<String, LinearRgb> means) {
        CieLab was = CieLab.of(MainColour.seen(before, means));
        return was.difference(CieLab.of(MainColour.seen(after, means))) <= SAME;
    }
}

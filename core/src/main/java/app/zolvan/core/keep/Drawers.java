package app.zolvan.core.keep;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;

/**
 * Drawers of a library, which may hold drawers; those in one another's company have an order.
 *
 * @param all so that each comes after the one that holds it, and those of one holder stand in their order
 * @param <K> what a drawer is known by
 */
public record Drawers<K>(List<Drawer<K>> all) {
    /** How deep they may lie in one another. */
    public static final int DEEPEST = 5;

    /** @param parent the drawer that holds it; null for none */
    public record Drawer<K>(K id, K parent, String name) {
        Drawer<K> in(K other) {
            return new Drawer<>(id, other, name);
        }
    }

    /** Sorts drawers that come in any order; those whose holder is not among them lie outermost. */
    public Drawers {
        List<Drawer<K>> sorted = new ArrayList<>();
        Set<K> known = new HashSet<>();
        all.forEach(d -> known.add(d.id));
        List<Drawer<K>> given = all.stream()
                .map(d -> d.parent == null || known.contains(d.parent) ? d : d.in(null))
                .toList();
        sort(null, given, sorted);
        all = List.copyOf(sorted);
    }

    private static <K> void sort(K holder, List<Drawer<K>> given, List<Drawer<K>> into) {
        for (Drawer<K> d : given) {
            if (Objects.equals(d.parent, holder)) {
                into.add(d);
                sort(d.id, given, into);
            }
        }
    }

    /** How many drawers hold it. */
    public int depth(K id) {
        int depth = 0;
        for (K at = parentOf(id); at != null; at = parentOf(at)) {
            depth++;
        }
        return depth;
    }

    private K parentOf(K id) {
        return all.stream()
                .filter(d -> d.id.equals(id))
                .findFirst()
                .map(Drawer::parent)
                .orElse(null);
    }

    /** A drawer and all within it. */
    public Set<K> within(K id) {
        Set<K> in = new HashSet<>(Set.of(id));
        for (Drawer<K> d : all) {
            if (d.parent != null && in.contains(d.parent)) {
                in.add(d.id);
            }
        }
        return in;
    }

    /** Its name after those of the drawers that hold it. */
    public String path(K id) {
        StringBuilder path = new StringBuilder();
        for (K at = id; at != null; at = parentOf(at)) {
            K here = at;
            String name = all.stream()
                    .filter(d -> d.id.equals(here))
                    .findFirst()
                    .map(Drawer::name)
                    .orElse("");
            path.insert(0, path.isEmpty() ? name : name + " › ");
        }
        return path.toString();
    }

    /** Why a drawer can't lie in another; empty where it can. */
    public String hindrance(K id, K into) {
        if (into == null) {
            return "";
        }
        Set<K> own = within(id);
        if (own.contains(into)) {
            return "A drawer can’t lie in itself.";
        }
        int below = own.stream().mapToInt(this::depth).max().orElse(0) - depth(id);
        return depth(into) + 1 + below >= DEEPEST ? "Drawers lie at most " + DEEPEST + " deep in one another." : "";
    }

    /**
     * The drawers once one has moved.
     *
     * @param into the drawer that holds it from then on; null for none
     * @param at   its place among those that lie there, from 0; past the end is the end
     */
    public Drawers<K> moved(K id, K into, int at) {
        if (!hindrance(id, into).isEmpty()) {
            throw new IllegalArgumentException(hindrance(id, into));
        }
        List<Drawer<K>> rest = new ArrayList<>();
        List<Drawer<K>> there = new ArrayList<>();
        Drawer<K> moving = null;
        for (Drawer<K> d : all) {
            if (d.id.equals(id)) {
                moving = d.in(into);
            } else if (Objects.equals(d.parent, into)) {
                there.add(d);
            } else {
                rest.add(d);
            }
        }
        if (moving == null) {
            throw new IllegalArgumentException("no such drawer");
        }
        there.add(Math.min(Math.max(at, 0), there.size()), moving);
        rest.addAll(there);
        return new Drawers<>(rest);
    }
}

package app.zolvan.core.exchange.usd;

import app.zolvan.core.exchange.ImportException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** A prim as all layers together describe it: a path, and what each has to say, strongest first. */
final class UsdNode {
    /**
     * One layer's description, reached by an arc that took {@code from} there to {@code to} here.
     *
     * @param steps how many arcs lie between
     */
    record Site(UsdPrim prim, UsdLayer layer, String from, String to, int steps) {
        /** A path of that layer as a path here. */
        String here(String path) {
            if (from.equals(to)) {
                return path;
            }
            char next = path.length() > from.length() ? path.charAt(from.length()) : '/';
            return path.startsWith(from) && (next == '/' || next == '.') ? to + path.substring(from.length()) : path;
        }

        Site of(UsdPrim child) {
            return new Site(child, layer, from, to, steps);
        }
    }

    private final String path;
    private final UsdNode parent;
    private final List<Site> sites;
    private Map<String, UsdNode> children;

    UsdNode(String path, UsdNode parent, List<Site> sites) {
        this.path = path;
        this.parent = parent;
        this.sites = sites;
    }

    String path() {
        return path;
    }

    UsdNode parent() {
        return parent;
    }

    List<Site> sites() {
        return sites;
    }

    String name() {
        return path.substring(path.lastIndexOf('/') + 1);
    }

    String type() {
        for (Site s : sites) {
            if (!s.prim.type().isEmpty()) {
                return s.prim.type();
            }
        }
        return "";
    }

    /** True when some layer defines it, and none that is stronger keeps it for inheriting only. */
    boolean isDefined() {
        for (Site s : sites) {
            if (s.prim.specifier() != UsdPrim.Specifier.OVER) {
                return s.prim.specifier() == UsdPrim.Specifier.DEF;
            }
        }
        return false;
    }

    Object metadata(String key) {
        for (Site s : sites) {
            Object v = s.prim.metadata().get(key);
            if (v != null) {
                return v;
            }
        }
        return null;
    }

    /** The strongest description of a property that says something; null for none. */
    UsdProperty property(String name) {
        Site s = siteOf(name);
        return s == null ? null : s.prim.properties().get(name);
    }

    private Site siteOf(String name) {
        for (Site s : sites) {
            UsdProperty p = s.prim.properties().get(name);
            if (p != null && p.speaks()) {
                return s;
            }
        }
        return null;
    }

    /** The layer that the strongest description of a property stands in; for the files that it names. */
    UsdLayer layerOf(String property) {
        Site s = siteOf(property);
        return s == null ? null : s.layer;
    }

    /** Where a relationship or a connection leads first; null for nowhere. */
    String target(String property) {
        Site s = siteOf(property);
        List<String> targets =
                s == null ? List.of() : s.prim.properties().get(property).targets();
        return targets.isEmpty() ? null : s.here(targets.get(0));
    }

    List<String> targets(String property) {
        Site s = siteOf(property);
        return s == null
                ? List.of()
                : s.prim.properties().get(property).targets().stream()
                        .map(s::here)
                        .toList();
    }

    Set<String> propertyNames() {
        Set<String> out = new LinkedHashSet<>();
        for (Site s : sites) {
            out.addAll(s.prim.properties().keySet());
        }
        return out;
    }

    /** A description of a property that says how it is meant, which need not be the one with the value. */
    Object propertyMetadata(String property, String key) {
        for (Site s : sites) {
            UsdProperty p = s.prim.properties().get(property);
            Object v = p == null ? null : p.metadata().get(key);
            if (v != null) {
                return v;
            }
        }
        return null;
    }

    String token(String property, String otherwise) throws ImportException {
        UsdProperty p = property(property);
        String t = p == null ? "" : p.text();
        return t.isEmpty() ? otherwise : t;
    }

    double number(String property, double otherwise) throws ImportException {
        UsdProperty p = property(property);
        return p == null ? otherwise : p.number(otherwise);
    }

    boolean flag(String property, boolean otherwise) throws ImportException {
        UsdProperty p = property(property);
        Object v = p == null ? null : p.value();
        if (v instanceof double[] d && d.length == 1) {
            return d[0] != 0;
        }
        return v instanceof Boolean b ? b : otherwise;
    }

    /** The values of a property, or null unless there are so many of them and all are finite. */
    double[] numbers(String property, int count) throws ImportException {
        UsdProperty p = property(property);
        double[] v = p == null ? new double[0] : p.numbers();
        if (v.length != count) {
            return null;
        }
        for (double d : v) {
            if (!Double.isFinite(d)) {
                return null;
            }
        }
        return v;
    }

    /** Made when first asked for. */
    Map<String, UsdNode> children(UsdStage stage) throws ImportException {
        if (children == null) {
            Map<String, List<Site>> byName = new LinkedHashMap<>();
            for (Site s : sites) {
                for (UsdPrim child : s.prim.children().values()) {
                    byName.computeIfAbsent(child.name(), n -> new ArrayList<>()).add(s.of(child));
                }
            }
            Map<String, UsdNode> made = new LinkedHashMap<>();
            for (Map.Entry<String, List<Site>> e : byName.entrySet()) {
                String at = path.equals("/") ? "/" + e.getKey() : path + "/" + e.getKey();
                made.put(e.getKey(), stage.node(at, this, e.getValue()));
            }
            children = made;
        }
        return children;
    }
}

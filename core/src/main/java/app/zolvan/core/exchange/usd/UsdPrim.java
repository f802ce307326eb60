package app.zolvan.core.exchange.usd;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** A prim as one layer describes it. The layer itself is a prim without a name. */
final class UsdPrim {
    /** Whether the prim stands for itself, only adds to one described elsewhere, or is there to be inherited. */
    enum Specifier {
        DEF(0),
        OVER(1),
        CLASS(2);

        /** The number in binary files. */
        final int code;

        Specifier(int code) {
            this.code = code;
        }

        static Specifier of(int code) {
            return code == DEF.code ? DEF : code == CLASS.code ? CLASS : OVER;
        }
    }

    /** Ways in which a prim takes over what another describes. */
    enum ArcKind {
        INHERIT,
        REFERENCE,
        PAYLOAD,
        SPECIALIZE
    }

    /**
     * @param asset the other layer's file, empty for this layer
     * @param path  of the prim there, empty for the layer's default one
     */
    record Arc(ArcKind kind, String asset, String path) {}

    private final String name;
    private Specifier specifier = Specifier.OVER;
    private String type = "";
    private final Map<String, Object> metadata = new LinkedHashMap<>();
    private final Map<String, UsdProperty> properties = new LinkedHashMap<>();
    private final Map<String, UsdPrim> children = new LinkedHashMap<>();
    private final Map<String, Map<String, UsdPrim>> variants = new LinkedHashMap<>();
    private final Map<String, String> selections = new LinkedHashMap<>();
    private final List<Arc> arcs = new ArrayList<>();

    UsdPrim(String name) {
        this.name = name;
    }

    String name() {
        return name;
    }

    Specifier specifier() {
        return specifier;
    }

    void specify(Specifier how, String of) {
        specifier = how;
        type = of;
    }

    String type() {
        return type;
    }

    /** Values as {@link UsdProperty#value} gives them. */
    Map<String, Object> metadata() {
        return metadata;
    }

    Map<String, UsdProperty> properties() {
        return properties;
    }

    Map<String, UsdPrim> children() {
        return children;
    }

    /** What each variant adds, by the names of the set and of the variant. */
    Map<String, Map<String, UsdPrim>> variants() {
        return variants;
    }

    /** The variant chosen in a set, by the set's name. */
    Map<String, String> selections() {
        return selections;
    }

    List<Arc> arcs() {
        return arcs;
    }

    /** The child of that name, made where there is none yet. */
    UsdPrim child(String of) {
        return children.computeIfAbsent(of, UsdPrim::new);
    }

    /** A child of a name that none has yet. */
    UsdPrim define(String of, String childType) {
        UsdPrim c = child(of);
        c.specify(Specifier.DEF, childType);
        return c;
    }

    UsdPrim variant(String set, String of) {
        return variants.computeIfAbsent(set, s -> new LinkedHashMap<>()).computeIfAbsent(of, UsdPrim::new);
    }

    UsdProperty attribute(String attributeType, String of, Object value) {
        UsdProperty p = new UsdProperty(of, attributeType);
        p.set(value);
        properties.put(of, p);
        return p;
    }

    void relationship(String of, String target) {
        UsdProperty p = new UsdProperty(of, UsdProperty.RELATIONSHIP);
        p.point(List.of(target));
        properties.put(of, p);
    }
}

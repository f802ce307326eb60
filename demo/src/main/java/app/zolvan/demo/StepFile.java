package app.zolvan.demo;

import app.zolvan.core.geometry.Vec3;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * A small STEP file (ISO 10303-21, application protocol 214): solids bounded by planes and whole cylinders, coloured, each
 * a product of its own, and assemblies that place products. Millimetres. Edges are shared between the faces that meet
 * there, as a sewn solid needs.
 */
final class StepFile {
    private final StringBuilder data = new StringBuilder();
    private int last;
    private final int context;
    private final int productContext;
    private final int definitionContext;
    private final List<Integer> styled = new ArrayList<>();

    /** A product that can be placed: its definition and the shape that represents it. */
    record Product(String name, int definition, int shape) {}

    /** A directed loop of edges. */
    record Loop(List<Integer> orientedEdges) {}

    StepFile() {
        int application = add("APPLICATION_CONTEXT('core data for automotive mechanical design processes')");
        add("APPLICATION_PROTOCOL_DEFINITION('international standard','automotive_design',2000,#" + application + ")");
        productContext = add("PRODUCT_CONTEXT('',#" + application + ",'mechanical')");
        definitionContext = add("PRODUCT_DEFINITION_CONTEXT('part definition',#" + application + ",'design')");
        int length = add("(LENGTH_UNIT() NAMED_UNIT(*) SI_UNIT(.MILLI.,.METRE.))");
        int angle = add("(NAMED_UNIT(*) PLANE_ANGLE_UNIT() SI_UNIT($,.RADIAN.))");
        int solidAngle = add("(NAMED_UNIT(*) SI_UNIT($,.STERADIAN.) SOLID_ANGLE_UNIT())");
        int accuracy = add("UNCERTAINTY_MEASURE_WITH_UNIT(LENGTH_MEASURE(1.E-05),#" + length
                + ",'distance_accuracy_value','confusion accuracy')");
        context = add("(GEOMETRIC_REPRESENTATION_CONTEXT(3) GLOBAL_UNCERTAINTY_ASSIGNED_CONTEXT((#" + accuracy
                + ")) GLOBAL_UNIT_ASSIGNED_CONTEXT((#" + length + ",#" + angle + ",#" + solidAngle
                + ")) REPRESENTATION_CONTEXT('',''))");
    }

    /** A solid under construction; its faces look outwards. */
    final class Solid {
        private final Map<Vec3, Integer> vertices = new HashMap<>();
        private final Map<List<Vec3>, Integer> lines = new HashMap<>();
        private final Map<List<Object>, Integer> circles = new HashMap<>();
        private final List<Integer> faces = new ArrayList<>();

        private int vertex(Vec3 p) {
            return vertices.computeIfAbsent(p, q -> add("VERTEX_POINT('',#" + point(q) + ")"));
        }

        private int along(Vec3 a, Vec3 b) {
            Integer forward = lines.get(List.of(a, b));
            Integer backward = lines.get(List.of(b, a));
            if (forward == null && backward == null) {
                Vec3 d = b.minus(a);
                int vector = add("VECTOR('',#" + direction(d.normalised()) + "," + number(d.length()) + ")");
                int line = add("LINE('',#" + point(a) + ",#" + vector + ")");
                forward = add("EDGE_CURVE('',#" + vertex(a) + ",#" + vertex(b) + ",#" + line + ",.T.)");
                lines.put(List.of(a, b), forward);
            }
            return oriented(forward != null ? forward : backward, forward != null);
        }

        /** A whole circle that starts and ends on its reference direction; anticlockwise about its axis if {@code sense}. */
        private int around(Vec3 centre, Vec3 axis, Vec3 reference, double radius, boolean sense) {
            int edge = circles.computeIfAbsent(List.of(centre, axis, radius), key -> {
                int circle = add("CIRCLE('',#" + placement(centre, axis, reference) + "," + number(radius) + ")");
                int v = vertex(centre.plus(reference.times(radius)));
                return add("EDGE_CURVE('',#" + v + ",#" + v + ",#" + circle + ",.T.)");
            });
            return oriented(edge, sense);
        }

        /** Straight edges through the points and back to the first. */
        Loop polygon(List<Vec3> points) {
            List<Integer> edges = new ArrayList<>();
            for (int i = 0; i < points.size(); i++) {
                edges.add(along(points.get(i), points.get((i + 1) % points.size())));
            }
            return new Loop(edges);
        }

        Loop circle(Vec3 centre, Vec3 axis, Vec3 reference, double radius, boolean sense) {
            return new Loop(List.of(around(centre, axis, reference, radius, sense)));
        }

        /** A plane face; the outer loop runs anticlockwise about the normal, holes clockwise. */
        void plane(Vec3 origin, Vec3 normal, Vec3 reference, Loop outer, List<Loop> holes) {
            List<Integer> bounds = new ArrayList<>();
            bounds.add(add("FACE_OUTER_BOUND('',#" + edgeLoop(outer) + ",.T.)"));
            for (Loop hole : holes) {
                bounds.add(add("FACE_BOUND('',#" + edgeLoop(hole) + ",.T.)"));
            }
            int plane = add("PLANE('',#" + placement(origin, normal, reference) + ")");
            faces.add(add("ADVANCED_FACE(''," + list(bounds) + ",#" + plane + ",.T.)"));
        }

        /** The side of a cylinder standing on {@code foot}: a pin's outside, or with {@code hole} a hole's wall. */
        void cylinder(Vec3 foot, Vec3 axis, Vec3 reference, double radius, double height, boolean hole) {
            Vec3 top = foot.plus(axis.times(height));
            Vec3 out = reference.times(radius);
            List<Integer> edges = List.of(
                    around(foot, axis, reference, radius, !hole),
                    along(hole ? top.plus(out) : foot.plus(out), hole ? foot.plus(out) : top.plus(out)),
                    around(top, axis, reference, radius, hole),
                    along(hole ? foot.plus(out) : top.plus(out), hole ? top.plus(out) : foot.plus(out)));
            List<Integer> order = hole ? List.of(edges.get(0), edges.get(3), edges.get(2), edges.get(1)) : edges;
            int bound = add("FACE_OUTER_BOUND('',#" + edgeLoop(new Loop(order)) + ",.T.)");
            int surface =
                    add("CYLINDRICAL_SURFACE('',#" + placement(foot, axis, reference) + "," + number(radius) + ")");
            faces.add(add("ADVANCED_FACE('',(#" + bound + "),#" + surface + "," + (hole ? ".F." : ".T.") + ")"));
        }

        Product finish(String name, double red, double green, double blue) {
            int shell = add("CLOSED_SHELL(''," + list(faces) + ")");
            int solid = add("MANIFOLD_SOLID_BREP('" + name + "',#" + shell + ")");
            int colour = add("COLOUR_RGB(''," + number(red) + "," + number(green) + "," + number(blue) + ")");
            int area = add("FILL_AREA_STYLE('',(#" + add("FILL_AREA_STYLE_COLOUR('',#" + colour + ")") + "))");
            int fill = add("SURFACE_STYLE_FILL_AREA(#" + area + ")");
            int side = add("SURFACE_SIDE_STYLE('',(#" + fill + "))");
            int use = add("SURFACE_STYLE_USAGE(.BOTH.,#" + side + ")");
            int style = add("PRESENTATION_STYLE_ASSIGNMENT((#" + use + "))");
            styled.add(add("STYLED_ITEM('color',(#" + style + "),#" + solid + ")"));
            int origin = placement(Vec3.ZERO, Vec3.axis(2), Vec3.axis(0));
            return product(
                    name,
                    add("ADVANCED_BREP_SHAPE_REPRESENTATION('" + name + "',(#" + origin + ",#" + solid + "),#" + context
                            + ")"));
        }
    }

    Solid solid() {
        return new Solid();
    }

    /** Where a product goes within an assembly: its origin, its z and its x axis there. */
    record Placing(Product product, String name, Vec3 origin, Vec3 axis, Vec3 reference) {}

    Product assembly(String name, List<Placing> placings) {
        int own = placement(Vec3.ZERO, Vec3.axis(2), Vec3.axis(0));
        List<Integer> axes = new ArrayList<>(List.of(own));
        for (Placing p : placings) {
            axes.add(placement(p.origin, p.axis, p.reference));
        }
        Product whole = product(name, add("SHAPE_REPRESENTATION('" + name + "'," + list(axes) + ",#" + context + ")"));
        for (int i = 0; i < placings.size(); i++) {
            Placing p = placings.get(i);
            int use = add("NEXT_ASSEMBLY_USAGE_OCCURRENCE('" + (last + 1) + "','" + p.name + "','',#" + whole.definition
                    + ",#" + p.product.definition + ",$)");
            int shape = add("PRODUCT_DEFINITION_SHAPE('','',#" + use + ")");
            int change = add("ITEM_DEFINED_TRANSFORMATION('','',#" + own + ",#" + axes.get(i + 1) + ")");
            int relation = add("(REPRESENTATION_RELATIONSHIP('','',#" + p.product.shape + ",#" + whole.shape
                    + ") REPRESENTATION_RELATIONSHIP_WITH_TRANSFORMATION(#" + change
                    + ") SHAPE_REPRESENTATION_RELATIONSHIP())");
            add("CONTEXT_DEPENDENT_SHAPE_REPRESENTATION(#" + relation + ",#" + shape + ")");
        }
        return whole;
    }

    private Product product(String name, int shape) {
        int product = add("PRODUCT('" + name + "','" + name + "','',(#" + productContext + "))");
        int version = add("PRODUCT_DEFINITION_FORMATION('','',#" + product + ")");
        int definition = add("PRODUCT_DEFINITION('design','',#" + version + ",#" + definitionContext + ")");
        int about = add("PRODUCT_DEFINITION_SHAPE('','',#" + definition + ")");
        add("SHAPE_DEFINITION_REPRESENTATION(#" + about + ",#" + shape + ")");
        return new Product(name, definition, shape);
    }

    /** The whole file. */
    String text(String name) {
        add("MECHANICAL_DESIGN_GEOMETRIC_PRESENTATION_REPRESENTATION(''," + list(styled) + ",#" + context + ")");
        return "ISO-10303-21;\nHEADER;\nFILE_DESCRIPTION((''),'2;1');\nFILE_NAME('" + name
                + "','2026-01-01T00:00:00',(''),('Alder & Quay'),'','','');\nFILE_SCHEMA(('AUTOMOTIVE_DESIGN { 1 0 10303 214 1 1 1 1 }'));\n"
                + "ENDSEC;\nDATA;\n" + data + "ENDSEC;\nEND-ISO-10303-21;\n";
    }

    private int add(String entity) {
        data.append('#').append(++last).append('=').append(entity).append(";\n");
        return last;
    }

    private int oriented(int edge, boolean sense) {
        return add("ORIENTED_EDGE('',*,*,#" + edge + "," + (sense ? ".T." : ".F.") + ")");
    }

    private int edgeLoop(Loop loop) {
        return add("EDGE_LOOP(''," + list(loop.orientedEdges()) + ")");
    }

    private int point(Vec3 p) {
        return add("CARTESIAN_POINT(''," + triple(p) + ")");
    }

    private int direction(Vec3 d) {
        return add("DIRECTION(''," + triple(d) + ")");
    }

    private int placement(Vec3 origin, Vec3 axis, Vec3 reference) {
        return add(
                "AXIS2_PLACEMENT_3D('',#" + point(origin) + ",#" + direction(axis) + ",#" + direction(reference) + ")");
    }

    private static String list(List<Integer> ids) {
        StringBuilder out = new StringBuilder("(");
        for (int id : ids) {
            out.append(out.length() == 1 ? "#" : ",#").append(id);
        }
        return out.append(')').toString();
    }

    private static String triple(Vec3 p) {
        return "(" + number(p.x()) + "," + number(p.y()) + "," + number(p.z()) + ")";
    }

    private static String number(double x) {
        return String.format(Locale.ROOT, "%.9f", x == 0 ? 0 : x);
    }
}

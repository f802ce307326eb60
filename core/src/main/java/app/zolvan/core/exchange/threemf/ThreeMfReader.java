package app.zolvan.core.exchange.threemf;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.Arrival.UnitDecision;
import app.zolvan.core.exchange.Arrival.UpDecision;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelAssembly;
import app.zolvan.core.exchange.ModelReader;
import app.zolvan.core.exchange.PhongSurface;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.TextNames;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.exchange.archive.ZipArchive;
import app.zolvan.core.exchange.xml.XmlTree;
import app.zolvan.core.geometry.CornerMesh;
import app.zolvan.core.geometry.FloatList;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.material.TextureUse.Wrap;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/**
 * Reads 3MF (core specification 1.3, materials and properties extension 1.2, production extension 1.1): objects, components,
 * units, base materials, colour groups and texture groups. Composite materials and multi-properties count by their
 * first constituent; a triangle with several colours takes their mean.
 */
public final class ThreeMfReader implements ModelReader {
    private static final int DEEPEST = 64;

    @Override
    public String format() {
        return "3MF";
    }

    @Override
    public boolean recognises(FileSet files) {
        return files.companions() instanceof ZipArchive zip
                && zip.paths().stream().anyMatch(p -> p.toLowerCase(Locale.ROOT).endsWith(".model"))
                && zip.paths().contains("_rels/.rels");
    }

    @Override
    public Arrival read(FileSet files, Reading reading) throws ImportException {
        return new Pass((ZipArchive) files.companions(), reading).run();
    }

    /** Materials, colours or texture coordinates that triangles pick from by index. */
    private sealed interface Property permits Sources, Colours, Coordinates {}

    /** Each index is a source material. */
    private record Sources(List<Integer> source) implements Property {}

    private record Colours(List<LinearRgb> colours) implements Property {}

    private record Coordinates(int source, FloatList uv) implements Property {}

    private record Component(String object, Transform local) {}

    private static final class Thing {
        String name;
        CornerMesh.Built built;
        int mesh = Model.NONE;
        final List<Component> components = new ArrayList<>();
    }

    /** One reading of one file. */
    private static final class Pass {
        private final ZipArchive zip;
        private final Reading reading;
        private final ModelAssembly model;
        private final Map<String, Property> properties = new HashMap<>();
        private final Map<String, Thing> things = new LinkedHashMap<>();
        private final Map<LinearRgb, Integer> colourSources = new HashMap<>();
        private final Map<String, TextureUse> textures = new HashMap<>();
        private final Set<String> done = new HashSet<>();
        private double metres = 0.001;
        private String unit = "mm";
        private int totalTriangles;

        Pass(ZipArchive zip, Reading reading) {
            this.zip = zip;
            this.reading = reading;
            this.model = new ModelAssembly("3MF", reading);
        }

        Arrival run() throws ImportException {
            String rootPath = rootPath();
            XmlTree root = document(rootPath);
            unit(root.attribute("unit", "millimeter"));
            XmlTree build = root.first("build");
            List<XmlTree> items = build == null ? List.of() : build.all("item");
            for (XmlTree item : items) {
                String path = path(item, rootPath);
                place(
                        key(path, item.attribute("objectid", "")),
                        transform(item),
                        Model.NONE,
                        0,
                        item.attribute("partnumber"));
            }
            return model.finish(
                    new UnitDecision(metres, unit, "The 3MF file says that it is in " + unit + ".", true, List.of()),
                    new UpDecision(UpAxis.Z, "3MF always has Z up.", true));
        }

        private String rootPath() throws ImportException {
            ByteBuffer relations = zip.open("_rels/.rels", reading).orElseThrow();
            XmlTree tree = XmlTree.parse(relations, "3MF", Set.of(), null, reading);
            for (XmlTree r : tree.all("Relationship")) {
                if (r.attribute("Type", "").endsWith("/3dmodel")) {
                    return FileSet.normalise(r.attribute("Target", ""));
                }
            }
            return zip.paths().stream()
                    .filter(p -> p.endsWith(".model"))
                    .findFirst()
                    .orElseThrow();
        }

        private void unit(String word) throws ImportException {
            switch (word) {
                case "micron" -> set(1e-6, "µm");
                case "millimeter" -> set(1e-3, "mm");
                case "centimeter" -> set(1e-2, "cm");
                case "meter" -> set(1, "m");
                case "inch" -> set(0.0254, "in");
                case "foot" -> set(0.3048, "ft");
                default ->
                    throw new ImportException(
                            "invalid-unit",
                            "The 3MF file is in “" + word + "”, a unit that 3MF does not have. Export it again.");
            }
        }

        private void set(double m, String label) {
            metres = m;
            unit = label;
        }

        private XmlTree document(String path) throws ImportException {
            Optional<ByteBuffer> bytes = zip.open(path, reading);
            if (bytes.isEmpty()) {
                throw new ImportException(
                        "missing-data",
                        "The 3MF file refers to “" + path
                                + "”, which it does not hold. It is damaged; export it again.");
            }
            done.add(path);
            MeshTaker taker = new MeshTaker(path);
            XmlTree root = XmlTree.parse(bytes.get(), "3MF", Set.of(), taker, reading);
            if (!root.name().equals("model")) {
                throw new ImportException("invalid", "“" + path + "” in the 3MF file is not a model. Export it again.");
            }
            XmlTree resources = root.first("resources");
            for (XmlTree o : resources == null ? List.<XmlTree>of() : resources.all("object")) {
                object(path, o, taker);
            }
            return root;
        }

        private void object(String path, XmlTree o, MeshTaker taker) throws ImportException {
            Thing thing = things.computeIfAbsent(key(path, o.attribute("id", "")), k -> new Thing());
            thing.name = o.attribute("name");
            XmlTree mesh = o.first("mesh");
            XmlTree components = o.first("components");
            if (mesh != null && taker.meshes.get(mesh) != null) {
                thing.built = taker.meshes.get(mesh).build();
            } else if (components != null) {
                for (XmlTree c : components.all("component")) {
                    thing.components.add(new Component(key(path(c, path), c.attribute("objectid", "")), transform(c)));
                }
            }
        }

        private static String path(XmlTree e, String otherwise) {
            String p = e.attribute("path");
            return p == null ? otherwise : FileSet.normalise(p);
        }

        private static String key(String path, String id) {
            return path + "#" + id;
        }

        private Transform transform(XmlTree e) throws ImportException {
            String text = e.attribute("transform");
            if (text == null) {
                return Transform.IDENTITY;
            }
            String[] words = text.strip().split("\\s+");
            double[] m = new double[12];
            for (int i = 0; i < 12; i++) {
                m[i] = i < words.length ? XmlTree.parse(words[i]) : Double.NaN;
                if (!Double.isFinite(m[i])) {
                    throw new ImportException(
                            "invalid",
                            "A placement in the 3MF file (“" + TextNames.shown(text, "")
                                    + "”) is not twelve numbers. Export it again.");
                }
            }
            return Transform.ofColumns(
                    new double[] {m[0], m[1], m[2], 0, m[3], m[4], m[5], 0, m[6], m[7], m[8], 0, m[9], m[10], m[11], 1
                    });
        }

        private void place(String key, Transform local, int parent, int depth, String number) throws ImportException {
            if (depth > DEEPEST) {
                throw new ImportException(
                        "cyclic",
                        "The 3MF file’s components hold each other in a circle. It is damaged; export it again.");
            }
            Thing thing = things.get(key);
            if (thing == null) {
                String path = key.substring(0, key.lastIndexOf('#'));
                if (!done.contains(path)) {
                    document(path); // the production extension keeps objects in files of their own
                    thing = things.get(key);
                }
            }
            if (thing == null) {
                throw new ImportException(
                        "out-of-range",
                        "The 3MF file places object " + key.substring(key.lastIndexOf('#') + 1)
                                + ", which it does not hold. Export it again.");
            }
            String name = thing.name != null ? thing.name : number;
            if (thing.built != null) {
                if (thing.mesh == Model.NONE && thing.built.mesh().triangleCount() > 0) {
                    thing.mesh = model.mesh(thing.built.mesh());
                }
                if (thing.mesh != Model.NONE) {
                    model.part(parent, name, local, thing.mesh, thing.built.sources());
                }
                return;
            }
            if (!thing.components.isEmpty()) {
                int group = model.group(parent, name, local);
                for (Component c : thing.components) {
                    place(c.object, c.local, group, depth + 1, null);
                }
            }
        }

        /** Takes in vertices, triangles and property groups as they pass, without keeping an element for each. */
        private final class MeshTaker implements XmlTree.Taker {
            private final String path;
            private final Map<XmlTree, Draft> meshes = new HashMap<>();
            private XmlTree currentObject;

            MeshTaker(String path) {
                this.path = path;
            }

            @Override
            public boolean take(XmlTree parent, String name, XMLStreamReader in) throws ImportException {
                switch (name) {
                    case "object" -> currentObject = null;
                    case "mesh" -> currentObject = parent;
                    case "vertex" -> {
                        draft(parent).vertex(in);
                        return skipped(in);
                    }
                    case "triangle" -> {
                        draft(parent).triangle(in);
                        return skipped(in);
                    }
                    default -> {
                        // kept in the tree
                    }
                }
                if (name.equals("base")) {
                    Property p = properties.computeIfAbsent(owner(parent), k -> new Sources(new ArrayList<>()));
                    ((Sources) p)
                            .source()
                            .add(model.source(
                                    in.getAttributeValue(null, "name"),
                                    surface(in.getAttributeValue(null, "displaycolor"))));
                    return skipped(in);
                }
                if (name.equals("color") && parent.name().equals("colorgroup")) {
                    Property p = properties.computeIfAbsent(owner(parent), k -> new Colours(new ArrayList<>()));
                    ((Colours) p).colours().add(colour(in.getAttributeValue(null, "color")));
                    return skipped(in);
                }
                if (name.equals("texture2d")) {
                    texture(in);
                    return skipped(in);
                }
                if (name.equals("tex2coord")) {
                    Property p = properties.computeIfAbsent(owner(parent), k -> coordinates(parent));
                    FloatList uv = ((Coordinates) p).uv();
                    uv.add((float) number(in, "u"));
                    uv.add((float) (1 - number(in, "v")));
                    return skipped(in);
                }
                if (name.equals("compositematerials") || name.equals("multiproperties")) {
                    reading.note("Mixed materials of the 3MF file count by the first one in the mixture.");
                    String base = in.getAttributeValue(null, "matid");
                    String several = in.getAttributeValue(null, "pids");
                    String first = base != null
                            ? base
                            : several == null ? "" : several.strip().split("\\s+")[0];
                    Property p = properties.get(key(path, first));
                    if (p != null) {
                        properties.put(key(path, in.getAttributeValue(null, "id")), p);
                    }
                }
                return false;
            }

            private String owner(XmlTree group) {
                return key(path, group.attribute("id", ""));
            }

            private boolean skipped(XMLStreamReader in) throws ImportException {
                try {
                    int depth = 1;
                    while (depth > 0) {
                        int event = in.next();
                        depth += event == XMLStreamReader.START_ELEMENT
                                ? 1
                                : event == XMLStreamReader.END_ELEMENT ? -1 : 0;
                    }
                } catch (XMLStreamException e) {
                    throw new ImportException(
                            "not-xml",
                            "The 3MF file is not valid XML (line "
                                    + in.getLocation().getLineNumber() + "). Export it again.");
                }
                return true;
            }

            private Draft draft(XmlTree list) throws ImportException {
                if (currentObject == null) {
                    throw new ImportException(
                            "invalid", "The 3MF file has triangles outside any object. Export it again.");
                }
                XmlTree mesh = currentObject.first("mesh");
                XmlTree at = mesh == null ? list : mesh;
                XmlTree object = currentObject;
                return meshes.computeIfAbsent(
                        at, k -> new Draft(path, object.attribute("pid"), (int) object.number("pindex", 0)));
            }

            private Coordinates coordinates(XmlTree group) {
                String id = group.attribute("texid", "");
                TextureUse use = textures.get(key(path, id));
                Surface s = Surface.STANDARD
                        .with(Parameter.BASE_COLOR, LinearRgb.WHITE)
                        .with(Parameter.SPECULAR_ROUGHNESS, 0.5)
                        .withTexture(Parameter.BASE_COLOR, use);
                return new Coordinates(model.source("Texture " + id, s), new FloatList());
            }

            private void texture(XMLStreamReader in) throws ImportException {
                String picture = FileSet.normalise(
                        Optional.ofNullable(in.getAttributeValue(null, "path")).orElse(""));
                Optional<ByteBuffer> bytes = zip.open(picture, reading);
                if (bytes.isEmpty()) {
                    reading.note("The picture “" + picture + "” is missing in the 3MF file.");
                    return;
                }
                String digest = model.picture(picture.substring(picture.lastIndexOf('/') + 1), bytes.get());
                if (digest != null) {
                    textures.put(
                            key(path, in.getAttributeValue(null, "id")),
                            new TextureUse(
                                    digest,
                                    Channel.RGB,
                                    ModelUv.PLAIN,
                                    wrap(in.getAttributeValue(null, "tilestyleu")),
                                    wrap(in.getAttributeValue(null, "tilestylev")),
                                    1));
                }
            }
        }

        private static Wrap wrap(String style) {
            return style == null || style.equals("wrap")
                    ? Wrap.REPEAT
                    : style.equals("mirror") ? Wrap.MIRROR : Wrap.ONCE;
        }

        private static double number(XMLStreamReader in, String key) {
            String v = in.getAttributeValue(null, key);
            double d = v == null ? Double.NaN : XmlTree.parse(v);
            return Math.abs(d) < 1e9 ? d : 0;
        }

        /** #RRGGBB or #RRGGBBAA. */
        private static LinearRgb colour(String text) {
            if (text == null || !text.matches("#[0-9A-Fa-f]{6}([0-9A-Fa-f]{2})?")) {
                return LinearRgb.grey(0.5);
            }
            int rgb = Integer.parseInt(text.substring(1, 7), 16);
            return PhongSurface.colour((rgb >> 16) / 255.0, (rgb >> 8 & 255) / 255.0, (rgb & 255) / 255.0);
        }

        private static Surface surface(String displayColour) {
            Surface s = PhongSurface.plain(colour(displayColour));
            boolean alpha = displayColour != null && displayColour.matches("#[0-9A-Fa-f]{8}");
            return alpha
                    ? s.with(Parameter.GEOMETRY_OPACITY, Integer.parseInt(displayColour.substring(7), 16) / 255.0)
                    : s;
        }

        private int sourceOf(LinearRgb colour) {
            return colourSources.computeIfAbsent(
                    colour, c -> model.source("Colour " + (colourSources.size() + 1), PhongSurface.plain(c)));
        }

        /** An object's mesh while it is read. */
        private final class Draft {
            private final String path;
            private final String defaultGroup;
            private final int defaultIndex;
            private final FloatList positions = new FloatList();
            private final FloatList uv = new FloatList();
            private final Map<String, Integer> uvBase = new HashMap<>();
            private final CornerMesh corners = new CornerMesh();

            Draft(String path, String defaultGroup, int defaultIndex) {
                this.path = path;
                this.defaultGroup = defaultGroup;
                this.defaultIndex = defaultIndex;
            }

            void vertex(XMLStreamReader in) throws ImportException {
                for (String axis : new String[] {"x", "y", "z"}) {
                    String v = in.getAttributeValue(null, axis);
                    double d = v == null ? Double.NaN : XmlTree.parse(v);
                    if (!(Math.abs(d) < 1e30)) {
                        throw new ImportException(
                                "not-finite",
                                "Line " + in.getLocation().getLineNumber()
                                        + " of the 3MF file places a corner at something that is not a number. Repair"
                                        + " the shape in the modelling program and export it again.");
                    }
                    positions.add((float) d);
                }
                if (positions.size() % 30_000 == 0) {
                    reading.charge(30_000 * 6L);
                }
            }

            void triangle(XMLStreamReader in) throws ImportException {
                int[] v = {index(in, "v1"), index(in, "v2"), index(in, "v3")};
                if (++totalTriangles % 10_000 == 0) {
                    reading.checkTriangles(totalTriangles);
                    reading.charge(10_000 * 120L);
                    reading.progress(0.4, "Reading triangles");
                }
                String pid = in.getAttributeValue(null, "pid");
                String group = pid != null ? pid : defaultGroup;
                Property property = group == null ? null : properties.get(key(path, group));
                String p1 = in.getAttributeValue(null, "p1");
                int a = p1 == null ? defaultIndex : (int) XmlTree.parse(p1);
                int b = option(in, "p2", a);
                int c = option(in, "p3", a);
                int source = Model.NONE;
                int[] t = {-1, -1, -1};
                if (property instanceof Sources s && a >= 0 && a < s.source().size()) {
                    source = s.source().get(a);
                } else if (property instanceof Colours s && inside(s.colours().size(), a, b, c)) {
                    LinearRgb x = s.colours().get(a);
                    LinearRgb y = s.colours().get(b);
                    LinearRgb z = s.colours().get(c);
                    boolean one = x.equals(y) && y.equals(z);
                    if (!one) {
                        reading.note("Triangles that run from one colour to another take the mean.");
                    }
                    source = sourceOf(
                            one
                                    ? x
                                    : new LinearRgb(
                                            (x.r() + y.r() + z.r()) / 3,
                                            (x.g() + y.g() + z.g()) / 3,
                                            (x.b() + y.b() + z.b()) / 3));
                } else if (property instanceof Coordinates s && inside(s.uv().size() / 2, a, b, c)) {
                    source = s.source();
                    int base = base(group, s);
                    t = new int[] {base + a, base + b, base + c};
                }
                corners.triangle(v[0], v[1], v[2], t[0], t[1], t[2], -1, -1, -1, source, CornerMesh.BY_ANGLE);
            }

            private int base(String group, Coordinates s) {
                return uvBase.computeIfAbsent(group, g -> {
                    int base = uv.size() / 2;
                    for (int i = 0; i < s.uv().size(); i++) {
                        uv.add(s.uv().get(i));
                    }
                    return base;
                });
            }

            private static boolean inside(int size, int... indices) {
                for (int i : indices) {
                    if (i < 0 || i >= size) {
                        return false;
                    }
                }
                return true;
            }

            private static int option(XMLStreamReader in, String key, int otherwise) {
                String v = in.getAttributeValue(null, key);
                return v == null ? otherwise : (int) XmlTree.parse(v);
            }

            private int index(XMLStreamReader in, String key) throws ImportException {
                String v = in.getAttributeValue(null, key);
                double i = v == null ? -1 : XmlTree.parse(v);
                int have = positions.size() / 3;
                if (!(i >= 0 && i < have)) {
                    throw new ImportException(
                            "out-of-range",
                            "Line " + in.getLocation().getLineNumber() + " of the 3MF file uses corner " + v + " of "
                                    + have + ". The file is damaged; export it again.");
                }
                return (int) i;
            }

            CornerMesh.Built build() {
                return corners.build(
                        new CornerMesh.Pools(positions.array(), uv.array(), null, null), Preparation.CREASE_ANGLE);
            }
        }
    }
}

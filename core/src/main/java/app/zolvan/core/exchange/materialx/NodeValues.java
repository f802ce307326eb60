package app.zolvan.core.exchange.materialx;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelAssembly;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.xml.XmlTree;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.material.TextureUse.Placement;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.material.TextureUse.Wrap;
import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/** What inputs of MaterialX nodes come to: numbers, or a picture times numbers. Networks beyond that are noted. */
final class NodeValues {
    private static final int DEEPEST = 64;
    private static final Map<String, Double> METRES = Map.of(
            "nanometer", 1e-9,
            "micron", 1e-6,
            "micrometer", 1e-6,
            "millimeter", 1e-3,
            "centimeter", 1e-2,
            "meter", 1.0,
            "kilometer", 1e3,
            "inch", 0.0254,
            "foot", 0.3048,
            "yard", 0.9144);
    /** From ACEScg (AP1 under D60) to linear Rec. 709 under D65, by Bradford's adaptation (ACES TB-2014-004). */
    private static final double[] FROM_ACESCG = {
        1.705052, -0.621792, -0.083258, -0.130257, 1.140803, -0.010548, -0.024003, -0.128969, 1.152971
    };

    private final FileSet files;
    private final ModelAssembly model;
    private final Reading reading;
    private final Map<String, String> pictures = new HashMap<>();

    NodeValues(FileSet files, ModelAssembly model, Reading reading) {
        this.files = files;
        this.model = model;
        this.reading = reading;
    }

    /**
     * @param numbers 1, 2, 3 or 4 of them; of a picture, what it is multiplied by
     * @param image   null for numbers alone
     * @param encoded whether the picture's colours are meant as sRGB
     * @param scale   of a normal map
     */
    record Value(
            double[] numbers,
            String image,
            Channel channel,
            boolean encoded,
            Placement placement,
            Wrap wrapU,
            Wrap wrapV,
            double scale) {
        static Value of(double... numbers) {
            return new Value(numbers, null, Channel.RGB, false, ModelUv.PLAIN, Wrap.REPEAT, Wrap.REPEAT, 1);
        }

        double number() {
            return numbers[0];
        }

        LinearRgb colour() {
            return numbers.length < 3 ? LinearRgb.grey(numbers[0]) : new LinearRgb(numbers[0], numbers[1], numbers[2]);
        }

        Value times(double[] factor) {
            int n = Math.max(numbers.length, factor.length);
            double[] product = new double[n];
            for (int i = 0; i < n; i++) {
                product[i] = numbers[Math.min(i, numbers.length - 1)] * factor[Math.min(i, factor.length - 1)];
            }
            return new Value(product, image, channel, encoded, placement, wrapU, wrapV, scale);
        }

        Value channel(Channel c, int index) {
            double[] one = {numbers[Math.max(0, Math.min(index, numbers.length - 1))]};
            return new Value(one, image, c, encoded, placement, wrapU, wrapV, scale);
        }

        Value scaled(double s) {
            return new Value(numbers, image, channel, encoded, placement, wrapU, wrapV, s);
        }

        TextureUse use() {
            return new TextureUse(image, channel, placement, wrapU, wrapV, scale);
        }
    }

    /** A document or a node graph: where names of nodes are looked up. */
    record Scope(XmlTree element, Scope outer, String colorspace) {
        static Scope of(XmlTree root) {
            return new Scope(root, null, root.attribute("colorspace", "lin_rec709"));
        }

        Scope inside(XmlTree graph) {
            return new Scope(graph, this, graph.attribute("colorspace", colorspace));
        }

        XmlTree node(String name) {
            for (XmlTree c : element.children()) {
                if (name.equals(c.attribute("name"))) {
                    return c;
                }
            }
            return outer == null ? null : outer.node(name);
        }
    }

    static XmlTree input(XmlTree node, String name) {
        for (XmlTree c : node.children()) {
            if (name.equals(c.attribute("name"))
                    && (c.name().equals("input") || c.name().equals("parameter"))) {
                return c;
            }
        }
        return null;
    }

    /** What an input of a node comes to; empty where it is not there or can't be told. */
    Optional<Value> of(XmlTree node, String name, Scope scope) throws ImportException {
        return of(node, name, scope, 0);
    }

    private Optional<Value> of(XmlTree node, String name, Scope scope, int depth) throws ImportException {
        XmlTree input = input(node, name);
        return input == null ? Optional.empty() : resolve(input, scope, depth);
    }

    private Optional<Value> resolve(XmlTree input, Scope scope, int depth) throws ImportException {
        if (depth > DEEPEST) {
            throw new ImportException(
                    "invalid",
                    "The MaterialX file’s nodes “" + input.attribute("name", "?")
                            + "” lead round in a circle or too deep. Export it again.");
        }
        if (input.attribute("interfacename") != null && scope.outer() != null) {
            return of(scope.element(), input.attribute("interfacename"), scope.outer(), depth + 1);
        }
        String graph = input.attribute("nodegraph");
        if (graph != null) {
            XmlTree g = scope.node(graph);
            if (g == null) {
                return missing(graph);
            }
            XmlTree output = output(g, input.attribute("output"));
            return output == null ? missing(graph) : resolve(output, scope.inside(g), depth + 1);
        }
        String node = input.attribute("nodename");
        if (node != null) {
            XmlTree n = scope.node(node);
            return n == null ? missing(node) : node(n, input.attribute("output", ""), scope, depth + 1);
        }
        return Optional.ofNullable(input.attribute("value")).map(v -> Value.of(linear(numbers(v), input, scope)));
    }

    private Optional<Value> missing(String name) {
        reading.note("The node “" + name + "” is not in the file; the standard’s own value is taken.");
        return Optional.empty();
    }

    private static XmlTree output(XmlTree graph, String name) {
        List<XmlTree> outputs = graph.all("output");
        return outputs.stream()
                .filter(o -> name == null || name.equals(o.attribute("name")))
                .findFirst()
                .orElse(outputs.isEmpty() ? null : outputs.get(0));
    }

    private Optional<Value> node(XmlTree n, String output, Scope scope, int depth) throws ImportException {
        return switch (n.name()) {
            case "constant" -> of(n, "value", scope, depth);
            case "dot", "convert", "clamp" -> of(n, "in", scope, depth);
            case "image", "tiledimage", "gltf_colorimage", "gltf_image", "gltf_normalmap" -> image(n, scope, depth);
            case "normalmap" -> {
                double scale = of(n, "scale", scope, depth).map(Value::number).orElse(1.0);
                yield of(n, "in", scope, depth).map(v -> v.scaled(scale));
            }
            case "multiply" -> product(n, scope, depth);
            case "invert" -> inverse(n, scope, depth);
            case "extract" -> {
                int index =
                        of(n, "index", scope, depth).map(v -> (int) v.number()).orElse(0);
                yield of(n, "in", scope, depth).map(v -> v.channel(channel(index), index));
            }
            case "swizzle" -> {
                XmlTree channels = input(n, "channels");
                String which = channels == null ? "r" : channels.attribute("value", "r");
                int index = index(which.isEmpty() ? "r" : which.substring(0, 1));
                yield of(n, "in", scope, depth).map(v -> which.length() > 1 ? v : v.channel(channel(index), index));
            }
            case "separate2", "separate3", "separate4" -> {
                int index = index(output.isEmpty() ? "r" : output.substring(output.length() - 1));
                yield of(n, "in", scope, depth).map(v -> v.channel(channel(index), index));
            }
            default -> {
                reading.note("The node “" + n.attribute("name", "?") + "” (" + n.name()
                        + ") is not read; the standard’s own value stands in for it.");
                yield Optional.empty();
            }
        };
    }

    private Optional<Value> product(XmlTree n, Scope scope, int depth) throws ImportException {
        Optional<Value> a = of(n, "in1", scope, depth);
        Optional<Value> b = of(n, "in2", scope, depth);
        if (a.isEmpty() || b.isEmpty()) {
            return a.isPresent() ? a : b;
        }
        boolean second = a.get().image() == null;
        Value one = second ? b.get() : a.get();
        Value other = second ? a.get() : b.get();
        if (other.image() != null) {
            reading.note("“" + n.attribute("name", "?") + "” multiplies two pictures; only the first is read.");
        }
        return Optional.of(one.times(other.numbers()));
    }

    private Optional<Value> inverse(XmlTree n, Scope scope, int depth) throws ImportException {
        Optional<Value> in = of(n, "in", scope, depth);
        if (in.isPresent() && in.get().image() != null) {
            reading.note("“" + n.attribute("name", "?") + "” inverts a picture; the picture is read as it is.");
            return in;
        }
        return in.map(v -> Value.of(Arrays.stream(v.numbers()).map(x -> 1 - x).toArray()));
    }

    /** Of a component by its letter, of colours or of vectors. */
    private static int index(String letter) {
        return Math.max(0, Math.max("rgba".indexOf(letter), "xyzw".indexOf(letter)));
    }

    private static Channel channel(int index) {
        return switch (index) {
            case 1 -> Channel.G;
            case 2 -> Channel.B;
            case 3 -> Channel.A;
            default -> Channel.R;
        };
    }

    private Optional<Value> image(XmlTree n, Scope scope, int depth) throws ImportException {
        XmlTree file = input(n, "file");
        String path = file == null ? null : file.attribute("value");
        String digest = path == null || path.isEmpty() ? null : picture(path);
        if (digest == null) {
            return of(n, "default", scope, depth);
        }
        boolean encoded = space(file, n, scope).contains("srgb");
        boolean one = n.attribute("type", "color3").equals("float");
        return Optional.of(new Value(
                new double[] {1},
                digest,
                one ? Channel.R : Channel.RGB,
                encoded,
                placement(n, scope),
                wrap(n, "uaddressmode"),
                wrap(n, "vaddressmode"),
                1));
    }

    private Placement placement(XmlTree n, Scope scope) {
        double[] real = pair(n, "realworldimagesize", 0);
        double[] tiling = pair(n, "uvtiling", 1);
        if (real[0] > 0 && real[1] > 0) {
            double metres = METRES.getOrDefault(input(n, "realworldimagesize").attribute("unit", "meter"), 1.0);
            return new RealSize(real[0] * metres / tiling[0], real[1] * metres / tiling[1]);
        }
        double[] none = new double[2];
        XmlTree texcoord = input(n, "texcoord");
        String before = texcoord == null ? null : texcoord.attribute("nodename");
        XmlTree place = before == null ? null : scope.node(before);
        if (place == null || place.name().equals("texcoord")) {
            return placed(tiling, 0, none, pair(n, "uvoffset", 0));
        }
        if (!place.name().equals("place2d")) {
            reading.note("“" + before + "” (" + place.name() + ") is not read; the picture lies by the model’s own"
                    + " coordinates.");
            return ModelUv.PLAIN;
        }
        double[] scale = pair(place, "scale", 1);
        XmlTree turn = input(place, "rotate");
        double degrees = turn == null ? 0 : number(turn.attribute("value", "0"));
        return placed(
                new double[] {tiling[0] / scale[0], tiling[1] / scale[1]},
                Math.toRadians(degrees),
                pair(place, "pivot", 0),
                pair(place, "offset", 0));
    }

    /**
     * What MaterialX does to coordinates counted from below (less the pivot, scaled, turned, less the offset, plus the pivot), in
     * ours, which are counted from above and turned the other way.
     *
     * @param turned in radians
     */
    private static ModelUv placed(double[] scale, double turned, double[] pivot, double[] offset) {
        double c = Math.cos(turned);
        double s = Math.sin(turned);
        double x = scale[0] * -pivot[0];
        double y = scale[1] * (1 - pivot[1]);
        double u = c * x + s * y + pivot[0] - offset[0];
        double v = -s * x + c * y + pivot[1] - 1 - offset[1];
        return new ModelUv(u, -v, -turned, scale[0], scale[1]);
    }

    private static double[] pair(XmlTree node, String name, double otherwise) {
        XmlTree input = input(node, name);
        double[] v =
                input == null || input.attribute("value") == null ? new double[0] : numbers(input.attribute("value"));
        double a = v.length > 0 && Double.isFinite(v[0]) && (otherwise == 0 || v[0] != 0) ? v[0] : otherwise;
        double b = v.length > 1 && Double.isFinite(v[1]) && (otherwise == 0 || v[1] != 0) ? v[1] : otherwise;
        return new double[] {a, b};
    }

    private static Wrap wrap(XmlTree n, String name) {
        XmlTree input = input(n, name);
        String mode = input == null ? "periodic" : input.attribute("value", "periodic");
        return mode.equals("mirror") ? Wrap.MIRROR : mode.equals("periodic") ? Wrap.REPEAT : Wrap.ONCE;
    }

    private String picture(String path) throws ImportException {
        if (!pictures.containsKey(path)) {
            ByteBuffer bytes = files.companion(path, reading).orElse(null);
            if (bytes == null) {
                reading.lack(path);
            }
            String name = path.substring(Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')) + 1);
            pictures.put(path, bytes == null ? null : model.picture(name, bytes));
        }
        return pictures.get(path);
    }

    private static String space(XmlTree input, XmlTree node, Scope scope) {
        return input.attribute("colorspace", node.attribute("colorspace", scope.colorspace()))
                .toLowerCase(Locale.ROOT);
    }

    /** Colours in the linear components that Zolvan counts in; other numbers as they are. */
    private static double[] linear(double[] v, XmlTree input, Scope scope) {
        if (!input.attribute("type", "").startsWith("color") || v.length < 3) {
            return v;
        }
        String space = input.attribute("colorspace", scope.colorspace()).toLowerCase(Locale.ROOT);
        if (space.contains("srgb") && !space.contains("lin")) {
            return new double[] {Srgb.decode(v[0]), Srgb.decode(v[1]), Srgb.decode(v[2])};
        }
        if (space.contains("acescg")) {
            double[] to = new double[3];
            for (int i = 0; i < 3; i++) {
                to[i] = FROM_ACESCG[3 * i] * v[0] + FROM_ACESCG[3 * i + 1] * v[1] + FROM_ACESCG[3 * i + 2] * v[2];
            }
            return to;
        }
        return v;
    }

    private static double[] numbers(String text) {
        String[] words = text.strip().split("[,\\s]+", 20);
        return Arrays.stream(words).mapToDouble(NodeValues::number).toArray();
    }

    private static double number(String word) {
        if (word.equals("true") || word.equals("false")) {
            return word.equals("true") ? 1 : 0;
        }
        double v = XmlTree.parse(word);
        return Double.isFinite(v) ? v : 0;
    }
}

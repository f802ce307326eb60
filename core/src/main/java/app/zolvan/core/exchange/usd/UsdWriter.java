package app.zolvan.core.exchange.usd;

import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.WrittenLooks;
import app.zolvan.core.exchange.archive.AlignedZip;
import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.model.Model;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;

/**
 * Writes USD, in metres with Y up: as a USDZ package (an archive without compression, its files on multiples of 64 bytes,
 * the layer in binary form) or as text with the pictures beside it. Shapes that several parts share are written once and
 * referred to; looks become preview surfaces.
 */
public final class UsdWriter implements ModelWriter {
    private static final Set<Parameter> CARRIED = Set.of(
            Parameter.BASE_COLOR,
            Parameter.BASE_METALNESS,
            Parameter.SPECULAR_ROUGHNESS,
            Parameter.SPECULAR_IOR,
            Parameter.COAT_WEIGHT,
            Parameter.COAT_ROUGHNESS,
            Parameter.EMISSION_LUMINANCE,
            Parameter.EMISSION_COLOR,
            Parameter.GEOMETRY_OPACITY,
            Parameter.GEOMETRY_NORMAL);
    private static final Set<String> UNIFORM =
            Set.of("xformOpOrder", "subdivisionScheme", "doubleSided", "elementType", "familyName", "info:id");
    private static final Set<String> SHAPE = Set.of(
            "extent",
            "points",
            "faceVertexCounts",
            "faceVertexIndices",
            "normals",
            "subdivisionScheme",
            "doubleSided",
            "primvars:displayColor");
    /** What passes light wholly keeps so much of itself, since some viewers let highlights fade with opacity. */
    private static final double LEAST_OPACITY = 0.1;

    private final boolean packed;

    /** @param packed whether as one USDZ package, or as text */
    public UsdWriter(boolean packed) {
        this.packed = packed;
    }

    static boolean isUniform(String property) {
        return UNIFORM.contains(property);
    }

    @Override
    public Kind kind() {
        return packed
                ? new Kind("USDZ", "usdz", "model/vnd.usdz+zip", false)
                : new Kind("USD", "usda", "model/vnd.usda", true);
    }

    @Override
    public List<String> losses(DressedModel dressed) {
        WrittenLooks looks = new WrittenLooks(dressed, CARRIED);
        List<String> out = new ArrayList<>(looks.losses("USD’s preview surface", CARRIED));
        if (looks.pictures().values().stream().anyMatch(f -> f.endsWith(".webp"))) {
            out.add("WebP pictures are left out: USD takes PNG and JPEG.");
        }
        return out;
    }

    @Override
    public void write(DressedModel dressed, String base, FileSink sink) throws IOException {
        Pass pass = new Pass(dressed, !packed);
        UsdPrim layer = pass.layer();
        if (!packed) {
            sink.file(base + ".usda", out -> UsdTextWriter.write(layer, out));
            pass.looks.writePictures(sink);
            return;
        }
        ByteArrayOutputStream crate = new ByteArrayOutputStream();
        CrateWriter.write(layer, crate);
        sink.file(base + ".usdz", out -> {
            AlignedZip zip = new AlignedZip(out, 64);
            zip.file("model.usdc", crate.toByteArray());
            for (Map.Entry<String, String> p : pass.looks.pictures().entrySet()) {
                zip.file(p.getValue(), dressed.image().apply(p.getKey()));
            }
            zip.finish();
        });
    }

    /** One writing of one model. */
    private static final class Pass {
        private final DressedModel dressed;
        private final Model model;
        private final WrittenLooks looks;
        private final UsdPrim layer = new UsdPrim("");
        private final String rootPath;
        private final UsdPrim root;
        private final List<String> materialPaths = new ArrayList<>();
        private final Map<Integer, Integer> uses = new HashMap<>();
        private final Map<Integer, String> shapePaths = new HashMap<>();
        private final boolean refers;
        private final Map<Integer, UsdPrim> inlined = new HashMap<>();
        private UsdPrim shapes;

        /**
         * @param refers whether parts of the same shape refer to one description of it. Binary layers keep equal values once
         *               by themselves, and some viewers do not follow references in them
         */
        Pass(DressedModel dressed, boolean refers) {
            this.refers = refers;
            this.dressed = dressed;
            this.model = dressed.model();
            this.looks = new WrittenLooks(dressed, CARRIED);
            looks.pictures().values().removeIf(f -> f.endsWith(".webp"));
            String name = identifier(dressed.name(), new HashSet<>(Set.of("Shapes")));
            this.rootPath = "/" + name;
            layer.metadata().put("defaultPrim", name);
            layer.metadata().put("metersPerUnit", new double[] {1});
            layer.metadata().put("upAxis", "Y");
            this.root = layer.define(name, "Xform");
            root.metadata().put("displayName", dressed.name());
        }

        UsdPrim layer() {
            UsdPrim materials = root.define("Materials", "Scope");
            Set<String> names = new HashSet<>();
            for (int i = 0; i < looks.looks().size(); i++) {
                String id = identifier(looks.names().get(i), names);
                String path = rootPath + "/Materials/" + id;
                materialPaths.add(path);
                material(
                        materials.define(id, "Material"),
                        path,
                        looks.looks().get(i),
                        looks.names().get(i));
            }
            for (Model.Part p : model.parts()) {
                uses.merge(p.mesh(), 1, Integer::sum);
            }
            List<UsdPrim> groups = new ArrayList<>();
            Map<UsdPrim, Set<String>> taken = new HashMap<>();
            taken.computeIfAbsent(root, r -> new HashSet<>()).add("Materials");
            for (Model.Group g : model.groups()) {
                UsdPrim parent = g.parent() == Model.NONE ? root : groups.get(g.parent());
                UsdPrim prim = named(parent, g.name(), "Xform", taken);
                place(prim, g.local());
                groups.add(prim);
            }
            for (int p = 0; p < model.parts().size(); p++) {
                Model.Part part = model.parts().get(p);
                UsdPrim parent = part.group() == Model.NONE ? root : groups.get(part.group());
                UsdPrim prim = named(parent, part.name(), "Mesh", taken);
                place(prim, part.local());
                part(prim, p, part);
            }
            return layer;
        }

        private static UsdPrim named(UsdPrim parent, String name, String type, Map<UsdPrim, Set<String>> taken) {
            UsdPrim prim = parent.define(identifier(name, taken.computeIfAbsent(parent, p -> new HashSet<>())), type);
            prim.metadata().put("displayName", name);
            return prim;
        }

        /** Letters, digits and underscores, not beginning with a digit, not taken. */
        private static String identifier(String name, Set<String> taken) {
            String plain = name.replaceAll("[^A-Za-z0-9_]+", "_");
            plain = plain.isEmpty() || Character.isDigit(plain.charAt(0)) ? "_" + plain : plain;
            String free = plain;
            for (int i = 2; !taken.add(free); i++) {
                free = plain + "_" + i;
            }
            return free;
        }

        private static void place(UsdPrim prim, Transform t) {
            if (!t.equals(Transform.IDENTITY)) {
                prim.attribute("matrix4d", "xformOp:transform", t.columns());
                prim.attribute("token[]", "xformOpOrder", new String[] {"xformOp:transform"});
            }
        }

        private void part(UsdPrim prim, int index, Model.Part part) {
            Mesh mesh = model.meshOf(part);
            if (refers && uses.get(part.mesh()) > 1) {
                prim.arcs()
                        .add(new UsdPrim.Arc(
                                UsdPrim.ArcKind.REFERENCE,
                                "",
                                shapePaths.computeIfAbsent(part.mesh(), this::sharedShape)));
            } else {
                UsdPrim before = inlined.putIfAbsent(part.mesh(), prim);
                if (before == null) {
                    shape(prim, mesh);
                } else {
                    repeat(before, prim);
                    prim.attribute("bool", "doubleSided", true);
                }
            }
            if (hasOneSided(index, mesh)) {
                prim.attribute("bool", "doubleSided", false);
            }
            int first = looks.of(index, 0);
            boolean same = true;
            for (int s = 1; s < mesh.spanCount(); s++) {
                same &= looks.of(index, s) == first;
            }
            if (same) {
                bind(prim, first);
            } else {
                for (int s = 0; s < mesh.spanCount(); s++) {
                    bind(prim.child("region_" + s), looks.of(index, s));
                }
            }
            coordinates(prim, index, mesh);
        }

        private boolean hasOneSided(int part, Mesh mesh) {
            for (int s = 0; s < mesh.spanCount(); s++) {
                Look look = dressed.look().apply(part, s);
                if (look != null && look.oneSided()) {
                    return true;
                }
            }
            return false;
        }

        private void bind(UsdPrim prim, int look) {
            if (look != Model.NONE) {
                prim.metadata().put("apiSchemas", new String[] {"MaterialBindingAPI"});
                prim.relationship("material:binding", materialPaths.get(look));
            }
        }

        /** The same values, which are then written once. */
        private static void repeat(UsdPrim from, UsdPrim to) {
            from.properties().forEach((name, p) -> {
                if (SHAPE.contains(name)) {
                    to.properties().put(name, p);
                }
            });
            from.children().values().forEach(subset -> {
                UsdPrim own = to.define(subset.name(), subset.type());
                subset.properties().values().stream()
                        .filter(p -> !p.isRelationship())
                        .forEach(p -> own.properties().put(p.name(), p));
            });
        }

        private String sharedShape(int mesh) {
            if (shapes == null) {
                shapes = layer.child("Shapes");
                shapes.specify(UsdPrim.Specifier.CLASS, "Scope");
            }
            String name = "shape_" + mesh;
            shape(shapes.define(name, "Mesh"), model.meshes().get(mesh));
            return "/Shapes/" + name;
        }

        private static void shape(UsdPrim prim, Mesh mesh) {
            int triangles = mesh.triangleCount();
            int[] counts = new int[triangles];
            Arrays.fill(counts, 3);
            Box3 box = mesh.bounds();
            prim.attribute("float3[]", "extent", new float[] {
                (float) box.min().x(), (float) box.min().y(), (float) box.min().z(),
                (float) box.max().x(), (float) box.max().y(), (float) box.max().z()
            });
            prim.attribute("point3f[]", "points", mesh.positions());
            prim.attribute("int[]", "faceVertexCounts", counts);
            prim.attribute("int[]", "faceVertexIndices", mesh.indices());
            prim.attribute("normal3f[]", "normals", mesh.normals()).with("interpolation", "vertex");
            prim.attribute("token", "subdivisionScheme", "none");
            prim.attribute("bool", "doubleSided", true);
            if (mesh.colours() != null) {
                float[] colours = new float[3 * mesh.vertexCount()];
                for (int v = 0; v < mesh.vertexCount(); v++) {
                    for (int k = 0; k < 3; k++) {
                        colours[3 * v + k] = (float) Srgb.decode((mesh.colours()[4 * v + k] & 0xFF) / 255.0);
                    }
                }
                prim.attribute("color3f[]", "primvars:displayColor", colours).with("interpolation", "vertex");
            }
            for (int s = 0; s < mesh.spanCount() && mesh.spanCount() > 1; s++) {
                UsdPrim subset = prim.define("region_" + s, "GeomSubset");
                subset.attribute("token", "elementType", "face");
                subset.attribute("token", "familyName", "materialBind");
                int from = mesh.spanStarts()[s];
                int[] faces = new int[mesh.spanStarts()[s + 1] - from];
                Arrays.setAll(faces, i -> from + i);
                subset.attribute("int[]", "indices", faces);
            }
        }

        /** Texture coordinates as the part's looks lay their pictures: per point where all agree, else per corner. */
        private void coordinates(UsdPrim prim, int index, Mesh mesh) {
            float[][] ofSpan = new float[mesh.spanCount()][];
            boolean any = false;
            boolean alike = true;
            for (int s = 0; s < ofSpan.length; s++) {
                int look = looks.of(index, s);
                ofSpan[s] = WrittenLooks.coordinates(
                        mesh, look == Model.NONE ? null : dressed.look().apply(index, s));
                any |= ofSpan[s] != null;
                alike &= Arrays.equals(ofSpan[s], ofSpan[0]);
            }
            if (!any) {
                return;
            }
            float[] st;
            if (alike) {
                st = ofSpan[0].clone();
            } else {
                st = new float[2 * mesh.indices().length];
                for (int s = 0; s < ofSpan.length; s++) {
                    for (int c = 3 * mesh.spanStarts()[s]; c < 3 * mesh.spanStarts()[s + 1]; c++) {
                        if (ofSpan[s] != null) {
                            System.arraycopy(ofSpan[s], 2 * mesh.indices()[c], st, 2 * c, 2);
                        }
                    }
                }
            }
            for (int i = 1; i < st.length; i += 2) {
                st[i] = 1 - st[i]; // v runs upwards in USD
            }
            prim.attribute("texCoord2f[]", "primvars:st", st).with("interpolation", alike ? "vertex" : "faceVarying");
        }

        private void material(UsdPrim prim, String path, Look look, String name) {
            PhysicalMaterial p = look.physical();
            prim.metadata().put("displayName", name);
            prim.attribute("token", "outputs:surface", null).point(List.of(path + "/Surface.outputs:surface"));
            UsdPrim shader = prim.define("Surface", "Shader");
            shader.attribute("token", "info:id", "UsdPreviewSurface");
            boolean covers = p.alphaMode().equals("OPAQUE");
            double opacity = Math.max(
                    Math.min(LEAST_OPACITY, p.alpha()), p.alpha() * (1 - p.transmission() * (1 - p.metallic())));
            colour(prim, path, "diffuseColor", p.baseColor(), p.baseColorTexture());
            number(prim, path, "metallic", p.metallic(), metal(look, p));
            number(prim, path, "roughness", p.roughness(), rough(look, p));
            number(prim, path, "opacity", opacity, covers ? null : look(look, Parameter.GEOMETRY_OPACITY));
            number(prim, path, "ior", p.ior(), null);
            if (p.clearcoat() > 0) {
                number(prim, path, "clearcoat", p.clearcoat(), null);
                number(prim, path, "clearcoatRoughness", p.clearcoatRoughness(), null);
            }
            if (!p.emissive().equals(LinearRgb.BLACK)) {
                colour(prim, path, "emissiveColor", p.emissive().times(p.emissiveStrength()), p.emissiveTexture());
            }
            if (looks.file(p.normalTexture()) != null) {
                UsdPrim t = picture(prim, path, "normal", p.normalTexture(), "raw");
                t.attribute("float4", "inputs:scale", new double[] {2, 2, 2, 1});
                t.attribute("float4", "inputs:bias", new double[] {-1, -1, -1, 0});
                t.attribute("float3", "outputs:rgb", null);
                shader.attribute("normal3f", "inputs:normal", null)
                        .point(List.of(path + "/normal_picture.outputs:rgb"));
            }
            shader.attribute("token", "outputs:surface", null);
        }

        private static TextureUse look(Look look, Parameter parameter) {
            return look.material().surface().textures().get(parameter);
        }

        private static TextureUse metal(Look look, PhysicalMaterial p) {
            return p.metallicRoughnessTexture() == null ? null : look(look, Parameter.BASE_METALNESS);
        }

        private static TextureUse rough(Look look, PhysicalMaterial p) {
            return p.metallicRoughnessTexture() == null ? null : look(look, Parameter.SPECULAR_ROUGHNESS);
        }

        private void colour(UsdPrim material, String path, String input, LinearRgb value, TextureUse use) {
            UsdPrim shader = material.child("Surface");
            if (looks.file(use) == null) {
                shader.attribute("color3f", "inputs:" + input, value.toArray());
                return;
            }
            UsdPrim t = picture(material, path, input, use, "sRGB");
            t.attribute("float4", "inputs:scale", new double[] {value.r(), value.g(), value.b(), 1});
            t.attribute("float3", "outputs:rgb", null);
            shader.attribute("color3f", "inputs:" + input, null)
                    .point(List.of(path + "/" + input + "_picture.outputs:rgb"));
        }

        private void number(UsdPrim material, String path, String input, double value, TextureUse use) {
            UsdPrim shader = material.child("Surface");
            if (looks.file(use) == null) {
                shader.attribute("float", "inputs:" + input, new double[] {value});
                return;
            }
            String channel = switch (use.channel()) {
                case G -> "g";
                case B -> "b";
                case A -> "a";
                default -> "r";
            };
            UsdPrim t = picture(material, path, input, use, "raw");
            t.attribute("float4", "inputs:scale", new double[] {value, value, value, value});
            t.attribute("float", "outputs:" + channel, null);
            shader.attribute("float", "inputs:" + input, null)
                    .point(List.of(path + "/" + input + "_picture.outputs:" + channel));
        }

        private UsdPrim picture(UsdPrim material, String path, String input, TextureUse use, String space) {
            if (!material.children().containsKey("Coordinates")) {
                UsdPrim st = material.define("Coordinates", "Shader");
                st.attribute("token", "info:id", "UsdPrimvarReader_float2");
                st.attribute("string", "inputs:varname", "st");
                st.attribute("float2", "outputs:result", null);
            }
            UsdPrim t = material.define(input + "_picture", "Shader");
            t.attribute("token", "info:id", "UsdUVTexture");
            t.attribute("asset", "inputs:file", new UsdProperty.Asset(Objects.requireNonNull(looks.file(use))));
            t.attribute("token", "inputs:sourceColorSpace", space);
            t.attribute("token", "inputs:wrapS", wrap(use.wrapU()));
            t.attribute("token", "inputs:wrapT", wrap(use.wrapV()));
            t.attribute("float2", "inputs:st", null).point(List.of(path + "/Coordinates.outputs:result"));
            return t;
        }

        private static String wrap(TextureUse.Wrap w) {
            return switch (w) {
                case REPEAT -> "repeat";
                case MIRROR -> "mirror";
                case ONCE -> "clamp";
            };
        }
    }
}

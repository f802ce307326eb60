package app.zolvan.core.exchange.materialx;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelAssembly;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.TextNames;
import app.zolvan.core.exchange.materialx.NodeValues.Scope;
import app.zolvan.core.exchange.materialx.NodeValues.Value;
import app.zolvan.core.exchange.xml.XmlTree;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Model;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * Reads materials from MaterialX documents: {@code open_pbr_surface}, and {@code standard_surface} and {@code gltf_pbr} in
 * its terms. Inputs may be numbers or pictures with factors, through node graphs; what goes beyond is noted.
 */
public final class MaterialXReader {
    private static final int MOST = 20_000;
    private static final Set<String> SHADERS = Set.of("open_pbr_surface", "standard_surface", "gltf_pbr");

    private static final Map<String, Parameter> STANDARD_SURFACE = Map.ofEntries(
            Map.entry("base", Parameter.BASE_WEIGHT),
            Map.entry("base_color", Parameter.BASE_COLOR),
            Map.entry("diffuse_roughness", Parameter.BASE_DIFFUSE_ROUGHNESS),
            Map.entry("metalness", Parameter.BASE_METALNESS),
            Map.entry("specular", Parameter.SPECULAR_WEIGHT),
            Map.entry("specular_color", Parameter.SPECULAR_COLOR),
            Map.entry("specular_roughness", Parameter.SPECULAR_ROUGHNESS),
            Map.entry("specular_IOR", Parameter.SPECULAR_IOR),
            Map.entry("transmission", Parameter.TRANSMISSION_WEIGHT),
            Map.entry("transmission_color", Parameter.TRANSMISSION_COLOR),
            Map.entry("transmission_depth", Parameter.TRANSMISSION_DEPTH),
            Map.entry("transmission_scatter", Parameter.TRANSMISSION_SCATTER),
            Map.entry("transmission_scatter_anisotropy", Parameter.TRANSMISSION_SCATTER_ANISOTROPY),
            Map.entry("subsurface", Parameter.SUBSURFACE_WEIGHT),
            Map.entry("subsurface_color", Parameter.SUBSURFACE_COLOR),
            Map.entry("subsurface_anisotropy", Parameter.SUBSURFACE_SCATTER_ANISOTROPY),
            Map.entry("sheen", Parameter.FUZZ_WEIGHT),
            Map.entry("sheen_color", Parameter.FUZZ_COLOR),
            Map.entry("sheen_roughness", Parameter.FUZZ_ROUGHNESS),
            Map.entry("coat", Parameter.COAT_WEIGHT),
            Map.entry("coat_color", Parameter.COAT_COLOR),
            Map.entry("coat_roughness", Parameter.COAT_ROUGHNESS),
            Map.entry("coat_IOR", Parameter.COAT_IOR),
            Map.entry("thin_film_IOR", Parameter.THIN_FILM_IOR),
            Map.entry("emission_color", Parameter.EMISSION_COLOR),
            Map.entry("thin_walled", Parameter.GEOMETRY_THIN_WALLED),
            Map.entry("normal", Parameter.GEOMETRY_NORMAL));

    /** Inputs of gltf_pbr that pictures may drive, beside its colour. */
    private static final Map<String, Parameter> GLTF_PICTURES = Map.ofEntries(
            Map.entry("roughness", Parameter.SPECULAR_ROUGHNESS),
            Map.entry("metallic", Parameter.BASE_METALNESS),
            Map.entry("normal", Parameter.GEOMETRY_NORMAL),
            Map.entry("alpha", Parameter.GEOMETRY_OPACITY),
            Map.entry("emissive", Parameter.EMISSION_COLOR),
            Map.entry("specular", Parameter.SPECULAR_WEIGHT),
            Map.entry("specular_color", Parameter.SPECULAR_COLOR),
            Map.entry("transmission", Parameter.TRANSMISSION_WEIGHT),
            Map.entry("clearcoat", Parameter.COAT_WEIGHT),
            Map.entry("clearcoat_roughness", Parameter.COAT_ROUGHNESS),
            Map.entry("sheen_color", Parameter.FUZZ_COLOR),
            Map.entry("sheen_roughness", Parameter.FUZZ_ROUGHNESS),
            Map.entry("iridescence", Parameter.THIN_FILM_WEIGHT));

    private final ModelAssembly model;
    private final Reading reading;
    private final NodeValues values;
    private final Scope scope;
    private XmlTree shader;
    private Surface surface;

    private MaterialXReader(FileSet files, Reading reading, XmlTree root) {
        this.reading = reading;
        model = new ModelAssembly("MaterialX", reading);
        values = new NodeValues(files, model, reading);
        scope = Scope.of(root);
    }

    public static boolean recognises(FileSet files) {
        return files.head().contains("<materialx");
    }

    /** @return a model without parts: its source materials and their pictures */
    public static Model read(FileSet files, Reading reading) throws ImportException {
        XmlTree root = XmlTree.parse(files.bytes(), "MaterialX", Set.of(), null, reading);
        if (!root.name().equals("materialx")) {
            throw new ImportException("wrong-type", "The file is no MaterialX document.");
        }
        MaterialXReader reader = new MaterialXReader(files, reading, root);
        reader.readAll(root);
        return reader.model.materials();
    }

    private void readAll(XmlTree root) throws ImportException {
        List<XmlTree> materials = root.all("surfacematerial");
        for (XmlTree m : materials) {
            XmlTree input = NodeValues.input(m, "surfaceshader");
            XmlTree found = input == null || input.attribute("nodename") == null
                    ? null
                    : scope.node(input.attribute("nodename"));
            if (found != null && SHADERS.contains(found.name())) {
                add(m, found);
            } else {
                reading.note(
                        "“" + name(m) + "” is not of a kind that Zolvan reads (OpenPBR, standard surface or glTF) and"
                                + " was left out.");
            }
        }
        if (materials.isEmpty()) {
            for (XmlTree c : root.children()) {
                if (SHADERS.contains(c.name())) {
                    add(c, c);
                }
            }
        }
    }

    private static String name(XmlTree m) {
        return TextNames.shown(m.attribute("uiname", MaterialXWriter.shown(m.attribute("name", ""))), "Material");
    }

    private void add(XmlTree m, XmlTree found) throws ImportException {
        if (model.sourceCount() >= MOST) {
            throw new ImportException("too-large", "The file holds more than " + MOST + " materials. Export fewer.");
        }
        shader = found;
        switch (found.name()) {
            case "open_pbr_surface" -> openPbr();
            case "standard_surface" -> standardSurface();
            default -> gltf();
        }
        model.source(new Material(code(m), name(m), kind(m), surface));
    }

    private static String code(XmlTree m) {
        String code = m.attribute("code", "");
        return code.length() > 20 ? "" : code;
    }

    private static MaterialKind kind(XmlTree m) {
        try {
            return m.attribute("kind") == null ? null : MaterialKind.ofWord(m.attribute("kind"));
        } catch (IllegalArgumentException e) {
            return null;
        }
    }

    private void openPbr() throws ImportException {
        surface = Surface.STANDARD;
        for (Parameter p : MaterialXNames.CARRIED) {
            put(p, p.openPbrName(), 1);
        }
    }

    /** Puts an input, times a factor, on a parameter; leaves it where the input says nothing. */
    private void put(Parameter p, String input, double factor) throws ImportException {
        Optional<Value> v = values.of(shader, input, scope);
        if (v.isPresent()) {
            put(p, factor == 1 ? v.get() : v.get().times(new double[] {factor}));
        }
    }

    private void put(Parameter p, Value v) {
        String input = p.openPbrName().replace('_', ' ');
        if (v.image() != null) {
            if (!p.takesPicture()) {
                reading.note("No picture can drive the " + input + "; its number is taken.");
            } else {
                texture(p, v);
            }
        }
        switch (p.shape()) {
            case TEXTURE_ONLY -> {
                // a picture or nothing
            }
            case FLAG -> surface = surface.with(p, v.number() != 0);
            case COLOUR -> {
                LinearRgb c = v.colour();
                surface = surface.with(p, within(p, c.r()), within(p, c.g()), within(p, c.b()));
            }
            case NUMBER -> surface = surface.with(p, within(p, v.number()));
        }
    }

    private void texture(Parameter p, Value v) {
        boolean colour = p.shape() == Parameter.Shape.COLOUR;
        if (colour && !v.encoded()) {
            reading.note("A picture for the " + p.openPbrName().replace('_', ' ')
                    + " is said to be linear; colour pictures are read as sRGB.");
        } else if (!colour && v.encoded()) {
            reading.note("A picture for the " + p.openPbrName().replace('_', ' ')
                    + " is said to be sRGB; it holds numbers and is read as they are.");
        }
        surface = surface.withTexture(p, v.use());
    }

    /** A number within a parameter's range; what lies outside is noted. */
    private double within(Parameter p, double v) {
        double kept = Math.max(p.min(), Math.min(p.max(), v));
        if (Math.abs(kept - v) > 1e-9) {
            reading.note(String.format(
                    Locale.ROOT,
                    "The %s of %.4g lies outside %.4g … %.4g; the nearest is taken.",
                    p.openPbrName().replace('_', ' '),
                    v,
                    p.min(),
                    p.max()));
        }
        return kept;
    }

    private double number(String input, double otherwise) throws ImportException {
        return values.of(shader, input, scope).map(Value::number).orElse(otherwise);
    }

    private LinearRgb colour(String input, double otherwise) throws ImportException {
        return values.of(shader, input, scope).map(Value::colour).orElse(LinearRgb.grey(otherwise));
    }

    /** By the Standard Surface specification's own defaults (Georgiev et al. 2019), as MaterialX has them. */
    private void standardSurface() throws ImportException {
        surface = Surface.STANDARD
                .with(Parameter.BASE_WEIGHT, 1)
                .with(Parameter.SPECULAR_ROUGHNESS, 0.2)
                .with(Parameter.SUBSURFACE_COLOR, LinearRgb.WHITE)
                .with(Parameter.SUBSURFACE_RADIUS_SCALE, LinearRgb.WHITE)
                .with(Parameter.FUZZ_ROUGHNESS, 0.3)
                .with(Parameter.COAT_ROUGHNESS, 0.1)
                .with(Parameter.COAT_IOR, 1.5)
                .with(Parameter.COAT_DARKENING, 0)
                .with(Parameter.THIN_FILM_IOR, 1.5);
        for (Map.Entry<String, Parameter> e : STANDARD_SURFACE.entrySet()) {
            put(e.getValue(), e.getKey(), 1);
        }
        put(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY, "specular_anisotropy", 0.9); // the same ratio of widths
        put(Parameter.COAT_ROUGHNESS_ANISOTROPY, "coat_anisotropy", 0.9);
        double abbe = number("transmission_dispersion", 0);
        if (abbe > 0) {
            surface = surface.with(Parameter.TRANSMISSION_DISPERSION_SCALE, 1)
                    .with(
                            Parameter.TRANSMISSION_DISPERSION_ABBE_NUMBER,
                            within(Parameter.TRANSMISSION_DISPERSION_ABBE_NUMBER, abbe));
        }
        LinearRgb radius = colour("subsurface_radius", 1);
        double longest = Math.max(radius.r(), Math.max(radius.g(), radius.b()));
        if (longest > 0) {
            double scale = longest * number("subsurface_scale", 1);
            surface = surface.with(Parameter.SUBSURFACE_RADIUS, within(Parameter.SUBSURFACE_RADIUS, scale))
                    .with(
                            Parameter.SUBSURFACE_RADIUS_SCALE,
                            radius.times(1 / longest).clamped());
        }
        double film = number("thin_film_thickness", 0);
        surface = surface.with(Parameter.THIN_FILM_WEIGHT, film > 0 ? 1 : 0);
        if (film > 0) {
            surface = surface.with(Parameter.THIN_FILM_THICKNESS, within(Parameter.THIN_FILM_THICKNESS, film / 1000));
        }
        put(Parameter.EMISSION_LUMINANCE, "emission", PhysicalMaterial.NITS_PER_UNIT);
        Optional<Value> opacity = values.of(shader, "opacity", scope);
        if (opacity.isPresent()) {
            Value o = opacity.get();
            double mean = Arrays.stream(o.numbers()).average().orElse(1);
            put(Parameter.GEOMETRY_OPACITY, o.image() == null ? Value.of(mean) : o.channel(o.channel(), 0));
        }
    }

    private void gltf() throws ImportException {
        boolean opaque = number("alpha_mode", 0) == 0;
        LinearRgb emissive = colour("emissive", 0);
        PhysicalMaterial physical = new PhysicalMaterial(
                colour("base_color", 1),
                opaque ? 1 : number("alpha", 1),
                opaque ? "OPAQUE" : number("alpha_mode", 0) == 1 ? "MASK" : "BLEND",
                number("metallic", 1),
                number("roughness", 1),
                emissive,
                Math.max(0, number("emissive_strength", 1)),
                number("ior", 1.5),
                number("specular", 1),
                colour("specular_color", 1),
                number("transmission", 0),
                number("thickness", 0),
                colour("attenuation_color", 1),
                number("attenuation_distance", 0),
                number("dispersion", 0),
                number("clearcoat", 0),
                number("clearcoat_roughness", 0),
                colour("sheen_color", 0),
                number("sheen_roughness", 0),
                number("iridescence", 0),
                number("iridescence_ior", 1.3),
                number("iridescence_thickness", 100),
                number("anisotropy_strength", 0),
                null,
                null,
                null,
                null,
                null);
        surface = physical.toSurface();
        put(Parameter.BASE_COLOR, values.of(shader, "base_color", scope).orElse(Value.of(1, 1, 1)));
        for (Map.Entry<String, Parameter> e : GLTF_PICTURES.entrySet()) {
            Optional<Value> v = values.of(shader, e.getKey(), scope);
            boolean shows = e.getValue() != Parameter.GEOMETRY_OPACITY || !opaque;
            if (v.isPresent() && v.get().image() != null && shows) {
                texture(e.getValue(), v.get());
            }
        }
        if (NodeValues.input(shader, "occlusion") != null) {
            reading.note("“" + name(shader) + "”: its occlusion is not used; shading is computed instead.");
        }
    }
}

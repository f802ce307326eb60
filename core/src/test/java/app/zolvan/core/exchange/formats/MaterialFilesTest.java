package app.zolvan.core.exchange.formats;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelWriter.FileSink;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.archive.ZipSink;
import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.SourceMaterial;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.Png;
import java.awt.Transparency;
import java.awt.color.ColorSpace;
import java.awt.image.BufferedImage;
import java.awt.image.ComponentColorModel;
import java.awt.image.DataBuffer;
import java.awt.image.Raster;
import java.awt.image.WritableRaster;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageOutputStream;
import org.junit.jupiter.api.Test;

class MaterialFilesTest {
    private static final ShippedLibrary LIBRARY = ShippedLibrary.load();

    private static byte[] zip(Map<String, byte[]> files) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        ZipSink zip = new ZipSink(bytes);
        for (Map.Entry<String, byte[]> f : files.entrySet()) {
            zip.file(f.getKey(), out -> out.write(f.getValue()));
        }
        zip.finish();
        return bytes.toByteArray();
    }

    private static Map<String, byte[]> written(String ending, List<Material> materials) throws IOException {
        Map<String, byte[]> files = new LinkedHashMap<>();
        FileSink sink = (path, content) -> {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            content.writeTo(out);
            files.put(path, out.toByteArray());
        };
        MaterialFiles.write(ending, materials, LIBRARY.images()::get, "library", sink);
        return files;
    }

    private static Model read(String name, byte[] file) throws ImportException {
        return MaterialFiles.read(name, ByteBuffer.wrap(file), FileSet.Companions.NONE, Reading.standard());
    }

    private static Model readText(String name, String text) throws ImportException {
        return read(name, text.getBytes(StandardCharsets.UTF_8));
    }

    @Test
    void theLibraryComesBackFromMaterialXWithEveryParameterOfTheStandards() throws Exception {
        Model back = read("library.zip", zip(written("mtlx", LIBRARY.materials())));
        assertThat(back.sources()).hasSameSizeAs(LIBRARY.materials());
        assertThat(back.notes()).isEmpty();
        for (int i = 0; i < back.sources().size(); i++) {
            Material was = LIBRARY.materials().get(i);
            Material is = back.sources().get(i).material();
            assertThat(is.name()).isEqualTo(was.name());
            assertThat(is.code()).isEqualTo(was.code());
            assertThat(is.kind()).isEqualTo(was.kind());
            Surface plain = was.surface();
            for (Parameter p : Parameter.values()) {
                if (p.name()
                        .matches(
                                "(AGE|LEAF|FLAKE|SCHLICK|REFLECTED)_.*|GENERALIZED_SCHLICK|GEOMETRY_HEIGHT|GEOMETRY_DISPLACED")) {
                    plain = plain.with(p, p.standardValue()); // OpenPBR has no words for these
                }
            }
            assertThat(is.surface()).as(was.name()).isEqualTo(plain);
        }
    }

    /** glTF has fewer words of its own; what it has comes back, and the rest by its extras. */
    @Test
    void theLibraryComesBackFromGltf() throws Exception {
        List<Material> some = LIBRARY.materials().stream()
                .filter(m -> m.code().matches(".*[147]"))
                .toList();
        Model back = read("library.glb", written("glb", some).get("library.glb"));
        Map<String, Surface> byName = new HashMap<>();
        back.sources().forEach(s -> byName.put(s.material().name(), s.material().surface()));
        for (Material m : some) {
            assertThat(byName).containsKey(m.name());
            PhysicalMaterial was = PhysicalMaterial.of(m.surface(), 0);
            PhysicalMaterial is = PhysicalMaterial.of(byName.get(m.name()), 0);
            assertThat(is.baseColor().times(1)).as(m.name()).isEqualTo(was.baseColor());
            assertThat(is.roughness()).isEqualTo(was.roughness());
            assertThat(is.metallic()).isEqualTo(was.metallic());
            assertThat(is.transmission()).isEqualTo(was.transmission());
            assertThat(is.clearcoat()).isEqualTo(was.clearcoat());
        }
    }

    @Test
    void theLibraryComesBackFromMtlAsFarAsItHasWords() throws Exception {
        List<Material> paints = LIBRARY.materials().stream()
                .filter(m -> m.code().startsWith("PT-0") || m.code().startsWith("MT-0"))
                .filter(m -> m.surface().textures().isEmpty())
                .toList();
        Model back = read("library.mtl", written("obj", paints).get("library.mtl"));
        assertThat(back.sources()).hasSameSizeAs(paints);
        for (int i = 0; i < paints.size(); i++) {
            Surface was = paints.get(i).surface();
            Surface is = back.sources().get(i).material().surface();
            for (Parameter p : List.of(
                    Parameter.SPECULAR_ROUGHNESS,
                    Parameter.BASE_METALNESS,
                    Parameter.COAT_WEIGHT,
                    Parameter.SPECULAR_IOR)) {
                assertThat(is.number(p)).as(paints.get(i).name() + " " + p).isCloseTo(was.number(p), within(1e-12));
            }
            LinearRgb colour = was.colour(Parameter.BASE_COLOR).times(was.number(Parameter.BASE_WEIGHT));
            assertThat(is.colour(Parameter.BASE_COLOR).r()).isCloseTo(colour.r(), within(1e-12));
        }
    }

    private static String materialX(String inside) {
        return "<?xml version=\"1.0\"?><materialx version=\"1.38\" colorspace=\"lin_rec709\">" + inside
                + "</materialx>";
    }

    @Test
    void otherShadingModelsAreReadInOpenPbrsTerms() throws Exception {
        Surface s =
                readText("a.mtlx", materialX("""
                <standard_surface name="SR_gold" type="surfaceshader">
                  <input name="base_color" type="color3" value="0.944, 0.776, 0.373"/>
                  <input name="metalness" type="float" value="1"/>
                  <input name="specular_anisotropy" type="float" value="0.5"/>
                  <input name="coat" type="float" value="0.3"/>
                  <input name="subsurface_radius" type="color3" value="1, 0.5, 0.25"/>
                  <input name="subsurface_scale" type="float" value="0.02"/>
                  <input name="thin_film_thickness" type="float" value="480"/>
                </standard_surface>
                <surfacematerial name="Gold_leaf" type="material">
                  <input name="surfaceshader" type="surfaceshader" nodename="SR_gold"/>
                </surfacematerial>""")).sources().get(0).material().surface();
        assertThat(s.number(Parameter.BASE_METALNESS)).isEqualTo(1);
        assertThat(s.number(Parameter.SPECULAR_ROUGHNESS)).isEqualTo(0.2); // its own default
        assertThat(s.number(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY)).isCloseTo(0.45, within(1e-12));
        assertThat(s.number(Parameter.SUBSURFACE_RADIUS)).isCloseTo(0.02, within(1e-12));
        assertThat(s.number(Parameter.THIN_FILM_THICKNESS)).isCloseTo(0.48, within(1e-12));
        assertThat(s.number(Parameter.COAT_DARKENING)).isZero();
        Material glass = readText("b.mtlx", materialX("""
                <gltf_pbr name="SR_pane" type="surfaceshader">
                  <input name="base_color" type="color3" value="0.5, 0.5, 0.5" colorspace="srgb_texture"/>
                  <input name="transmission" type="float" value="1"/>
                  <input name="roughness" type="float" value="0.1"/>
                  <input name="metallic" type="float" value="0"/>
                  <input name="ior" type="float" value="1.4"/>
                </gltf_pbr>""")).sources().get(0).material();
        assertThat(glass.surface().number(Parameter.TRANSMISSION_WEIGHT)).isEqualTo(1);
        assertThat(glass.surface().number(Parameter.SPECULAR_IOR)).isEqualTo(1.4);
        assertThat(glass.surface().colour(Parameter.BASE_COLOR).g()).isCloseTo(0.2140, within(1e-4));
        assertThat(glass.surface().colour(Parameter.TRANSMISSION_COLOR).g()).isCloseTo(0.2140, within(1e-4));
    }

    private static byte[] picture(int rgb) {
        byte[] all = new byte[3 * 16];
        for (int i = 0; i < 16; i++) {
            all[3 * i] = (byte) (rgb >> 16);
            all[3 * i + 1] = (byte) (rgb >> 8);
            all[3 * i + 2] = (byte) rgb;
        }
        return Png.encode(4, 4, all, 72);
    }

    @Test
    void picturesComeThroughGraphsWithFactorChannelAndRealSize() throws Exception {
        String document = materialX("""
                <nodegraph name="NG">
                  <input name="file" type="filename" value="unused"/>
                  <tiledimage name="i" type="color3">
                    <input name="file" type="filename" value="maps/oak.png" colorspace="srgb_texture"/>
                    <input name="realworldimagesize" type="vector2" value="60, 30" unit="centimeter"/>
                  </tiledimage>
                  <multiply name="m" type="color3">
                    <input name="in1" type="color3" value="0.5, 0.5, 0.5"/>
                    <input name="in2" type="color3" nodename="i"/>
                  </multiply>
                  <separate3 name="s" type="multioutput"><input name="in" type="color3" nodename="i"/></separate3>
                  <output name="c" type="color3" nodename="m"/>
                  <output name="r" type="float" nodename="s" output="outb"/>
                </nodegraph>
                <open_pbr_surface name="SR" type="surfaceshader">
                  <input name="base_color" type="color3" nodegraph="NG" output="c"/>
                  <input name="specular_roughness" type="float" nodegraph="NG" output="r"/>
                </open_pbr_surface>""");
        Model model = read(
                "oak.zip",
                zip(Map.of("oak.mtlx", document.getBytes(StandardCharsets.UTF_8), "maps/oak.png", picture(0x906040))));
        Surface s = model.sources().get(0).material().surface();
        assertThat(s.colour(Parameter.BASE_COLOR)).isEqualTo(LinearRgb.grey(0.5));
        assertThat(s.textures().get(Parameter.BASE_COLOR).placement()).isEqualTo(new RealSize(0.6, 0.3));
        assertThat(s.textures().get(Parameter.SPECULAR_ROUGHNESS).channel()).isEqualTo(Channel.B);
        assertThat(s.number(Parameter.SPECULAR_ROUGHNESS)).isEqualTo(1);
        assertThat(model.notes())
                .containsExactly(
                        "A picture for the specular roughness is said to be sRGB; it holds numbers and is read as they are.");
    }

    /** Where a point of the model lies in the picture, counted from above, by what MaterialX says of coordinates from below. */
    @Test
    void placementsAreThoseOfTheOtherSideOfThePicture() throws Exception {
        ModelUv tiled = place("<tiledimage name=\"i\" type=\"color3\">"
                + "<input name=\"file\" type=\"filename\" value=\"a.png\" colorspace=\"srgb_texture\"/>"
                + "<input name=\"uvtiling\" type=\"vector2\" value=\"2, 4\"/>"
                + "<input name=\"uvoffset\" type=\"vector2\" value=\"0.25, 0.5\"/></tiledimage>");
        // (0.5, 0.75) from below: times the tiling, less the offset, is (0.75, 2.5); from above 1 - 2.5
        assertThat(at(tiled, 0.5, 1 - 0.75)).containsExactly(new double[] {0.75, 1 - 2.5}, within(1e-12));
        ModelUv turned = place("<image name=\"i\" type=\"color3\">"
                + "<input name=\"file\" type=\"filename\" value=\"a.png\" colorspace=\"srgb_texture\"/>"
                + "<input name=\"texcoord\" type=\"vector2\" nodename=\"p\"/></image>"
                + "<place2d name=\"p\" type=\"vector2\"><input name=\"rotate\" type=\"float\" value=\"90\"/>"
                + "<input name=\"pivot\" type=\"vector2\" value=\"0.5, 0.5\"/>"
                + "<input name=\"scale\" type=\"vector2\" value=\"0.5, 1\"/></place2d>");
        // less the pivot (0.25, 0.25), scaled (0.5, 0.25), turned (0.25, -0.5), plus the pivot (0.75, 0)
        assertThat(at(turned, 0.75, 1 - 0.75)).containsExactly(new double[] {0.75, 1 - 0.0}, within(1e-12));
        ModelUv own = new ModelUv(0.3, -0.2, 0.7, 2, 3);
        String digest = LIBRARY.images().keySet().iterator().next();
        Surface s = Surface.STANDARD.withTexture(Parameter.BASE_COLOR, TextureUse.repeating(digest, Channel.RGB, own));
        Model back = read("a.zip", zip(written("mtlx", List.of(new Material("", "Laid", null, s)))));
        ModelUv again = (ModelUv) back.sources()
                .get(0)
                .material()
                .surface()
                .textures()
                .get(Parameter.BASE_COLOR)
                .placement();
        assertThat(at(again, 0.4, 0.9)).containsExactly(at(own, 0.4, 0.9), within(1e-12));
    }

    private static ModelUv place(String nodes) throws Exception {
        String document = materialX("<nodegraph name=\"g\">" + nodes
                + "<output name=\"o\" type=\"color3\" nodename=\"i\"/></nodegraph><open_pbr_surface name=\"s\">"
                + "<input name=\"base_color\" type=\"color3\" nodegraph=\"g\"/></open_pbr_surface>");
        Surface s = read("a.zip", zip(Map.of("a.mtlx", document.getBytes(StandardCharsets.UTF_8), "a.png", picture(7))))
                .sources()
                .get(0)
                .material()
                .surface();
        return (ModelUv) s.textures().get(Parameter.BASE_COLOR).placement();
    }

    /** Scaled, turned, moved, as the stage and the tracer do it. */
    private static double[] at(ModelUv p, double u, double v) {
        double x = p.scaleU() * u;
        double y = p.scaleV() * v;
        double c = Math.cos(p.rotation());
        double s = Math.sin(p.rotation());
        return new double[] {c * x + s * y + p.offsetU(), -s * x + c * y + p.offsetV()};
    }

    @Test
    void picturesDriveWhatTheyAreGivenToAndWideColoursComeIntoOurs() throws Exception {
        String document = materialX("""
                <image name="i" type="float"><input name="file" type="filename" value="a.png"/></image>
                <gltf_pbr name="s"><input name="clearcoat" type="float" nodename="i"/>
                  <input name="base_color" type="color3" value="0.5, 0.5, 0.5" colorspace="acescg"/></gltf_pbr>""");
        Surface s = read("a.zip", zip(Map.of("a.mtlx", document.getBytes(StandardCharsets.UTF_8), "a.png", picture(7))))
                .sources()
                .get(0)
                .material()
                .surface();
        assertThat(s.textures()).containsOnlyKeys(Parameter.COAT_WEIGHT);
        assertThat(s.number(Parameter.COAT_WEIGHT)).isEqualTo(1);
        for (double c : s.colour(Parameter.BASE_COLOR).toArray()) {
            assertThat(c).as("grey is grey in both").isCloseTo(0.5, within(1e-5));
        }
    }

    @Test
    void hostileAndBrokenDocumentsGetASentence() throws Exception {
        assertThatThrownBy(
                        () -> readText(
                                "a.mtlx",
                                "<?xml version=\"1.0\"?><!DOCTYPE m [<!ENTITY x SYSTEM \"file:///etc/passwd\">]><materialx>&x;<open_pbr"))
                .isInstanceOf(ImportException.class)
                .hasMessageContaining("not valid XML");
        assertThatThrownBy(() -> readText("a.mtlx", materialX("""
                        <multiply name="a" type="float"><input name="in1" type="float" nodename="b"/></multiply>
                        <multiply name="b" type="float"><input name="in1" type="float" nodename="a"/></multiply>
                        <open_pbr_surface name="s"><input name="base_weight" type="float" nodename="a"/></open_pbr_surface>""")))
                .isInstanceOf(ImportException.class)
                .hasMessageContaining("circle");
        Model odd = readText("a.mtlx", materialX("""
                <fractal3d name="f" type="float"/>
                <open_pbr_surface name="s">
                  <input name="base_weight" type="float" nodename="f"/>
                  <input name="specular_ior" type="float" value="99"/>
                  <input name="coat_weight" type="float" value="NaN, what"/>
                  <input name="fuzz_weight" type="float" nodename="nobody"/>
                  <input name="base_color" type="color3" nodegraph="gone" output="x"/>
                </open_pbr_surface>"""));
        assertThat(odd.sources().get(0).material().surface().number(Parameter.SPECULAR_IOR))
                .isEqualTo(3);
        assertThat(String.join("\n", odd.notes()))
                .contains("(fractal3d) is not read")
                .contains("“nobody” is not in the file")
                .contains("outside");
        assertThatThrownBy(() -> readText("a.mtlx", materialX("")))
                .isInstanceOf(ImportException.class)
                .hasMessageContaining("holds no materials");
        for (String shader : List.of("open_pbr_surface", "standard_surface", "gltf_pbr")) {
            for (String wild : List.of("-1e30", "1e300", "", "a, b, c", "0, -5", "true")) {
                StringBuilder inputs =
                        new StringBuilder("<extract name=\"x\" type=\"float\"><input name=\"in\" value=\"" + wild
                                + "\"/><input name=\"index\" value=\"" + wild
                                + "\"/></extract><swizzle name=\"y\"><input name=\"in\" nodename=\"x\"/>"
                                + "<input name=\"channels\" value=\"\"/></swizzle><" + shader + " name=\"s\">");
                for (String input : List.of(
                        "base_color",
                        "metallic",
                        "ior",
                        "emissive",
                        "emissive_strength",
                        "subsurface_radius",
                        "opacity",
                        "thin_film_thickness",
                        "transmission_dispersion",
                        "attenuation_distance",
                        "emission_luminance")) {
                    inputs.append("<input name=\"" + input + "\" type=\"color3\" value=\"" + wild + "\"/>");
                }
                inputs.append("<input name=\"roughness\" nodename=\"y\"/><input name=\"coat_weight\" nodename=\"y\"/></"
                        + shader + ">");
                assertThat(readText("a.mtlx", materialX(inputs.toString())).sources())
                        .hasSize(1);
            }
        }
        String longName = "x".repeat(10_000);
        Model named = readText("a.mtlx", materialX("<open_pbr_surface name=\"" + longName + "\"/>"));
        assertThat(named.sources().get(0).material().name()).hasSizeLessThan(300);
        assertThat(MaterialFiles.write(
                        "mtlx",
                        named.sources().stream().map(SourceMaterial::material).toList(),
                        d -> new byte[0],
                        "x",
                        (path, content) -> content.writeTo(new ByteArrayOutputStream())))
                .isEmpty();
    }

    @Test
    void aPictureAloneIsAColourWhateverItIsCalled() throws Exception {
        Model model = read("Harbour wall.png", picture(0x906040));
        assertThat(model.sources()).hasSize(1);
        assertThat(model.sources().get(0).material().name()).isEqualTo("Harbour wall");
        assertThat(model.sources().get(0).material().surface().textures()).containsOnlyKeys(Parameter.BASE_COLOR);
    }

    @Test
    void aSetOfPicturesBecomesAMaterialByTheirNames() throws Exception {
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put("set/OldOak_60cm_BaseColor.png", picture(0x906040));
        files.put("set/OldOak_60cm_Normal_DirectX.png", picture(0x80C0D0));
        files.put("set/OldOak_60cm_Glossiness.png", picture(0x404040));
        files.put("set/OldOak_60cm_AO.png", picture(0xFFFFFF));
        files.put("set/steel-plate_metallic.jpg.png", picture(0xFFFFFF));
        files.put("set/steel-plate_height.png", picture(0x808080));
        files.put("set/holiday.png", picture(0x123456));
        Model model = read("set.zip", zip(files));
        assertThat(model.sources()).hasSize(2);
        Surface oak = model.sources().get(0).material().surface();
        assertThat(model.sources().get(0).material().name()).isEqualTo("Old oak 60cm");
        assertThat(oak.textures())
                .containsOnlyKeys(Parameter.BASE_COLOR, Parameter.GEOMETRY_NORMAL, Parameter.SPECULAR_ROUGHNESS);
        assertThat(oak.textures().get(Parameter.BASE_COLOR).placement()).isEqualTo(new RealSize(0.6, 0.6));
        assertThat(pixel(model, oak, Parameter.SPECULAR_ROUGHNESS)).isEqualTo(0xBFBFBF);
        assertThat(pixel(model, oak, Parameter.GEOMETRY_NORMAL)).isEqualTo(0x803FD0);
        Surface steel = model.sources().get(1).material().surface();
        assertThat(steel.textures()).containsKeys(Parameter.BASE_METALNESS, Parameter.GEOMETRY_HEIGHT);
        assertThat(String.join("\n", model.notes()))
                .contains("tells gloss; it was turned into roughness")
                .contains("green points down")
                .contains("“holiday.png”")
                .contains("one repeat is taken as 1 m")
                .contains("tells occlusion");
    }

    private static int pixel(Model model, Surface s, Parameter p) throws IOException {
        byte[] bytes = model.images().get(s.textures().get(p).image()).bytes();
        return ImageFile.decode(bytes, 1000).getRGB(1, 1) & 0xFFFFFF;
    }

    /** The slopes of the library's own normal maps tell which way green points. */
    @Test
    void greenThatPointsDownIsFoundFromTheSlopes() throws Exception {
        for (String code : List.of("FB-031", "MT-041", "LE-011", "BK-001")) {
            Material m = LIBRARY.materials().stream()
                    .filter(o -> o.code().equals(code))
                    .findFirst()
                    .orElseThrow();
            byte[] up = LIBRARY.images()
                    .get(m.surface().textures().get(Parameter.GEOMETRY_NORMAL).image());
            var image = ImageFile.decode(up, 10_000_000);
            for (int y = 0; y < image.getHeight(); y++) {
                for (int x = 0; x < image.getWidth(); x++) {
                    int c = image.getRGB(x, y);
                    image.setRGB(x, y, (c & 0xFFFF00FF) | (0xFF00 - (c & 0xFF00)));
                }
            }
            Model kept = read("a.zip", zip(Map.of("a_normal.png", up)));
            assertThat(String.join(" ", kept.notes())).as(code).doesNotContain("green");
            Model turned = read("a.zip", zip(Map.of("a_normal.png", ImageFile.png(image))));
            assertThat(String.join(" ", turned.notes())).as(code).contains("green points down");
        }
    }

    /** However its pixels are kept, a picture shows its colour; what can't be read, or is a trap, is said and left out. */
    @Test
    void picturesOfEveryMakeAreReadOrSaid() throws Exception {
        Map<String, byte[]> files = new LinkedHashMap<>();
        files.put("deep_basecolor.png", drawn(deep(), 0x906040));
        files.put("grey_basecolor.png", drawn(new BufferedImage(8, 8, BufferedImage.TYPE_BYTE_GRAY), 0x777777));
        files.put("few_basecolor.png", drawn(new BufferedImage(8, 8, BufferedImage.TYPE_BYTE_INDEXED), 0x996633));
        files.put("clear_basecolor.png", drawn(new BufferedImage(8, 8, BufferedImage.TYPE_INT_ARGB), 0x406080));
        Model model = read("set.zip", zip(files));
        assertThat(model.sources()).hasSize(4);
        Map<String, Integer> seen = new LinkedHashMap<>();
        for (SourceMaterial m : model.sources()) {
            seen.put(m.name(), pixel(model, m.material().surface(), Parameter.BASE_COLOR));
        }
        assertThat(seen.values()).containsExactlyInAnyOrder(0x906040, 0x777777, 0x996633, 0x406080);

        byte[] bomb = drawn(new BufferedImage(8, 8, BufferedImage.TYPE_INT_RGB), 0);
        bomb[17] = 1; // says that it is 65,544 pixels wide and as high
        bomb[21] = 1;
        byte[] cut = Arrays.copyOf(drawn(new BufferedImage(64, 64, BufferedImage.TYPE_INT_RGB), 1), 70);
        files.put("bad_basecolor.png", bomb);
        assertThatThrownBy(() -> read("set.zip", zip(files)))
                .isInstanceOf(ImportException.class)
                .hasMessageContaining("65,544 × 65,544 pixels");
        for (byte[] bad : new byte[][] {cut, inks(), "not a picture".getBytes(StandardCharsets.US_ASCII)}) {
            files.put("bad_basecolor.png", bad);
            Model rest = read("set.zip", zip(files));
            assertThat(rest.sources().size()).isBetween(4, 5);
            boolean told = String.join(" ", rest.notes()).contains("bad_basecolor");
            boolean readable = rest.sources().stream()
                    .filter(m -> m.name().startsWith("Bad"))
                    .flatMap(m -> m.material().surface().textures().values().stream())
                    .allMatch(t -> isReadable(rest.images().get(t.image()).bytes()));
            assertThat(told || readable).as("%s", rest.notes()).isTrue();
        }
        ByteArrayOutputStream zeros = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(zeros)) {
            zip.putNextEntry(new ZipEntry("bomb_basecolor.png"));
            byte[] block = new byte[1 << 20];
            for (int i = 0; i < 1_200; i++) {
                zip.write(block);
            }
        }
        assertThatThrownBy(() -> read("bomb.zip", zeros.toByteArray()))
                .isInstanceOf(ImportException.class)
                .message()
                .hasSizeBetween(20, 300);
    }

    private static boolean isReadable(byte[] picture) {
        try {
            return ImageFile.decode(picture, 1_000_000) != null;
        } catch (IOException e) {
            return false;
        }
    }

    /** Sixteen bits a component. */
    private static BufferedImage deep() {
        ColorSpace srgb = ColorSpace.getInstance(ColorSpace.CS_sRGB);
        ComponentColorModel model =
                new ComponentColorModel(srgb, false, false, Transparency.OPAQUE, DataBuffer.TYPE_USHORT);
        WritableRaster raster = model.createCompatibleWritableRaster(8, 8);
        return new BufferedImage(model, raster, false, null);
    }

    private static byte[] drawn(BufferedImage image, int rgb) throws IOException {
        for (int y = 0; y < image.getHeight(); y++) {
            for (int x = 0; x < image.getWidth(); x++) {
                image.setRGB(x, y, 0xFF000000 | rgb);
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        assertThat(ImageIO.write(image, "png", out)).isTrue();
        return out.toByteArray();
    }

    /** A JPEG of four components, as print shops have them. */
    private static byte[] inks() throws IOException {
        WritableRaster raster = Raster.createInterleavedRaster(DataBuffer.TYPE_BYTE, 8, 8, 4, null);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageWriter writer = ImageIO.getImageWritersByFormatName("jpeg").next();
        try (ImageOutputStream to = ImageIO.createImageOutputStream(out)) {
            writer.setOutput(to);
            writer.write(null, new IIOImage(raster, null, null), null);
        } finally {
            writer.dispose();
        }
        return out.toByteArray();
    }
}

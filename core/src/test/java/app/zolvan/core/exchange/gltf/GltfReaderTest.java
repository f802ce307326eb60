package app.zolvan.core.exchange.gltf;

import static app.zolvan.core.exchange.gltf.GltfFile.TRIANGLE;
import static app.zolvan.core.exchange.gltf.GltfFile.glb;
import static app.zolvan.core.exchange.gltf.GltfFile.json;
import static app.zolvan.core.exchange.gltf.GltfFile.read;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.model.Model;
import app.zolvan.core.texture.Pattern;
import app.zolvan.core.texture.PatternImages;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Base64;
import org.junit.jupiter.api.Test;

class GltfReaderTest {
    private static final String ONE_NODE = ",\"nodes\":[{\"mesh\":0}],\"scenes\":[{\"nodes\":[0]}]";

    @Test
    void namesHierarchyAndPlacementsSurvive() throws Exception {
        Model m = read(glb(
                json(",\"nodes\":[{\"name\":\"House\",\"children\":[1,2],\"translation\":[1,2,3]},"
                        + "{\"name\":\"Door\",\"mesh\":0,\"scale\":[2,2,2]},{\"name\":\"Window\",\"mesh\":0}],"
                        + "\"scenes\":[{\"nodes\":[0]}]"),
                TRIANGLE));
        assertThat(m.groups()).singleElement().satisfies(g -> {
            assertThat(g.name()).isEqualTo("House");
            assertThat(g.local()).isEqualTo(Transform.translation(1, 2, 3));
        });
        assertThat(m.parts()).extracting(Model.Part::name).containsExactly("Door", "Window");
        assertThat(m.meshes()).as("instances share one mesh").hasSize(1);
        assertThat(m.boundsOf(m.parts().get(0)).max().x()).isEqualTo(3);
        assertThat(m.matchingSets())
                .singleElement()
                .satisfies(s -> assertThat(s.regions()).hasSize(2));
    }

    @Test
    void theMaterialExtensionsBecomeOpenPbrParameters() throws Exception {
        Model m = read(glb(
                json(ONE_NODE.replace("\"mesh\":0", "\"mesh\":1")
                                + ",\"materials\":[{\"name\":\"mat_07\",\"pbrMetallicRoughness\":{\"baseColorFactor\":[0.2,0.3,0.4,1],"
                                + "\"metallicFactor\":0,\"roughnessFactor\":0.25},\"extensions\":{"
                                + "\"KHR_materials_transmission\":{\"transmissionFactor\":1},\"KHR_materials_ior\":{\"ior\":1.333},"
                                + "\"KHR_materials_volume\":{\"thicknessFactor\":0.01,\"attenuationDistance\":0.5,\"attenuationColor\":[0.5,1,1]},"
                                + "\"KHR_materials_clearcoat\":{\"clearcoatFactor\":0.7,\"clearcoatRoughnessFactor\":0.1},"
                                + "\"KHR_materials_sheen\":{\"sheenColorFactor\":[0.5,0.25,0],\"sheenRoughnessFactor\":0.3},"
                                + "\"KHR_materials_dispersion\":{\"dispersion\":0.4}},"
                                + "\"emissiveFactor\":[1,0.5,0]}]")
                        .replace(
                                "\"meshes\":[",
                                "\"meshes\":[{\"primitives\":[{\"attributes\":{\"POSITION\":0}}]},"
                                        + "{\"primitives\":[{\"attributes\":{\"POSITION\":0},\"material\":0}]},"),
                TRIANGLE));
        Surface s = m.sources().get(0).material().surface();
        assertThat(m.sources().get(0).name()).isEqualTo("mat_07");
        assertThat(s.number(Parameter.SPECULAR_ROUGHNESS)).isEqualTo(0.25);
        assertThat(s.number(Parameter.SPECULAR_IOR)).isEqualTo(1.333);
        assertThat(s.number(Parameter.TRANSMISSION_DEPTH)).isEqualTo(0.5);
        assertThat(s.colour(Parameter.TRANSMISSION_COLOR)).isEqualTo(new LinearRgb(0.5, 1, 1));
        assertThat(s.flag(Parameter.GEOMETRY_THIN_WALLED)).isFalse();
        assertThat(s.number(Parameter.COAT_WEIGHT)).isEqualTo(0.7);
        assertThat(s.number(Parameter.FUZZ_WEIGHT)).isEqualTo(0.5);
        assertThat(s.colour(Parameter.FUZZ_COLOR)).isEqualTo(new LinearRgb(1, 0.5, 0));
        assertThat(s.number(Parameter.FUZZ_ROUGHNESS)).isCloseTo(0.09, within(1e-12));
        assertThat(s.number(Parameter.TRANSMISSION_DISPERSION_ABBE_NUMBER)).isEqualTo(50);
        assertThat(s.number(Parameter.EMISSION_LUMINANCE)).isEqualTo(1000);
    }

    @Test
    void stripsAndMissingNormalsAreReadAsTheStandardSays() throws Exception {
        String strip = json(ONE_NODE).replace("\"indices\":1", "\"indices\":1,\"mode\":5");
        Mesh mesh = read(glb(strip, TRIANGLE)).meshes().get(0);
        assertThat(mesh.triangleCount()).isEqualTo(1);
        assertThat(mesh.normal(0).z()).isEqualTo(1);
    }

    @Test
    void plainGltfWithEmbeddedDataIsReadToo() throws Exception {
        String uri =
                "data:application/octet-stream;base64," + Base64.getEncoder().encodeToString(TRIANGLE);
        String text = json(ONE_NODE).replace("{\"byteLength\":44}", "{\"byteLength\":44,\"uri\":\"" + uri + "\"}");
        assertThat(read(text.getBytes(StandardCharsets.UTF_8)).parts()).hasSize(1);
    }

    @Test
    void aSparseAccessorReplacesSingleValues() throws Exception {
        ByteBuffer bin = ByteBuffer.allocate(60).order(ByteOrder.LITTLE_ENDIAN).put(TRIANGLE);
        bin.putShort((short) 2).putShort((short) 0).putFloat(7).putFloat(8).putFloat(9);
        String text = json(ONE_NODE)
                .replace("{\"byteLength\":44}", "{\"byteLength\":60}")
                .replace(
                        "\"bufferViews\":[",
                        "\"bufferViews\":[{\"buffer\":0,\"byteLength\":36},"
                                + "{\"buffer\":0,\"byteOffset\":36,\"byteLength\":6},"
                                + "{\"buffer\":0,\"byteOffset\":44,\"byteLength\":2},"
                                + "{\"buffer\":0,\"byteOffset\":48,\"byteLength\":12},")
                .replace(
                        "\"count\":3,\"type\":\"VEC3\"",
                        "\"count\":3,\"type\":\"VEC3\",\"sparse\":{\"count\":1,"
                                + "\"indices\":{\"bufferView\":2,\"componentType\":5123},\"values\":{\"bufferView\":3}}");
        Mesh mesh = read(glb(text, bin.array())).meshes().get(0);
        assertThat(mesh.positions()).endsWith(7, 8, 9).startsWith(0, 0, 0, 1, 0, 0);
    }

    @Test
    void texturesKeepTheirPlacementAndWhatIsLeftOutIsNoted() throws Exception {
        byte[] png = new PatternImages(Pattern.grey((u, v) -> u), 4).tone(0, 255);
        String uri = "data:image/png;base64," + Base64.getEncoder().encodeToString(png);
        Model m = read(glb(
                json(ONE_NODE
                        + ",\"images\":[{\"uri\":\"" + uri + "\"}],\"samplers\":[{\"wrapS\":33648,\"wrapT\":33071}],"
                        + "\"textures\":[{\"source\":0,\"sampler\":0}],\"animations\":[{}],"
                        + "\"extensionsUsed\":[\"MSFT_lod\"],"
                        + "\"materials\":[{\"pbrMetallicRoughness\":{\"baseColorTexture\":{\"index\":0,\"extensions\":"
                        + "{\"KHR_texture_transform\":{\"offset\":[0.1,0.2],\"rotation\":0.5,\"scale\":[2,3]}}}},"
                        + "\"occlusionTexture\":{\"index\":0}}]"),
                TRIANGLE));
        TextureUse use = m.sources().get(0).material().surface().textures().get(Parameter.BASE_COLOR);
        assertThat(use.placement()).isEqualTo(new TextureUse.ModelUv(0.1, 0.2, 0.5, 2, 3));
        assertThat(use.wrapU()).isEqualTo(TextureUse.Wrap.MIRROR);
        assertThat(use.wrapV()).isEqualTo(TextureUse.Wrap.ONCE);
        assertThat(m.images().get(use.image()).width()).isEqualTo(4);
        assertThat(m.notes())
                .anyMatch(n -> n.contains("occlusion"))
                .anyMatch(n -> n.contains("animations"))
                .anyMatch(n -> n.contains("MSFT_lod"));
    }

    @Test
    void aTruncatedFileSaysSo() {
        byte[] whole = glb(json(ONE_NODE), TRIANGLE);
        for (int length : new int[] {4, 15, 30, whole.length / 2, whole.length - 1}) {
            refused(Arrays.copyOf(whole, length), "truncated", "incomplete");
        }
    }

    @Test
    void jsonThatIsNoModelAndGarbageAreRefused() {
        refused("{\"a\":1}".getBytes(StandardCharsets.UTF_8), "wrong-type", "not a glTF model");
        refused("{\"asset\":".getBytes(StandardCharsets.UTF_8), "not-json", "not valid JSON");
        refused(glb("[1,2]", new byte[0]), "invalid", "at the top of the file");
    }

    @Test
    void aClaimOfThreeGigabytesInAKilobyteAllocatesNothing() {
        refused(
                glb(json(ONE_NODE).replace("\"byteLength\":44", "\"byteLength\":3221225472"), TRIANGLE),
                "truncated",
                "claims 3221225472 bytes");
        refused(
                glb(
                        json(ONE_NODE)
                                .replace("\"count\":3,\"type\":\"VEC3\"", "\"count\":268435456,\"type\":\"VEC3\""),
                        TRIANGLE),
                "too-many-triangles",
                "more than 8,000,000 triangles");
        String unbacked = json(ONE_NODE)
                .replace(
                        "{\"bufferView\":0,\"componentType\":5126,\"count\":3",
                        "{\"componentType\":5126,\"count\":14000000");
        refused(glb(unbacked, TRIANGLE), "too-large", "without giving any");
    }

    @Test
    void anAccessorOutOfRangeIsRefused() {
        refused(
                glb(json(ONE_NODE).replace("\"count\":3,\"type\":\"VEC3\"", "\"count\":4,\"type\":\"VEC3\""), TRIANGLE),
                "out-of-range",
                "reach past the end");
        byte[] wrongCorner = TRIANGLE.clone();
        wrongCorner[40] = 9;
        refused(glb(json(ONE_NODE), wrongCorner), "out-of-range", "corner 9 of 3");
        refused(glb(json(ONE_NODE.replace("\"mesh\":0", "\"mesh\":5")), TRIANGLE), "out-of-range", "mesh 5");
    }

    @Test
    void positionsThatAreNoNumbersAreRefused() {
        refused(glb(json(ONE_NODE), GltfFile.triangle(Float.NaN)), "not-finite", "corner that is nowhere");
    }

    @Test
    void aCyclicHierarchyIsRefused() {
        refused(
                glb(json(",\"nodes\":[{\"children\":[1]},{\"children\":[0]}],\"scenes\":[{\"nodes\":[0]}]"), TRIANGLE),
                "cyclic",
                "runs in a circle");
        refused(glb(json(",\"nodes\":[{\"children\":[0]}]"), TRIANGLE), "cyclic", "runs in a circle");
    }

    @Test
    void anAddressOutsideTheFileIsNeverFollowed() throws Exception {
        refused(
                glb(
                        json(ONE_NODE).replace("{\"byteLength\":44}", "{\"byteLength\":44,\"uri\":\"http://x/y.bin\"}"),
                        TRIANGLE),
                "external-uri",
                "not part of the upload");
        Model lacking = read(glb(
                json(ONE_NODE + ",\"images\":[{\"uri\":\"../../etc/passwd\"},{\"uri\":\"http://x/y.png\"}]"),
                TRIANGLE));
        assertThat(lacking.images()).isEmpty();
        assertThat(lacking.notes()).hasSize(2).allMatch(n -> n.contains("did not come with it"));
    }

    @Test
    void anAbsurdTextureIsRefusedByItsHeadAlone() {
        ByteBuffer png = ByteBuffer.allocate(40);
        png.putInt(0x89504E47)
                .putInt(0x0D0A1A0A)
                .putInt(13)
                .putInt(0x49484452)
                .putInt(20_000)
                .putInt(20_000);
        String uri = "data:image/png;base64," + Base64.getEncoder().encodeToString(png.array());
        refused(
                glb(json(ONE_NODE + ",\"images\":[{\"name\":\"wall\",\"uri\":\"" + uri + "\"}]"), TRIANGLE),
                "image-too-large",
                "“wall” is 20,000 × 20,000 pixels");
    }

    @Test
    void anEmptySceneIsRefused() {
        refused(glb(json(",\"nodes\":[{}],\"scenes\":[{\"nodes\":[0]}]"), TRIANGLE), "empty", "nothing to dress");
        refused(glb("{\"asset\":{\"version\":\"2.0\"}}", new byte[0]), "empty", "nothing to dress");
    }

    @Test
    void compressionThatIsNotReadYetIsNamed() {
        refused(
                glb(json(ONE_NODE + ",\"extensionsRequired\":[\"KHR_draco_mesh_compression\"]"), TRIANGLE),
                "compressed",
                "Draco");
        refused(
                glb(json(ONE_NODE + ",\"extensionsRequired\":[\"EXT_meshopt_compression\"]"), TRIANGLE),
                "compressed",
                "meshopt");
    }

    @Test
    void deeplyNestedJsonIsRefusedInsteadOfOverflowing() {
        refused(glb("[".repeat(100_000), new byte[0]), "too-large", "too deeply nested");
    }

    private static void refused(byte[] file, String reason, String sentence) {
        assertThatThrownBy(() -> read(file)).isInstanceOfSatisfying(ImportException.class, e -> {
            assertThat(e.reason()).isEqualTo(reason);
            assertThat(e).hasMessageContaining(sentence);
            assertThat(e.getMessage()).endsWith(".");
        });
    }
}

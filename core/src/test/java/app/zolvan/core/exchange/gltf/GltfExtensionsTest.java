package app.zolvan.core.exchange.gltf;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.Files;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.model.Model;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.Map;
import org.junit.jupiter.api.Test;

/** A .gltf with its buffer beside it in a zip, with what goes beyond plain glTF. */
class GltfExtensionsTest {

    private static byte[] buffer() {
        ByteBuffer b = ByteBuffer.allocate(120).order(ByteOrder.LITTLE_ENDIAN);
        floats(b, 0, 0, 0, 1, 0, 0, 0, 1, 0); // positions
        b.put(new byte[] {-1, 0, 0, -1, 0, -128, 0, -1, 0, 0, 0, 0}); // linear colours: red, half green, clear black
        floats(b, 0, 0, 1, 0, 0, 1); // first coordinates
        floats(b, 5, 5, 6, 5, 5, 6); // second coordinates
        floats(b, 0, 0, 0, 10, 0, 0); // places
        return b.array();
    }

    private static void floats(ByteBuffer b, float... values) {
        for (float v : values) {
            b.putFloat(v);
        }
    }

    private static String gltf(String asset) {
        return """
                {"asset":{"version":"2.0"%s},
                "buffers":[{"uri":"data/shape%%201.bin","byteLength":120}],
                "bufferViews":[{"buffer":0,"byteLength":36},{"buffer":0,"byteOffset":36,"byteLength":12},
                {"buffer":0,"byteOffset":48,"byteLength":24},{"buffer":0,"byteOffset":72,"byteLength":24},
                {"buffer":0,"byteOffset":96,"byteLength":24}],
                "accessors":[{"bufferView":0,"componentType":5126,"count":3,"type":"VEC3"},
                {"bufferView":1,"componentType":5121,"normalized":true,"count":3,"type":"VEC4"},
                {"bufferView":2,"componentType":5126,"count":3,"type":"VEC2"},
                {"bufferView":3,"componentType":5126,"count":3,"type":"VEC2"},
                {"bufferView":4,"componentType":5126,"count":2,"type":"VEC3"}],
                "materials":[{"name":"oak"},{"name":"pine"}],
                "extensionsUsed":["KHR_materials_variants","EXT_mesh_gpu_instancing"],
                "extensions":{"KHR_materials_variants":{"variants":[{"name":"Dark"},{"name":"Light"}]}},
                "meshes":[{"primitives":[{"attributes":{"POSITION":0,"COLOR_0":1,"TEXCOORD_0":2,"TEXCOORD_1":3},
                "material":0,"extensions":{"KHR_materials_variants":{"mappings":[{"material":1,"variants":[1]}]}}}],
                "extras":{"zolvan":{"face_starts":[0]}}}],
                "nodes":[{"name":"Slat","mesh":0,"extensions":{"EXT_mesh_gpu_instancing":{"attributes":{"TRANSLATION":4}}}}],
                "scenes":[{"nodes":[0]}]}""".formatted(asset);
    }

    private static Arrival read(String asset) throws Exception {
        return Files.read(Files.zip("m/model.gltf", gltf(asset), "m/data/shape 1.bin", buffer()));
    }

    @Test
    void repeatsOfInstancingBecomePartsOfOneMesh() throws Exception {
        Model m = read("").model();
        assertThat(m.parts()).extracting(Model.Part::name).containsExactly("Slat 1", "Slat 2");
        assertThat(m.meshes()).hasSize(1);
        assertThat(m.boundsOf(m.parts().get(1)).min().x()).isEqualTo(10);
        assertThat(m.notes()).isEmpty();
    }

    @Test
    void variantsKeepWhichRegionShowsWhat() throws Exception {
        Arrival a = read("");
        assertThat(a.variants()).extracting(Arrival.Variant::name).containsExactly("Dark", "Light");
        assertThat(a.variants().get(0).materials()).isEmpty();
        assertThat(a.variants().get(1).materials())
                .isEqualTo(Map.of(new Model.Region(0, 0), 1, new Model.Region(1, 0), 1));
    }

    @Test
    void paintedColoursAndBothSetsOfCoordinatesArrive() throws Exception {
        Mesh mesh = read("").model().meshes().get(0);
        assertThat(mesh.uv()).containsExactly(0, 0, 1, 0, 0, 1);
        assertThat(mesh.uv2()).containsExactly(5, 5, 6, 5, 5, 6);
        // glTF colours are linear: 128/255 of green is sRGB code 188
        assertThat(mesh.colours()).containsExactly(255, 0, 0, 255, 0, 188, 0, 255, 0, 0, 0, 0);
    }

    @Test
    void trianglesThatZolvanMadeOfAnotherFormatSayWhichAndKeepItsFacesAndNotes() throws Exception {
        Arrival a =
                read(",\"extras\":{\"zolvan\":{\"notes\":[\"Layers are one body.\"],\"source\":{\"format\":\"STEP\","
                        + "\"unit\":\"mm\",\"unitReason\":\"It says so.\",\"up\":\"Z\",\"upReason\":\"Most have.\","
                        + "\"upCertain\":false}}}");
        assertThat(a.format()).isEqualTo("STEP");
        assertThat(a.unit().label()).isEqualTo("mm");
        assertThat(a.up().axis()).isEqualTo(UpAxis.Z);
        assertThat(a.isAsking()).isTrue();
        assertThat(a.model().notes()).containsExactly("Layers are one body.");
        assertThat(a.model().meshes().get(0).faces()).containsExactly(0);
        assertThat(a.model().bounds().min().z()).as("Y pointed back, Z up").isEqualTo(-1);
    }

    @Test
    void aBufferThatDidNotComeAlongIsNamed() {
        assertThatThrownBy(() -> Files.read(Files.zip("model.gltf", gltf(""))))
                .hasMessageContaining("shape%201.bin")
                .hasMessageContaining("zip of all its files");
    }
}

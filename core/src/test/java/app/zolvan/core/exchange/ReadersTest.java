package app.zolvan.core.exchange;

import static app.zolvan.core.exchange.Files.measure;
import static app.zolvan.core.exchange.Files.read;
import static app.zolvan.core.exchange.Files.zip;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.exchange.formats.ModelFormats;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;

/** What each format says and means, on files small enough to check by hand. */
class ReadersTest {
    private static final byte[] PIXEL = Base64.getDecoder()
            .decode("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==");
    private static final String SQUARE = "v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\n";

    private static Model unitModel(String text) throws ImportException {
        Reading reading = new Reading(ImportLimits.STANDARD, ModelReader.Progress.NONE, LengthUnit.M, UpAxis.Y);
        return ModelFormats.read(
                        "t", ByteBuffer.wrap(text.getBytes(StandardCharsets.UTF_8)), FileSet.Companions.NONE, reading)
                .model();
    }

    @Test
    void aConcavePolygonIsCoveredExactlyOnce() throws Exception {
        // an L of area 3 whose fan from the first corner would cover ground outside it
        Model l = unitModel("v 2 0 0\nv 2 1 0\nv 1 1 0\nv 1 2 0\nv 0 2 0\nv 0 0 0\nf 1 2 3 4 5 6\n");
        assertThat(l.meshOf(l.parts().get(0)).triangleCount()).isEqualTo(4);
        assertThat(measure(l).area()).isCloseTo(3, within(1e-12));
        Mesh mesh = l.meshOf(l.parts().get(0));
        for (int t = 0; t < 4; t++) {
            Vec3 a = mesh.position(mesh.indices()[3 * t]);
            Vec3 n = mesh.position(mesh.indices()[3 * t + 1])
                    .minus(a)
                    .cross(mesh.position(mesh.indices()[3 * t + 2]).minus(a));
            assertThat(n.z()).isPositive();
        }
    }

    @Test
    void objGroupsObjectsMaterialsAndNegativeIndicesAreFollowed() throws Exception {
        Arrival arrival =
                read("mtllib gone.mtl\no Table\ng top\n" + SQUARE + "usemtl oak\nf -4 -3 -2\nusemtl pine\nf -4 -2 -1\n"
                        + "g leg\nusemtl oak\nf 1 2 3 \\\n 4\no Vase\nf 1/ 2/ 3/\n");
        Model m = arrival.model();
        assertThat(m.groups()).extracting(Model.Group::name).containsExactly("Table");
        assertThat(m.parts()).extracting(Model.Part::name).containsExactly("top", "leg", "Vase");
        assertThat(m.parts().get(0).sourceOfSpan()).containsExactly(0, 1);
        assertThat(m.sources()).extracting(s -> s.name()).containsExactly("oak", "pine");
        assertThat(m.notes()).anyMatch(n -> n.contains("gone.mtl"));
        assertThat(arrival.isAsking()).isTrue();
    }

    @Test
    void smoothingGroupsDecideWhichEdgesAreSoft() throws Exception {
        // two faces at a right angle: one group makes their common edge soft, two groups or none keep it sharp
        String wall = "v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nv 0 0 1\nv 1 0 1\n";
        assertThat(vertices(wall + "s 1\nf 1 2 3 4\nf 2 1 5 6\n")).isEqualTo(6);
        assertThat(vertices(wall + "s 1\nf 1 2 3 4\ns 2\nf 2 1 5 6\n")).isEqualTo(8);
        assertThat(vertices(wall + "s off\nf 1 2 3 4\nf 2 1 5 6\n")).isEqualTo(8 + 4); // flat: no corner shared
        Model soft = unitModel(wall + "s 1\nf 1 2 3 4\nf 2 1 5 6\n");
        Vec3 n = soft.meshes().get(0).normal(0);
        assertThat(n.minus(new Vec3(0, 1, 1).normalised()).length()).isLessThan(1e-6);
    }

    private static int vertices(String obj) throws ImportException {
        return unitModel(obj).meshes().get(0).vertexCount();
    }

    @Test
    void objWithItsMaterialsAndPicturesComesInAZip() throws Exception {
        Arrival arrival = read(zip(
                "model/thing.obj",
                "mtllib thing.mtl\n" + SQUARE + "vt 0 0\nvt 1 0\nvt 1 1\nusemtl a b\nf 1/1 2/2 3/3\n",
                "model/thing.mtl",
                "newmtl a b\nKd 0.5 0.25 1\nPr 0.3\nPm 1\nmap_Kd -s 2 2 1 C:\\work\\tex\\wood grain.png\n",
                "model/tex/wood grain.png",
                PIXEL));
        Surface s = arrival.model().sources().get(0).material().surface();
        assertThat(s.number(Parameter.SPECULAR_ROUGHNESS)).isEqualTo(0.3);
        assertThat(s.number(Parameter.BASE_METALNESS)).isEqualTo(1);
        assertThat(s.colour(Parameter.BASE_COLOR).r()).isCloseTo(0.21404, within(1e-5)); // sRGB 0.5
        assertThat(arrival.model().images()).hasSize(1);
        assertThat(arrival.model().meshes().get(0).uv()[1]).isEqualTo(1); // pictures start at the top
    }

    @Test
    void aBinaryStlMayBeginWithSolidAndItsAttributeBytesPaintIt() throws Exception {
        ByteBuffer b = ByteBuffer.allocate(84 + 2 * 50).order(ByteOrder.LITTLE_ENDIAN);
        b.put("solid made by a machine, facet count follows".getBytes(StandardCharsets.US_ASCII));
        b.putInt(80, 2).position(84);
        for (int t = 0; t < 2; t++) {
            b.position(84 + 50 * t + 12);
            b.putFloat(0).putFloat(0).putFloat(0);
            b.putFloat(10).putFloat(0).putFloat(0);
            b.putFloat(0).putFloat(t == 0 ? 10 : -10).putFloat(0);
            b.putShort((short) (t == 0 ? 0x8000 | 31 << 10 : 0)); // red, and nothing
        }
        Model m = read(b.array()).model();
        assertThat(m.sources()).hasSize(1);
        assertThat(m.sources()
                        .get(0)
                        .material()
                        .surface()
                        .colour(Parameter.BASE_COLOR)
                        .r())
                .isEqualTo(1);
        assertThat(m.parts().get(0).sourceOfSpan()).containsExactly(Model.NONE, 0);
    }

    @Test
    void theUnitOfAnStlIsGuessedBySizeAndMarkedAsAGuess() throws Exception {
        Arrival small = read(
                "solid a\nfacet\nouter loop\nvertex 0 0 0\nvertex 300 0 0\nvertex 0 0 90\nendloop\nendfacet\nendsolid");
        assertThat(small.unit().label()).isEqualTo("mm");
        assertThat(small.unit().certain()).isFalse();
        assertThat(small.model().bounds().size().x()).isCloseTo(0.3, within(1e-7));
        assertThat(small.model().bounds().size().y()).isCloseTo(0.09, within(1e-7)); // Z was up
        Arrival large = read(
                "solid a\nfacet\nouter loop\nvertex 0 0 0\nvertex 4.5 0 0\nvertex 0 0 2\nendloop\nendfacet\nendsolid");
        assertThat(large.unit().label()).isEqualTo("m");
        assertThat(large.unit().candidates()).hasSize(5);
    }

    @Test
    void plyPropertiesMayStandInAnyOrder() throws Exception {
        String head =
                "ply\nformat ascii 1.0\nelement vertex 3\nproperty uchar blue\nproperty float z\nproperty float x\n"
                        + "property uchar red\nproperty float y\nproperty uchar green\nelement face 1\nproperty float weight\n"
                        + "property list uchar int vertex_index\nend_header\n";
        Model m = unitModel(head + "9 0 0 7 0 8\n9 0 1 7 0 8\n9 0 0 7 1 8\n0.5 3 0 1 2\n");
        assertThat(m.meshes().get(0).position(1)).isEqualTo(Vec3.axis(0));
        assertThat(m.meshes().get(0).colours()).startsWith(7, 8, 9, (byte) 255);
    }

    @Test
    void threeMfComponentsUnitsAndColoursArrive() throws Exception {
        String tetra =
                "<mesh><vertices><vertex x='0' y='0' z='0'/><vertex x='1' y='0' z='0'/><vertex x='0' y='1' z='0'/>"
                        + "<vertex x='0' y='0' z='1'/></vertices><triangles><triangle v1='0' v2='2' v3='1' pid='5' p1='0'/>"
                        + "<triangle v1='0' v2='1' v3='3'/><triangle v1='0' v2='3' v3='2'/><triangle v1='1' v2='2' v3='3'/>"
                        + "</triangles></mesh>";
        Arrival arrival = read(threeMf(
                "inch",
                "<m:colorgroup id='5'><m:color color='#FF0000'/></m:colorgroup>"
                        + "<basematerials id='6'><base name='Brass' displaycolor='#C9B37AFF'/></basematerials>"
                        + "<object id='1' name='Foot' pid='6' pindex='0'>" + tetra + "</object>"
                        + "<object id='2' name='Stand'><components><component objectid='1'/>"
                        + "<component objectid='1' transform='1 0 0 0 1 0 0 0 1 10 0 0'/></components></object>",
                "<item objectid='2'/>"));
        Model m = arrival.model();
        assertThat(arrival.unit().metres()).isEqualTo(0.0254);
        assertThat(m.groups()).extracting(Model.Group::name).containsExactly("Stand");
        assertThat(m.parts()).hasSize(2).allMatch(p -> p.mesh() == 0);
        assertThat(m.sources()).extracting(s -> s.name()).containsExactly("Brass", "Colour 1");
        assertThat(m.bounds().size().x()).isCloseTo(11 * 0.0254, within(1e-7));
        assertThat(m.bounds().max().y()).isCloseTo(0.0254, within(1e-7));
        assertThat(measure(m).volume()).isCloseTo(2 * Math.pow(0.0254, 3) / 6, within(1e-12));
    }

    private static byte[] threeMf(String unit, String resources, String items) {
        return zip(
                "_rels/.rels",
                "<Relationships><Relationship Target='/3D/m.model' Type='http://x/3dmodel'/></Relationships>",
                "3D/m.model",
                "<model unit='" + unit + "' xmlns:m='m'><resources>" + resources + "</resources><build>" + items
                        + "</build></model>");
    }

    @Test
    void threeMfComponentsThatHoldEachOtherAreRefused() {
        byte[] circle = threeMf(
                "meter",
                "<object id='1'><components><component objectid='2'/></components></object>"
                        + "<object id='2'><components><component objectid='1'/></components></object>",
                "<item objectid='1'/>");
        assertThatThrownBy(() -> read(circle)).hasMessageContaining("in a circle");
    }

    @Test
    void colladaHolesInstancesAndUpAxisAreKept() throws Exception {
        Arrival arrival = read("""
                <COLLADA version="1.4.1"><asset><unit meter="0.01"/><up_axis>Z_UP</up_axis></asset>
                <library_geometries><geometry id="g"><mesh><source id="p"><float_array>
                0 0 0 9 0 0 9 9 0 0 9 0 3 3 0 6 3 0 6 6 0 3 6 0</float_array></source>
                <vertices id="v"><input semantic="POSITION" source="#p"/></vertices>
                <polygons><input semantic="VERTEX" source="#v" offset="0"/><ph><p>0 1 2 3</p><h>4 5 6 7</h></ph></polygons>
                </mesh></geometry></library_geometries>
                <library_nodes><node id="n" name="Pane"><translate>0 0 5</translate><instance_geometry url="#g"/></node>
                </library_nodes><library_visual_scenes><visual_scene id="s"><node name="Wall">
                <instance_node url="#n"/><node name="Again"><rotate>0 0 1 90</rotate><instance_node url="#n"/></node>
                </node></visual_scene></library_visual_scenes><scene><instance_visual_scene url="#s"/></scene></COLLADA>""");
        Model m = arrival.model();
        assertThat(m.parts()).hasSize(2).allMatch(p -> p.mesh() == 0 && p.name().equals("Pane"));
        assertThat(m.groups()).extracting(Model.Group::name).containsExactly("Wall", "Again");
        assertThat(measure(m).area()).isCloseTo(2 * 0.72 * 0.01, within(1e-8)); // 81 − 9 cm² each
        assertThat(m.bounds().min().y()).isCloseTo(0.05, within(1e-7)); // Z became Y
    }

    @Test
    void entitiesAreNeitherFetchedNorGrown() {
        String bomb = "<!DOCTYPE COLLADA [<!ENTITY a \"aaaaaaaaaa\"><!ENTITY b \"&a;&a;&a;&a;&a;&a;&a;&a;\">"
                + "<!ENTITY f SYSTEM \"file:///etc/passwd\">]><COLLADA><asset>&b;&f;</asset></COLLADA>";
        assertThatThrownBy(() -> read(bomb)).isInstanceOf(ImportException.class);
    }

    @Test
    void aZipThatClaimsToUnpackToMoreThanItCanIsRefusedBeforeRoomIsMade() {
        byte[] bomb = zip("a.obj", SQUARE + "f 1 2 3\n");
        ByteBuffer b = ByteBuffer.wrap(bomb).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i + 4 < bomb.length; i++) {
            if (b.getInt(i) == 0x02014b50) {
                b.putInt(i + 24, 900 << 20);
            }
        }
        assertThatThrownBy(() -> read(bomb)).hasMessageContaining("claims to unpack to 900 MB");
    }

    @Test
    void aByteThatChangedInsideAnArchiveIsNoticed() {
        byte[] archive = zip("plate.obj", "v 0 0 0\nv 7 0 0\nv 0 7 0\nf 1 2 3\n");
        byte[] stored = storedZip("plate.obj", "v 0 0 0\nv 7 0 0\nv 0 7 0\nf 1 2 3\n");
        assertThatCode(() -> read(archive)).doesNotThrowAnyException();
        for (int i = 0; i < stored.length; i++) {
            if (stored[i] == '7') {
                stored[i] = '8';
                break;
            }
        }
        assertThatThrownBy(() -> read(stored)).hasMessageContaining("checksum differs");
    }

    private static byte[] storedZip(String name, String text) {
        byte[] content = text.getBytes(StandardCharsets.UTF_8);
        CRC32 crc = new CRC32();
        crc.update(content);
        ZipEntry entry = new ZipEntry(name);
        entry.setMethod(ZipEntry.STORED);
        entry.setSize(content.length);
        entry.setCrc(crc.getValue());
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(entry);
            zip.write(content);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    @Test
    void decimalCommasOfAnotherLanguageAreNumbers() throws Exception {
        String dae =
                "<COLLADA><library_geometries><geometry id='g'><mesh><source id='p'><float_array>0 0 0 0,5 0 0 0 2,5 0"
                        + "</float_array></source><vertices id='v'><input semantic='POSITION' source='#p'/></vertices><triangles>"
                        + "<input semantic='VERTEX' source='#v' offset='0'/><p>0 1 2</p></triangles></mesh></geometry>"
                        + "</library_geometries></COLLADA>";
        assertThat(measure(read(dae).model()).area()).isCloseTo(0.625, within(1e-9));
        byte[] wide = ("<?xml version='1.0' encoding='UTF-16'?>" + dae).getBytes(StandardCharsets.UTF_16);
        assertThat(measure(read(wide).model()).area()).isCloseTo(0.625, within(1e-9));
    }

    @Test
    void aReferenceCannotLeaveItsArchive() throws Exception {
        Arrival arrival = read(zip(
                "deep/thing.obj",
                "mtllib ../../../../etc/thing.mtl\n" + SQUARE + "usemtl a\nf 1 2 3\n",
                "../../evil.png",
                PIXEL));
        assertThat(arrival.model().notes()).anyMatch(n -> n.contains("did not come with it"));
        assertThat(FileSet.normalise("../../evil.png")).isEqualTo("evil.png");
        assertThat(FileSet.normalise("a/../../b/./c")).isEqualTo("b/c");
    }

    @Test
    void aReaderStopsWithASentenceWhereItsMemoryEnds() {
        StringBuilder obj = new StringBuilder();
        for (int i = 0; i < 200_000; i++) {
            obj.append("v ").append(i).append(" 0 0\n");
        }
        Reading tight = new Reading(ImportLimits.STANDARD.withMemory(1 << 20), ModelReader.Progress.NONE, null, null);
        assertThatThrownBy(() -> ModelFormats.read(
                        "big.obj",
                        ByteBuffer.wrap(obj.toString().getBytes(StandardCharsets.UTF_8)),
                        FileSet.Companions.NONE,
                        tight))
                .hasMessageContaining("more than 1 MB of memory");
    }

    @Test
    void coordinatesFarFromTheOriginKeepTheirSize() throws Exception {
        // a metre at national grid coordinates: single precision there steps by half a metre
        Model m = unitModel("v 6580000 0 1628000\nv 6580001 0 1628000\nv 6580000 0 1628001\nf 1 2 3\n");
        assertThat(measure(m).area()).isCloseTo(0.5, within(1e-6));
        assertThat(m.bounds().min().x()).isEqualTo(6580000);
    }

    @Test
    void whatIsNoModelIsToldWhatIsRead() {
        assertThatThrownBy(() -> read("hello there"))
                .hasMessageContaining("OBJ")
                .hasMessageContaining("3MF");
        assertThatThrownBy(() -> read(zip("readme.txt", "x"))).hasMessageContaining("holds no model");
        assertThatThrownBy(() -> read("ISO-10303-21;\nHEADER;")).hasMessageContaining("in the browser");
    }
}

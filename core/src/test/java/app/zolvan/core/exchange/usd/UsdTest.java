package app.zolvan.core.exchange.usd;

import static app.zolvan.core.exchange.Files.measure;
import static app.zolvan.core.exchange.Files.read;
import static app.zolvan.core.exchange.Files.zip;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.archive.AlignedZip;
import app.zolvan.core.exchange.archive.ZipArchive;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.model.Model;
import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** USD on layers small enough to check by hand; each text layer is also read back from its binary form. */
class UsdTest {
    private static final byte[] PIXEL = Base64.getDecoder()
            .decode("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==");
    private static final String SQUARE = """
            int[] faceVertexCounts = [4]
            int[] faceVertexIndices = [0, 1, 2, 3]
            point3f[] points = [(0, 0, 0), (1, 0, 0), (1, 1, 0), (0, 1, 0)]
            uniform token subdivisionScheme = "none"
            """;

    private static UsdPrim text(String layer) throws ImportException {
        return UsdTextReader.read(ByteBuffer.wrap(layer.getBytes(StandardCharsets.UTF_8)), Reading.standard());
    }

    @Test
    void unitStanceTransformsAndInheritedMaterialsAreKept() throws Exception {
        Arrival a = read("""
                #usda 1.0
                ( upAxis = "Z"
                  metersPerUnit = 0.001 )
                def Xform "Stand" ( displayName = "The stand" )
                {
                    double3 xformOp:translate = (0, 0, 2000)
                    float3 xformOp:rotateXYZ:turn = (90, 0, 90)
                    float3 xformOp:scale = (2, 1, 1)
                    uniform token[] xformOpOrder = ["xformOp:translate", "xformOp:rotateXYZ:turn", "xformOp:scale"]
                    rel material:binding = </Oak>
                    def Xform "Shelf" { def Mesh "Mesh" { %s } }
                    def Mesh "Rail" { %s }
                    over "Nobody" { def Mesh "Ghost" { %s } }
                }
                def Material "Oak" { token outputs:surface.connect = </Oak/S.outputs:surface>
                    def Shader "S" { uniform token info:id = "UsdPreviewSurface"
                        color3f inputs:diffuseColor = (0.2, 0.1, 0.05)
                        float inputs:roughness = 0.25 } }
                """.formatted(SQUARE, SQUARE, SQUARE));
        assertThat(a.unit().label()).isEqualTo("mm");
        Model m = a.model();
        assertThat(m.groups()).extracting(Model.Group::name).containsExactly("The stand");
        assertThat(m.parts()).extracting(Model.Part::name).containsExactly("Shelf", "Rail");
        assertThat(m.sources()).hasSize(1);
        Surface oak = m.sources().get(0).material().surface();
        assertThat(oak.colour(Parameter.BASE_COLOR).r()).isCloseTo(0.2, within(1e-6)); // scene-linear, not encoded
        assertThat(oak.number(Parameter.SPECULAR_ROUGHNESS)).isEqualTo(0.25);
        // corner (1, 1, 0): scaled to (2, 1, 0), turned about X to (2, 0, 1), about Z to (0, 2, 1), up by 2 m, Z up → Y
        // up
        Vec3 far = m.partToWorld(m.parts().get(0)).point(m.meshes().get(0).position(2));
        assertThat(far.minus(new Vec3(0, 2.001, -0.002)).length()).isLessThan(1e-6);
    }

    @Test
    void layersReferencesVariantsAndSubsetsComeTogether() throws Exception {
        byte[] pack = zip(
                "main.usda",
                """
                #usda 1.0
                ( metersPerUnit = 1
                  subLayers = [@./below.usda@] )
                def Xform "A" ( prepend references = @parts/tile.usda@ variants = { string finish = "red" } ) {
                    over "Plate" { rel material:binding = </A/Looks/Grey> } }
                def "B" ( references = [</A>] ) { double3 xformOp:translate = (5, 0, 0)
                    uniform token[] xformOpOrder = ["xformOp:translate"] }
                """,
                "below.usda",
                "#usda 1.0\ndef Mesh \"Floor\" { %s color3f[] primvars:displayColor = [(1, 0, 0)] }".formatted(SQUARE),
                "parts/tile.usda",
                """
                #usda 1.0
                ( defaultPrim = "Tile" )
                class "Look" { token outputs:surface.connect = </Look/S.outputs:surface>
                    def Shader "S" { uniform token info:id = "UsdPreviewSurface"
                        color3f inputs:diffuseColor.connect = </Look.inputs:paint> } }
                def Xform "Tile" ( variants = { string finish = "blue" } prepend variantSets = "finish" )
                {
                    def Scope "Looks" {
                        def Material "Grey" ( inherits = </Look> ) { color3f inputs:paint = (0.5, 0.5, 0.5) }
                        def Material "Paint" ( inherits = </Look> ) {} }
                    def Mesh "Plate" { %s
                        def GeomSubset "half" { int[] indices = [0] uniform token familyName = "materialBind"
                            rel material:binding = </Tile/Looks/Paint> } }
                    def Mesh "Knob" { %s }
                    variantSet "finish" = {
                        "red" { over "Looks" { over "Paint" { color3f inputs:paint = (1, 0, 0) } } }
                        "blue" { over "Looks" { over "Paint" { color3f inputs:paint = (0, 0, 1) } } } }
                }
                """.formatted(SQUARE.replace("[4]", "[3, 3]").replace("[0, 1, 2, 3]", "[0, 1, 2, 0, 2, 3]"), SQUARE));
        Model m = read(pack).model();
        assertThat(m.parts()).extracting(Model.Part::name).containsExactly("Plate", "Knob", "Plate", "Knob", "Floor");
        assertThat(m.parts().get(0).sourceOfSpan()).hasSize(2);
        assertThat(m.sources()).extracting(s -> s.name()).contains("Grey", "Paint", "Colour #FF0000");
        assertThat(m.sources().stream()
                        .filter(s -> s.name().equals("Paint"))
                        .findFirst()
                        .orElseThrow()
                        .material()
                        .surface()
                        .colour(Parameter.BASE_COLOR)
                        .r())
                .as("the outer layer chose another variant than the inner one")
                .isEqualTo(1);
        assertThat(m.partToWorld(m.parts().get(2)).point(Vec3.ZERO).x()).isEqualTo(5);
        assertThat(m.parts().get(2).mesh())
                .as("one mesh for both")
                .isEqualTo(m.parts().get(0).mesh());
    }

    @Test
    void instancersSimpleBodiesAndPicturesArrive() throws Exception {
        Model m = read(zip("main.usda", """
                        #usda 1.0
                        ( metersPerUnit = 1 )
                        def PointInstancer "Slats" {
                            int[] protoIndices = [0, 0, 0]
                            point3f[] positions = [(0, 0, 0), (3, 0, 0), (6, 0, 0)]
                            quath[] orientations = [(1, 0, 0, 0), (1, 0, 0, 0), (0.7071, 0, 0, 0.7071)]
                            rel prototypes = [</Slats/Slat>]
                            def Cube "Slat" { double size = 2 } }
                        def Cylinder "Post" { double radius = 1
                            double height = 4
                            uniform token axis = "X" }
                        def Mesh "Sign" { %s
                            texCoord2f[] primvars:map = [(0, 0), (1, 0), (1, 1), (0, 1)] ( interpolation = "vertex" )
                            rel material:binding = </Paper> }
                        def Material "Paper" { token outputs:surface.connect = </Paper/S.outputs:surface>
                            def Shader "S" { uniform token info:id = "UsdPreviewSurface"
                                color3f inputs:diffuseColor.connect = </Paper/T.outputs:rgb>
                                float inputs:roughness.connect = </Paper/T.outputs:g> }
                            def Shader "T" { uniform token info:id = "UsdUVTexture"
                                asset inputs:file = @tex/paper.png@
                                token inputs:wrapS = "mirror"
                                float4 inputs:scale = (0.5, 1, 1, 1)
                                float2 inputs:st.connect = </Paper/X.outputs:result> }
                            def Shader "X" { uniform token info:id = "UsdTransform2d"
                                float inputs:rotation = 90
                                float2 inputs:scale = (2, 3)
                                float2 inputs:translation = (0.1, 0.2)
                                float2 inputs:in.connect = </Paper/R.outputs:result> }
                            def Shader "R" { uniform token info:id = "UsdPrimvarReader_float2"
                                string inputs:varname = "map" } }
                        """.formatted(SQUARE), "tex/paper.png", PIXEL))
                .model();
        assertThat(m.parts()).hasSize(5);
        // three cubes of 24 and a cylinder's 48-sided prism; a square of area 1
        double prism = 2 * 24 * Math.sin(Math.PI / 24) + 4 * 96 * Math.sin(Math.PI / 48);
        assertThat(measure(m).area()).isCloseTo(3 * 24 + prism + 1, within(1e-3));
        assertThat(m.bounds().max().x()).isCloseTo(7, within(1e-3));
        TextureUse use = m.sources().get(0).material().surface().textures().get(Parameter.BASE_COLOR);
        assertThat(use.wrapU()).isEqualTo(TextureUse.Wrap.MIRROR);
        // at u = 0.25, v = 0.5 from below: (2u, 3v) = (0.5, 1.5), turned (−1.5, 0.5), moved (−1.4, 0.7)
        TextureUse.ModelUv t = use.placement().toImage();
        double c = Math.cos(t.rotation());
        double s = Math.sin(t.rotation());
        assertThat(c * 0.25 * t.scaleU() + s * 0.5 * t.scaleV() + t.offsetU()).isCloseTo(-1.4, within(1e-9));
        assertThat(-s * 0.25 * t.scaleU() + c * 0.5 * t.scaleV() + t.offsetV()).isCloseTo(1 - 0.7, within(1e-9));
        assertThat(m.sources()
                        .get(0)
                        .material()
                        .surface()
                        .textures()
                        .get(Parameter.SPECULAR_ROUGHNESS)
                        .channel())
                .isEqualTo(TextureUse.Channel.G);
    }

    @Test
    void aLayerReadsTheSameFromItsBinaryForm() throws Exception {
        UsdPrim before = text("""
                #usda 1.0
                ( defaultPrim = "Box"
                  upAxis = "Z"
                  metersPerUnit = 0.01 )
                def Xform "Box" ( displayName = "Größe \\"1\\"" ) {
                    matrix4d xformOp:transform = ((1, 0, 0, 0), (0, 2, 0, 0), (0, 0, 1, 0), (4, 5, 6, 1))
                    uniform token[] xformOpOrder = ["xformOp:transform"]
                    def Mesh "Zebra" { %s }
                    def Mesh "Apple" ( prepend references = </Box/Zebra> ) { rel material:binding = </Box/Zebra>
                        float inputs:x = 0.25
                        bool doubleSided = true
                        asset inputs:file = @a b.png@
                        token outputs:rgb.connect = </Box/Apple.inputs:x> }
                }
                """.formatted(SQUARE));
        ByteArrayOutputStream crate = new ByteArrayOutputStream();
        CrateWriter.write(before, crate);
        UsdPrim after = CrateReader.read(ByteBuffer.wrap(crate.toByteArray()), Reading.standard());
        ByteArrayOutputStream was = new ByteArrayOutputStream();
        ByteArrayOutputStream is = new ByteArrayOutputStream();
        UsdTextWriter.write(before, was);
        UsdTextWriter.write(after, is);
        assertThat(is.toString(StandardCharsets.UTF_8)).isEqualTo(was.toString(StandardCharsets.UTF_8));
    }

    @Test
    void packedIntegersAndBlocksComeBack() {
        Random random = new Random(5);
        for (int n : new int[] {1, 3, 4, 5, 17, 1000, 40_000}) {
            int[] values = new int[n];
            byte[] bytes = new byte[n];
            for (int i = 0; i < n; i++) {
                int kind = random.nextInt(5);
                values[i] = kind == 0 ? random.nextInt() : kind == 1 ? i * 300 : i + kind;
                bytes[i] = (byte) (random.nextInt(4) == 0 ? random.nextInt() : i >> 6);
            }
            assertThat(CrateIntegers.unpack(CrateIntegers.pack(values), n)).isEqualTo(values);
            byte[] out = new byte[n];
            assertThat(Lz4.unpackChunks(Lz4.packChunk(bytes), out)).isEqualTo(n);
            assertThat(out).isEqualTo(bytes);
        }
        // from the description of the format: "a" ten times is one letter, then a match that overlaps itself
        byte[] ten = new byte[15];
        assertThat(Lz4.unpackChunks(new byte[] {0, 0x15, 'a', 1, 0, 0x50, 'b', 'b', 'b', 'b', 'b'}, ten))
                .isEqualTo(15);
        assertThat(new String(ten, StandardCharsets.US_ASCII)).isEqualTo("aaaaaaaaaabbbbb");
    }

    @Test
    void whatRefersToItselfIsRefused() {
        assertThatThrownBy(() -> read("#usda 1.0\ndef Xform \"A\" ( references = </A> ) {}"))
                .isInstanceOf(ImportException.class)
                .hasMessageContaining("itself");
        assertThatThrownBy(() -> read("#usda 1.0\ndef Xform \"A\" { def Xform \"B\" ( references = </A> ) {} }"))
                .isInstanceOf(ImportException.class)
                .hasMessageContaining("itself");
        assertThatThrownBy(() -> read("#usda 1.0\ndef Mesh \"M\" { int[] faceVertexCounts = [3x] }"))
                .isInstanceOf(ImportException.class)
                .hasMessageContaining("Line 2 of the USD file");
    }

    @Test
    void filesOfAPackageLieAtMultiplesOf64() throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        AlignedZip zip = new AlignedZip(out, 64);
        byte[][] files = {{1}, new byte[97], PIXEL};
        for (int i = 0; i < files.length; i++) {
            zip.file("file" + "x".repeat(7 * i), files[i]);
        }
        zip.finish();
        byte[] all = out.toByteArray();
        ZipArchive archive =
                ZipArchive.open(ByteBuffer.wrap(all), Reading.standard().limits());
        assertThat(archive.paths()).hasSize(3);
        for (int i = 0; i < files.length; i++) {
            ByteBuffer found =
                    archive.open(archive.paths().get(i), Reading.standard()).orElseThrow();
            assertThat(found.remaining()).isEqualTo(files[i].length);
            assertThat(found.arrayOffset() % 64).isZero();
        }
    }
}

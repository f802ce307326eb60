package app.zolvan.core.render;

import static app.zolvan.core.render.Sheets.DARK;
import static app.zolvan.core.render.Sheets.MATT;
import static app.zolvan.core.render.Sheets.centre;
import static app.zolvan.core.render.Sheets.eye;
import static app.zolvan.core.render.Sheets.sheet;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.ModelAssembly;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.light.Lamp;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.render.scene.Dress;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.surface.Bsdf;
import app.zolvan.core.render.surface.SurfaceValues;
import app.zolvan.core.render.texture.Textures;
import app.zolvan.core.render.trace.Kernel.Kind;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.Picture;
import app.zolvan.core.texture.Picture.Holds;
import app.zolvan.core.texture.Png;
import app.zolvan.core.texture.Texture;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.SplittableRandom;
import java.util.function.IntUnaryOperator;
import java.util.stream.Stream;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Pictures on surfaces: the right place, the right colour near and far, slopes and cut-outs. */
class TexturesTest {
    private static final Environment WHITE = Environment.uniform(1, 1, 1);
    private static final Surface PAPER = MATT.with(Parameter.BASE_COLOR, 1, 1, 1);

    private static byte[] png(int side, IntUnaryOperator rgb) {
        byte[] out = new byte[3 * side * side];
        for (int i = 0; i < side * side; i++) {
            int c = rgb.applyAsInt(i);
            out[3 * i] = (byte) (c >> 16);
            out[3 * i + 1] = (byte) (c >> 8);
            out[3 * i + 2] = (byte) c;
        }
        return Png.encode(side, side, out, 72);
    }

    /** A floor 2 m wide under one picture; u runs along x, v along z. */
    private static RenderScene.Builder floor(byte[] png, Parameter parameter, Channel channel, ModelUv placement) {
        Surface s = PAPER.withTexture(parameter, TextureUse.repeating("picture", channel, placement));
        return new RenderScene.Builder(Kind.SCALAR, new Textures(d -> png, Textures.BUDGET))
                .addDressed(sheet(1, 0, true), Transform.IDENTITY, List.of(Dress.of(s)));
    }

    @ParameterizedTest
    @CsvSource({"-0.5, -0.5, 0", "0.5, -0.5, 1", "-0.5, 0.5, 2", "0.5, 0.5, 3"})
    void aPictureLiesWithItsUpperLeftCornerWhereItsCoordinatesBegin(double x, double z, int pixel) {
        int[] four = {0xFF0000, 0x00FF00, 0x0000FF, 0x808080};
        byte[] png = png(2, i -> four[i]);
        RenderScene scene =
                floor(png, Parameter.BASE_COLOR, Channel.RGB, ModelUv.PLAIN).build();
        double[] seen = centre(scene, WHITE, eye(new Vec3(x, 2, z + 0.001), new Vec3(x, 0, z), 0.1), 256);
        int code = four[pixel];
        for (int c = 0; c < 3; c++) {
            double expected = Srgb.decode((code >> (16 - 8 * c) & 0xFF) / 255.0);
            assertThat(seen[c]).isCloseTo(expected, within(0.01));
        }
    }

    /** From afar a fine check is its mean in light, not in codes; one look at it has next to no noise. */
    @Test
    void aFinePatternFromAfarIsItsMean() {
        byte[] png = png(256, i -> ((i ^ i >> 8) & 1) == 0 ? 0xFFFFFF : 0);
        ModelUv many = new ModelUv(0, 0, 0.3, 40, 40);
        RenderScene scene = floor(png, Parameter.BASE_COLOR, Channel.RGB, many).build();
        double[] seen = centre(scene, WHITE, eye(new Vec3(0, 3, 0.01), Vec3.ZERO, 20), 64);
        assertThat(seen[1]).isCloseTo(0.5, within(0.012));
    }

    @Test
    void aNormalMapTurnsTheSurfaceTowardsItsSlope() {
        // n = (sin 30°, 0, cos 30°): turned towards +u, which is +x
        int code = 0x1000000 | (int) Math.round(127.5 * 1.5) << 16 | 128 << 8 | (int) Math.round(127.5 * 1.866);
        byte[] png = png(4, i -> code & 0xFFFFFF);
        RenderScene scene = floor(png, Parameter.GEOMETRY_NORMAL, Channel.RGB, ModelUv.PLAIN)
                .lamp(new Lamp.Sun(new Vec3(0.5, Math.sqrt(0.75), 0), 0.001, LinearRgb.grey(10_000), 0))
                .build();
        double[] seen = centre(scene, DARK, eye(new Vec3(0.1, 2, 0.1), Vec3.ZERO, 0.1), 64);
        assertThat(seen[1]).isCloseTo(10 / Math.PI, within(0.02)); // the mapped normal looks straight at the sun
    }

    /** A picture that rises by 0.1 m over 0.25 m towards +x: the surface leans back by atan 0.4, and the sun meets it so. */
    @Test
    void aHeightPictureTiltsTheSurfaceByItsSlope() {
        byte[] png = png(256, i -> (i & 0xFF) * 0x010101);
        Surface relief = PAPER.with(Parameter.GEOMETRY_HEIGHT, 0.1)
                .withTexture(
                        Parameter.GEOMETRY_HEIGHT,
                        TextureUse.repeating("picture", Channel.R, new ModelUv(0, 0, 0, 8, 8)));
        double steep = Math.toRadians(60);
        for (int side : new int[] {-1, 1}) {
            RenderScene scene = new RenderScene.Builder(Kind.SCALAR, new Textures(d -> png, Textures.BUDGET))
                    .addDressed(sheet(1, 0, true), Transform.IDENTITY, List.of(Dress.of(relief)))
                    .lamp(new Lamp.Sun(
                            new Vec3(side * Math.sin(steep), Math.cos(steep), 0), 0.001, LinearRgb.grey(10_000), 0))
                    .build();
            double[] seen = centre(scene, DARK, eye(new Vec3(0.12, 2, 0.1), new Vec3(0.12, 0, 0.1), 0.1), 64);
            double lean = Math.atan(0.1 / 255 / (0.25 / 256));
            assertThat(seen[1]).isCloseTo(10 / Math.PI * Math.cos(steep + side * lean), within(0.03));
        }
    }

    /** However both pictures are turned: a slope of 0.4 towards the picture's right. */
    @ParameterizedTest
    @CsvSource({"0, 8, 8", "0.7, 8, 8", "-2.5, 8, 8", "0.7, -8, 8", "1.2, 8, -8"})
    void aPictureOfNormalsLeansAsOneOfTheirHeightsDoes(double rotation, double scaleU, double scaleV) {
        ModelUv turned = new ModelUv(0.5, 0.5, rotation, scaleU, scaleV);
        byte[] heights = png(256, i -> (i & 0xFF) * 0x010101);
        double up = 127.5 / Math.hypot(1, 0.4);
        byte[] normals = png(4, i -> code(-0.4 * up) << 16 | code(0) << 8 | code(up));
        Surface high = PAPER.with(Parameter.GEOMETRY_HEIGHT, 0.1)
                .withTexture(Parameter.GEOMETRY_HEIGHT, TextureUse.repeating("heights", Channel.R, turned));
        Surface bent =
                PAPER.withTexture(Parameter.GEOMETRY_NORMAL, TextureUse.repeating("normals", Channel.RGB, turned));
        for (double azimuth : new double[] {0, 2, 4}) {
            double[] lit = Stream.of(high, bent)
                    .mapToDouble(s -> centre(
                            new RenderScene.Builder(
                                            Kind.SCALAR,
                                            new Textures(d -> d.equals("heights") ? heights : normals, Textures.BUDGET))
                                    .addDressed(sheet(1, 0, true), Transform.IDENTITY, List.of(Dress.of(s)))
                                    .lamp(new Lamp.Sun(
                                            new Vec3(Math.cos(azimuth), 1, Math.sin(azimuth)).normalised(),
                                            0.001,
                                            LinearRgb.grey(10_000),
                                            0))
                                    .build(),
                            DARK,
                            eye(new Vec3(-0.995, 2, -0.995), new Vec3(-0.995, 0, -0.995001), 0.1),
                            64)[1])
                    .toArray();
            assertThat(lit[1]).isCloseTo(lit[0], within(0.03));
        }
    }

    /** What relief too fine to be seen mirrors is the mean of what its slopes mirror one by one, straight on and beside. */
    @ParameterizedTest
    @CsvSource({
        "0.1, 1, 0.25, 0, 0.11",
        "0.2, 1, 0.3, 0, 0.11",
        "0.05, 1, 0.4, 0, 0.11",
        "0.1, 0, 0.26, 0.4, 0.11",
        "0.05, 0, 0.4, 0.6, 0.11",
        "0.1, 2, 0.3, 0.2, 0.13" // where relief lies both ways and unevenly the rule is coarsest
    })
    void reliefFromAfarMirrorsAsWidelyAsItsSlopes(
            double slope, double alongToo, double roughness, double anisotropy, double tolerance) throws Exception {
        SplittableRandom random = new SplittableRandom(9);
        int side = 64;
        double[][] slopes = new double[side * side][];
        byte[] png = png(side, i -> {
            double along = alongToo * slope * random.nextGaussian();
            double across = slope * random.nextGaussian();
            slopes[i] = new double[] {along, across};
            double n = 127.5 / Math.sqrt(1 + along * along + across * across);
            return code(-along * n) << 16 | code(-across * n) << 8 | code(n);
        });
        Texture relief = new Texture(
                Picture.decode(png, Holds.NORMALS, 1 << 20), TextureUse.repeating("x", Channel.RGB, ModelUv.PLAIN));
        double[] rgba = new double[4];
        relief.at(0.3, 0.6, 2, rgba);
        double mean2 = (1 + alongToo * alongToo) / 2;
        assertThat(relief.spread(rgba)).isCloseTo(slope * Math.sqrt(mean2), within(0.05 * slope + 0.004));
        assertThat(relief.slopesAlong()).isCloseTo(alongToo * alongToo / 2 / mean2, within(0.02));
        assertThat(rgba[2]).as("flat on the whole").isGreaterThan(0.95);

        Surface metal = Surface.STANDARD
                .with(Parameter.BASE_METALNESS, 1)
                .with(Parameter.BASE_COLOR, 1, 1, 1)
                .with(Parameter.SPECULAR_ROUGHNESS, roughness)
                .with(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY, anisotropy);
        SurfaceValues afar = SurfaceValues.of(metal);
        afar.roughen(relief.spread(rgba), relief.slopesAlong());
        SurfaceValues near = SurfaceValues.of(metal);
        Vec3 eye = new Vec3(Math.sin(0.35), 0, Math.cos(0.35));
        double bright = mirrored(afar, Vec3.axis(2), eye, new Vec3(-eye.x(), 0, eye.z()));
        for (double aside = 0; aside < 4 * slope; aside += slope) {
            for (Vec3 light : List.of(
                    new Vec3(-Math.sin(0.35 - aside), 0, Math.cos(0.35 - aside)),
                    new Vec3(-eye.x(), aside, eye.z()).normalised())) {
                double mean = 0;
                for (double[] s : slopes) {
                    mean += mirrored(near, new Vec3(-s[0], -s[1], 1).normalised(), eye, light) / slopes.length;
                }
                assertThat(mirrored(afar, Vec3.axis(2), eye, light)).isCloseTo(mean, within(tolerance * bright));
            }
        }
    }

    /** Ridges eight pixels wide, ±0.5 steep across: copies that see both sides at once tell of them, finer ones don't. */
    @Test
    void copiesTellOfReliefThatIsTooFineForThem() throws Exception {
        double length = Math.hypot(1, 0.5);
        byte[] png = png(64, i -> {
            double across = (i % 8 < 4 ? 0.5 : -0.5) / length;
            return code(127.5 * across) << 16 | code(0) << 8 | code(127.5 / length);
        });
        double[] spreads = Picture.decode(png, Holds.NORMALS, 1 << 20).spreads();
        assertThat(spreads).hasSize(7);
        for (int level = 0; level < spreads.length; level++) {
            assertThat(spreads[level]).isCloseTo(level < 3 ? 0 : 0.5 / Math.sqrt(2), within(0.01));
        }
        byte[] flat = png(16, i -> 0x8080FF);
        assertThat(Picture.decode(flat, Holds.NORMALS, 1 << 20).spreads()).containsOnly(0);
    }

    private static int code(double part) {
        return (int) Math.round(127.5 + part);
    }

    private static double mirrored(SurfaceValues s, Vec3 normal, Vec3 eye, Vec3 light) {
        Vec3 x = normal.cross(Vec3.axis(1)).normalised();
        Vec3 y = normal.cross(x);
        Bsdf bsdf = new Bsdf();
        bsdf.set(s, eye.dot(x), eye.dot(y), eye.dot(normal), 1.5, false);
        bsdf.evaluate(light.dot(x), light.dot(y), light.dot(normal));
        return bsdf.g;
    }

    @Test
    void aCutOutLetsLightThroughWhereThePictureIsDark() {
        byte[] png = png(2, i -> i % 2 == 0 ? 0xFFFFFF : 0);
        Surface leaf = PAPER.with(Parameter.BASE_COLOR, 0, 0, 0)
                .withTexture(
                        Parameter.GEOMETRY_OPACITY,
                        new TextureUse(
                                "picture",
                                Channel.R,
                                ModelUv.PLAIN,
                                TextureUse.Wrap.REPEAT,
                                TextureUse.Wrap.REPEAT,
                                1));
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR, new Textures(d -> png, Textures.BUDGET))
                .add(sheet(50, 0, true), Transform.IDENTITY, List.of(MATT))
                .addDressed(sheet(1, 0.1, true), Transform.IDENTITY, List.of(Dress.of(leaf)))
                .lamp(new Lamp.Sun(Vec3.axis(1), 0.001, LinearRgb.grey(10_000), 0))
                .build();
        double[] through = centre(scene, DARK, eye(new Vec3(0.5, 3, 0.001), new Vec3(0.5, 0, 0), 0.1), 256);
        double[] on = centre(scene, DARK, eye(new Vec3(-0.5, 3, 0.001), new Vec3(-0.5, 0, 0), 0.1), 256);
        assertThat(through[1]).isCloseTo(5 / Math.PI, within(0.03));
        assertThat(on[1]).isLessThan(1e-4);
    }

    @Test
    void aPictureThatIsTooLargeIsReadMoreCoarsely() throws Exception {
        byte[] png = png(64, i -> 0x336699);
        assertThat(Picture.decode(png, Holds.COLOURS, 64 * 64).width()).isEqualTo(64);
        assertThat(Picture.decode(png, Holds.COLOURS, 1000).width()).isEqualTo(22);
        Textures textures = new Textures(d -> new byte[] {1, 2, 3}, Textures.BUDGET);
        Surface s = PAPER.withTexture(Parameter.BASE_COLOR, TextureUse.repeating("x", Channel.RGB, ModelUv.PLAIN));
        assertThat(textures.of(s)).isEmpty();
        assertThat(textures.problems()).singleElement().asString().contains("Save it anew as PNG");
    }

    /** A texture beyond what is kept is halved until it fits, keeps its look, and the import record says so. */
    @Test
    void aTextureThatIsTooLargeIsHalvedOnImport() throws Exception {
        int side = 4400;
        byte[] png = png(side, i -> i % side < side / 2 ? 0xC04020 : 0x2040C0);
        Reading reading = Reading.standard();
        new ModelAssembly("OBJ", reading).picture("wall.png", ByteBuffer.wrap(png));
        assertThat(reading.notes()).singleElement().asString().contains("4,400 × 4,400", "2,200 × 2,200");
        BufferedImage small = ImageIO.read(new ByteArrayInputStream(ImageFile.reduced(png, 4096)));
        assertThat(small.getWidth()).isEqualTo(2200);
        assertThat(small.getRGB(300, 900) & 0xFFFFFF).isEqualTo(0xC04020);
        assertThat(small.getRGB(1900, 900) & 0xFFFFFF).isEqualTo(0x2040C0);
    }
}

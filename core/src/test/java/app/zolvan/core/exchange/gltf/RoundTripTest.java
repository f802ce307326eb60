package app.zolvan.core.exchange.gltf;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.colour.Tone;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.model.Digest;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.function.Function;
import javax.imageio.ImageIO;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class RoundTripTest {
    private static final ShippedLibrary LIBRARY = ShippedLibrary.load();

    @Test
    void everyLibraryMaterialComesBackWithAllItsValuesCodeKindAndTextures() throws Exception {
        for (Material m : LIBRARY.materials()) {
            assertThat(back(m)).isEqualTo(packed(m));
        }
    }

    @Property(tries = 150)
    void anySurfaceComesBackExactly(@ForAll Random random) throws Exception {
        Surface s = Surface.STANDARD;
        for (Parameter p : Parameter.values()) {
            if (p.shape() == Parameter.Shape.TEXTURE_ONLY || random.nextInt(3) == 0) {
                continue;
            }
            double[] v = new double[p.components()];
            for (int i = 0; i < v.length; i++) {
                double t = p.shape() == Parameter.Shape.FLAG ? random.nextInt(2) : random.nextDouble();
                v[i] = p.min() + t * (p.max() - p.min());
            }
            s = s.with(p, v);
        }
        Material m = new Material("XX-001", "Anything", null, s);
        Surface wanted = s;
        Surface back = back(m).surface();
        assertThat(Arrays.stream(Parameter.values()).filter(p -> !back.isNear(wanted, p, 1e-9)))
                .as("parameters that changed on the way")
                .isEmpty();
    }

    @Test
    void aFileThatAnotherProgramEditedIsReadAsItStands() throws Exception {
        Material enamel = LIBRARY.materials().stream()
                .filter(m -> m.code().equals("PT-014"))
                .findFirst()
                .orElseThrow();
        String text = new String(write(enamel), StandardCharsets.ISO_8859_1);
        String edited = text.replace("\"roughnessFactor\":0.32", "\"roughnessFactor\":0.77");
        assertThat(edited).isNotEqualTo(text);
        Surface s = GltfFile.read(edited.getBytes(StandardCharsets.ISO_8859_1))
                .sources()
                .get(0)
                .material()
                .surface();
        assertThat(s.number(Parameter.SPECULAR_ROUGHNESS)).isEqualTo(0.77);
    }

    @Test
    void theSameModelGivesTheSameBytes() throws Exception {
        assertThat(write(LIBRARY.materials().get(0)))
                .isEqualTo(write(LIBRARY.materials().get(0)));
    }

    /** Codes within 1: a tone is laid into a PNG of 8 bits. */
    @Test
    void aPicturesToneIsLaidIntoTheFileAndTheOriginalStays() throws Exception {
        Material oak = LIBRARY.materials().stream()
                .filter(m -> m.surface().textures().containsKey(Parameter.BASE_COLOR))
                .findFirst()
                .orElseThrow();
        TextureUse use = oak.surface().textures().get(Parameter.BASE_COLOR);
        LinearRgb mean = LinearRgb.grey(0.4);
        Tone tone = new Tone(mean, 0.5, 1.2, 0.9, new LinearRgb(0.3, 0.1, 0.05), 0.6, LinearRgb.WHITE, 0.2);
        Material toned = new Material(
                oak.code(), oak.name(), oak.kind(), oak.surface().withTexture(Parameter.BASE_COLOR, use.toned(tone)));
        Model read = GltfFile.read(write(toned));
        TextureUse written =
                read.sources().get(0).material().surface().textures().get(Parameter.BASE_COLOR);
        assertThat(written.tone()).isNull();
        BufferedImage before = image(LIBRARY.images().get(use.image()));
        BufferedImage after = image(read.images().get(written.image()).bytes());
        for (int i = 0; i < before.getWidth(); i += 37) {
            int c = before.getRGB(i, i);
            LinearRgb wanted = tone.of(Srgb.fromCodes(c >> 16 & 0xFF, c >> 8 & 0xFF, c & 0xFF));
            int is = after.getRGB(i, i);
            assertThat(new int[] {is >> 16 & 0xFF, is >> 8 & 0xFF, is & 0xFF}).isEqualTo(Srgb.toCodes(wanted));
        }
    }

    /** glTF cuts out by the alpha of the colours alone. */
    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void whatAPictureCutsOutBecomesTheAlphaOfTheColours(boolean pictured) throws Exception {
        Material oak = LIBRARY.materials().stream()
                .filter(m -> m.surface()
                        .textures()
                        .keySet()
                        .containsAll(Set.of(Parameter.BASE_COLOR, Parameter.SPECULAR_ROUGHNESS)))
                .findFirst()
                .orElseThrow();
        TextureUse colours = oak.surface().textures().get(Parameter.BASE_COLOR);
        TextureUse shape =
                oak.surface().textures().get(Parameter.SPECULAR_ROUGHNESS).onChannel(Channel.G);
        Surface cut = (pictured ? oak.surface() : Surface.STANDARD).withTexture(Parameter.GEOMETRY_OPACITY, shape);
        assertThat(PhysicalMaterial.of(cut, 0).beyond().cutOut())
                .as("on the stage")
                .isEqualTo(shape);
        Model read = GltfFile.read(write(oak.with(cut)));
        Surface back = read.sources().get(0).material().surface();
        TextureUse written = back.textures().get(Parameter.GEOMETRY_OPACITY);
        assertThat(written.isAlphaOf(back.textures().get(Parameter.BASE_COLOR))).isTrue();
        BufferedImage body = image(LIBRARY.images().get(colours.image()));
        BufferedImage holes = image(LIBRARY.images().get(shape.image()));
        BufferedImage after = image(read.images().get(written.image()).bytes());
        for (int i = 0; i < after.getWidth(); i += 37) {
            assertThat(after.getRGB(i, i) >>> 24).isEqualTo(holes.getRGB(i, i) >> 8 & 0xFF);
            assertThat(after.getRGB(i, i) & 0xFFFFFF).isEqualTo(pictured ? body.getRGB(i, i) & 0xFFFFFF : 0xFFFFFF);
        }
    }

    /** A picture that is gone, or of a kind that can't be decoded, cuts nothing; the rest is written. */
    @ParameterizedTest
    @ValueSource(booleans = {true, false})
    void aCutOutThatCantBeReadIsLeftOut(boolean gone) throws Exception {
        String shape = "ab".repeat(32);
        Surface cut = Surface.STANDARD.withTexture(
                Parameter.GEOMETRY_OPACITY, TextureUse.repeating(shape, Channel.R, TextureUse.ModelUv.PLAIN));
        byte[] file = write(
                LIBRARY.materials().get(0).with(cut),
                d -> d.equals(shape) ? (gone ? null : new byte[] {1, 2, 3}) : null);
        assertThat(GltfFile.read(file).sources().get(0).material().surface().textures())
                .isEmpty();
    }

    private static BufferedImage image(byte[] file) throws IOException {
        return ImageIO.read(new ByteArrayInputStream(file));
    }

    /** A file knows surfaces of one look: the backs are a part of their own, turned over, and neither is seen from behind. */
    @Test
    void whatShowsSomethingElseOnItsBackIsWrittenAsTwoParts() throws Exception {
        Material front = LIBRARY.materials().get(0);
        Material back = LIBRARY.materials().get(1);
        Model.Part part = new Model.Part(Model.NONE, "Sail", Transform.IDENTITY, 0, List.of(0));
        Model raw = new Model(List.of(), List.of(part), List.of(Cubes.box(1, 1, 1)), List.of(), Map.of(), List.of());
        Model model = Preparation.of(raw, share -> {}).model();
        Look shown = Look.of(front, null, 0, Level.SET);
        Look behind = Look.of(back, null, 0, Level.SET);
        DressedModel dressed = new DressedModel(
                "Test",
                model,
                (p, s) -> shown,
                (p, s) -> behind,
                digest -> LIBRARY.images().get(digest),
                (p, corrodes) -> null);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        GltfWriter.write(dressed.grown(), out);
        assertThat(out.toString(StandardCharsets.ISO_8859_1)).doesNotContain("doubleSided");
        Model read = GltfFile.read(out.toByteArray());
        assertThat(read.parts()).extracting(Model.Part::name).containsExactly("Sail", "Sail, back");
        assertThat(read.parts().stream()
                        .map(p -> read.sources()
                                .get(p.sourceOfSpan().get(0))
                                .material()
                                .name()))
                .containsExactly(front.name(), back.name());
        Mesh outward = read.meshOf(read.parts().get(0));
        Mesh inward = read.meshOf(read.parts().get(1));
        assertThat(inward.signedVolume()).isCloseTo(-outward.signedVolume(), within(1e-9));
    }

    /** The material with the one picture that glTF has for its roughness and metalness, see PackedPicturesTest. */
    private static Material packed(Material m) {
        Model none = new Model(List.of(), List.of(), List.of(), List.of(), Map.of(), List.of());
        Look look = Look.of(m, null, 0.5, Level.SET);
        DressedModel packed = PackedPictures.in(new DressedModel(
                "Test", none, (p, s) -> look, digest -> LIBRARY.images().get(digest)));
        Material written = packed.look().apply(0, 0).material();
        Surface surface = written.surface();
        for (Map.Entry<Parameter, TextureUse> t : surface.textures().entrySet()) {
            String digest = Digest.of(packed.image().apply(t.getValue().image()));
            surface = surface.withTexture(t.getKey(), t.getValue().withImage(digest));
        }
        return written.with(surface);
    }

    private static Material back(Material m) throws Exception {
        return GltfFile.read(write(m)).sources().get(0).material();
    }

    private static byte[] write(Material m) throws Exception {
        return write(m, digest -> LIBRARY.images().get(digest));
    }

    private static byte[] write(Material m, Function<String, byte[]> images) throws Exception {
        Model.Part part = new Model.Part(Model.NONE, "Cube", Transform.IDENTITY, 0, List.of(0));
        Model raw = new Model(List.of(), List.of(part), List.of(Cubes.box(1, 1, 1)), List.of(), Map.of(), List.of());
        Preparation prepared = Preparation.of(raw, share -> {});
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        GltfWriter.write(
                new DressedModel("Test", prepared.model(), (p, s) -> Look.of(m, null, 0.5, Level.SET), images), out);
        return out.toByteArray();
    }
}

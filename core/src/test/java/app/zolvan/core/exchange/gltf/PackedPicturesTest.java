package app.zolvan.core.exchange.gltf;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.assign.Look;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.model.Model;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

/** Pictures of roughness and metalness as glTF reads them: green and blue of one. */
class PackedPicturesTest {
    private final Map<String, byte[]> originals = Map.of("grey", picture(0x505050), "coded", picture(0xC01020));

    private static byte[] picture(int rgb) {
        BufferedImage image = new BufferedImage(1, 1, BufferedImage.TYPE_INT_RGB);
        image.setRGB(0, 0, rgb);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", out);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
        return out.toByteArray();
    }

    private static TextureUse use(String image, Channel channel) {
        return TextureUse.repeating(image, channel, ModelUv.PLAIN);
    }

    /** The one texel of what a glTF file gets for a surface's roughness and metalness. */
    private int written(Surface s) throws IOException {
        Look look = Look.of(new Material("", "One", null, s), null, 0, null);
        Model none = new Model(List.of(), List.of(), List.of(), List.of(), Map.of(), List.of());
        DressedModel packed = PackedPictures.in(new DressedModel("One", none, (p, span) -> look, originals::get));
        String image =
                packed.look().apply(0, 0).physical().metallicRoughnessTexture().image();
        byte[] png = packed.image().apply(image);
        return ImageIO.read(new ByteArrayInputStream(png)).getRGB(0, 0) & 0xFFFFFF;
    }

    @Test
    void aMetalWithAGreyPictureOfRoughnessStaysAMetal() throws IOException {
        Surface metal = Surface.STANDARD
                .with(Parameter.BASE_METALNESS, 1)
                .withTexture(Parameter.SPECULAR_ROUGHNESS, use("grey", Channel.RGB));
        assertThat(written(metal)).isEqualTo(0xFF50FF);
    }

    @Test
    void eachPictureIsReadByTheChannelOfItsChoice() throws IOException {
        Surface both = Surface.STANDARD
                .withTexture(Parameter.SPECULAR_ROUGHNESS, use("grey", Channel.G))
                .withTexture(Parameter.BASE_METALNESS, use("coded", Channel.R));
        assertThat(written(both)).isEqualTo(0xFF50C0);
        Surface metalOnly = Surface.STANDARD.withTexture(Parameter.BASE_METALNESS, use("coded", Channel.R));
        assertThat(written(metalOnly)).isEqualTo(0xFFFFC0);
    }

    @Test
    void onePictureThatIsPackedAlreadyIsWrittenAsItIs() throws IOException {
        Surface packed = Surface.STANDARD
                .withTexture(Parameter.SPECULAR_ROUGHNESS, use("coded", Channel.G))
                .withTexture(Parameter.BASE_METALNESS, use("coded", Channel.B));
        assertThat(written(packed)).isEqualTo(0xC01020);
    }
}

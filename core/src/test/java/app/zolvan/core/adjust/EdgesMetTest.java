package app.zolvan.core.adjust;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.measure.MaterialMeasure;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.ImageHeader;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

class EdgesMetTest {
    private static final RealSize WALL = new RealSize(0.8, 0.6);
    private final Map<String, byte[]> images = new HashMap<>();

    private TextureUse picture(String name, int w, int h, Channel channel, TextureUse.Placement placement)
            throws IOException {
        BufferedImage image = new BufferedImage(w, h, BufferedImage.TYPE_INT_RGB);
        Random random = new Random(3);
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                image.setRGB(x, y, 0x010101 * (60 + 100 * x / w + random.nextInt(30)));
            }
        }
        images.put(name, ImageFile.png(image));
        return TextureUse.repeating(name, channel, placement);
    }

    /** What shares a size is cut alike and lies as large as it did; what follows the model's coordinates stays. */
    @Test
    void picturesOfOneSizeAreCutAlikeAndStayAsLarge() throws IOException {
        Surface s = Surface.STANDARD
                .withTexture(Parameter.BASE_COLOR, picture("c", 200, 150, Channel.RGB, WALL))
                .withTexture(Parameter.SPECULAR_ROUGHNESS, picture("n", 100, 75, Channel.G, WALL))
                .withTexture(Parameter.BASE_METALNESS, TextureUse.repeating("n", Channel.B, WALL))
                .withTexture(Parameter.EMISSION_COLOR, picture("e", 64, 64, Channel.RGB, ModelUv.PLAIN));
        EdgesMet met = EdgesMet.of(s, images::get);
        assertThat(met.pictures()).as("one picture for two parameters").hasSize(2);
        images.putAll(met.pictures());
        Map<Parameter, TextureUse> after = met.surface().textures();
        assertThat(after.get(Parameter.EMISSION_COLOR)).isEqualTo(s.textures().get(Parameter.EMISSION_COLOR));
        RealSize left = (RealSize) after.get(Parameter.BASE_COLOR).placement();
        assertThat(after.get(Parameter.SPECULAR_ROUGHNESS).placement()).isEqualTo(left);
        BufferedImage cut =
                ImageFile.decode(images.get(after.get(Parameter.BASE_COLOR).image()), 1 << 20);
        assertThat(cut.getWidth() / left.width()).isCloseTo(200 / 0.8, within(1e-9));
        assertThat(cut.getHeight() / left.height()).isCloseTo(150 / 0.6, within(1e-9));
        assertThat(MaterialMeasure.of(s, images::get).pattern().tiles()).isFalse();
        assertThat(MaterialMeasure.of(met.surface(), images::get).pattern().tiles())
                .isTrue();
        assertThatExceptionOfType(ParameterException.class)
                .isThrownBy(() -> EdgesMet.of(met.surface(), images::get))
                .withMessageContaining("nothing to mend");
    }

    /** A JPEG stays one, and still meets after it was packed again. */
    @Test
    void aJpegStaysOneAndMeets() throws IOException {
        Surface s = Surface.STANDARD.withTexture(Parameter.BASE_COLOR, picture("c", 301, 203, Channel.RGB, WALL));
        ByteArrayOutputStream jpeg = new ByteArrayOutputStream();
        ImageIO.write(ImageFile.decode(images.get("c"), 1 << 20), "jpeg", jpeg);
        images.put("c", jpeg.toByteArray());
        EdgesMet met = EdgesMet.of(s, images::get);
        images.putAll(met.pictures());
        byte[] file = met.pictures().values().iterator().next();
        assertThat(ImageHeader.read(ByteBuffer.wrap(file)).orElseThrow().mediaType())
                .isEqualTo("image/jpeg");
        assertThat(MaterialMeasure.of(met.surface(), images::get).pattern().tiles())
                .isTrue();
    }

    @Test
    void aPictureThatIsTooSmallOrTooLargeIsRefused() throws IOException {
        Surface s = Surface.STANDARD.withTexture(Parameter.BASE_COLOR, picture("c", 30, 300, Channel.RGB, WALL));
        assertThatExceptionOfType(ParameterException.class)
                .isThrownBy(() -> EdgesMet.of(s, images::get))
                .withMessageContaining("too small");
        byte[] claims = images.get("c").clone();
        claims[17] = 127; // says that it is eight million pixels wide
        images.put("c", claims);
        assertThatExceptionOfType(ParameterException.class)
                .isThrownBy(() -> EdgesMet.of(s, images::get))
                .withMessageContaining("too large");
        images.put("c", "RIFF no picture".getBytes(StandardCharsets.UTF_8));
        assertThatExceptionOfType(ParameterException.class)
                .isThrownBy(() -> EdgesMet.of(s, images::get))
                .withMessageContaining("neither PNG nor JPEG");
    }
}

package app.zolvan.core.texture;

import app.zolvan.core.material.TextureUse.Channel;
import java.awt.image.BufferedImage;
import java.io.IOException;

/** Roughness as green and metalness as blue of one picture, the one way in which glTF tells them by pictures. */
public final class PackedPicture {
    private PackedPicture() {}

    /**
     * A picture that drives one of the two.
     *
     * @param file    a PNG or JPEG
     * @param channel which of its channels is read
     */
    public record Layer(byte[] file, Channel channel) {}

    /**
     * Both in one.
     *
     * @param rough null for 1 everywhere
     * @param metal likewise; it lies where the roughness does
     * @return a PNG as wide as the wider and as high as the higher of the two
     * @throws IOException where one of them can't be decoded
     */
    public static byte[] of(Layer rough, Layer metal) throws IOException {
        Stretched green = Stretched.of(rough == null ? null : rough.file());
        Stretched blue = Stretched.of(metal == null ? null : metal.file());
        int w = Stretched.width(green, blue);
        int h = Stretched.height(green, blue);
        BufferedImage to = new BufferedImage(w, h, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                int g = green == null ? 0xFF : green.number(x, y, w, h, rough.channel());
                int b = blue == null ? 0xFF : blue.number(x, y, w, h, metal.channel());
                to.setRGB(x, y, 0xFF << 16 | g << 8 | b);
            }
        }
        return ImageFile.png(to);
    }
}

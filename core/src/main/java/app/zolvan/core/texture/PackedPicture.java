package app.zolvan.core.texture;

import app.zolvan.core.material.TextureUse.Channel;
import java.awt.image.BufferedImage;
import java.io.IOException;

/** Roughness as green and metalness as blue of one picture, the one way in which glTF tells them by pictures. */
public final class PackedPicture {
    private static final long MOST_PIXELS = 64L << 20;

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
        BufferedImage green = rough == null ? null : ImageFile.decode(rough.file(), MOST_PIXELS);
        BufferedImage blue = metal == null ? null : ImageFile.decode(metal.file(), MOST_PIXELS);
        int w = Math.max(width(green), width(blue));
        int h = Math.max(height(green), height(blue));
        BufferedImage to = new BufferedImage(w, h, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                int g = green == null ? 0xFF : at(green, x, y, w, h, rough.channel());
                int b = blue == null ? 0xFF : at(blue, x, y, w, h, metal.channel());
                to.setRGB(x, y, 0xFF << 16 | g << 8 | b);
            }
        }
        return ImageFile.png(to);
    }

    private static int width(BufferedImage image) {
        return image == null ? 1 : image.getWidth();
    }

    private static int height(BufferedImage image) {
        return image == null ? 1 : image.getHeight();
    }

    /** 0 … 255, as {@link Texture#channel} reads it. */
    private static int at(BufferedImage image, int x, int y, int w, int h, Channel channel) {
        int argb = image.getRGB(x * image.getWidth() / w, y * image.getHeight() / h);
        return (int) Math.round(channel.of(argb >> 16 & 0xFF, argb >> 8 & 0xFF, argb & 0xFF, argb >>> 24));
    }
}

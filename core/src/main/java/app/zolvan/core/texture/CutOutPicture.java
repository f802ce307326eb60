package app.zolvan.core.texture;

import app.zolvan.core.material.TextureUse.Channel;
import java.awt.image.BufferedImage;
import java.io.IOException;

/** A picture of colours with what another one cuts out of it as its alpha, for formats that know of no other cut-outs. */
public final class CutOutPicture {
    private static final long MOST_PIXELS = 64L << 20;

    private CutOutPicture() {}

    /**
     * @param colours a PNG or JPEG; null for white
     * @param shape   a PNG or JPEG, which lies where the colours do
     * @param channel which of its channels tells how much there is
     * @return a PNG as wide as the wider and as high as the higher of the two
     * @throws IOException where one of them can't be decoded
     */
    public static byte[] of(byte[] colours, byte[] shape, Channel channel) throws IOException {
        BufferedImage cut = ImageFile.decode(shape, MOST_PIXELS);
        BufferedImage body = colours == null ? null : ImageFile.decode(colours, MOST_PIXELS);
        int w = Math.max(cut.getWidth(), body == null ? 0 : body.getWidth());
        int h = Math.max(cut.getHeight(), body == null ? 0 : body.getHeight());
        BufferedImage to = new BufferedImage(w, h, BufferedImage.TYPE_INT_ARGB);
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                int rgb = body == null ? 0xFFFFFF : at(body, x, y, w, h) & 0xFFFFFF;
                to.setRGB(x, y, there(at(cut, x, y, w, h), channel) << 24 | rgb);
            }
        }
        return ImageFile.png(to);
    }

    private static int at(BufferedImage image, int x, int y, int w, int h) {
        return image.getRGB(x * image.getWidth() / w, y * image.getHeight() / h);
    }

    /** 0 … 255, as {@link Texture#channel} reads it. */
    private static int there(int argb, Channel channel) {
        return (int) Math.round(channel.of(argb >> 16 & 0xFF, argb >> 8 & 0xFF, argb & 0xFF, argb >>> 24));
    }
}

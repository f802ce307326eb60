package app.zolvan.core.texture;

import app.zolvan.core.material.TextureUse.Channel;
import java.awt.image.BufferedImage;
import java.io.IOException;

/** A picture read as if it had another size, by its nearest texel. */
record Stretched(BufferedImage image) {
    private static final long MOST_PIXELS = 64L << 20;

    /**
     * @param file a PNG or JPEG; null for none
     * @return null for none
     * @throws IOException where it can't be decoded, or has more pixels than may be read
     */
    static Stretched of(byte[] file) throws IOException {
        return file == null ? null : new Stretched(ImageFile.decode(file, MOST_PIXELS));
    }

    static int width(Stretched one, Stretched other) {
        return Math.max(one == null ? 1 : one.image.getWidth(), other == null ? 1 : other.image.getWidth());
    }

    static int height(Stretched one, Stretched other) {
        return Math.max(one == null ? 1 : one.image.getHeight(), other == null ? 1 : other.image.getHeight());
    }

    /** A texel at a place of a picture of w × h. */
    int argb(int x, int y, int w, int h) {
        return image.getRGB(x * image.getWidth() / w, y * image.getHeight() / h);
    }

    /** A number there, 0 … 255, as {@link Texture#channel} reads it. */
    int number(int x, int y, int w, int h, Channel channel) {
        int argb = argb(x, y, w, h);
        return (int) Math.round(channel.of(argb >> 16 & 0xFF, argb >> 8 & 0xFF, argb & 0xFF, argb >>> 24));
    }
}

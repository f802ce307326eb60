package app.zolvan.core.texture;

import app.zolvan.core.material.TextureUse.Channel;
import java.awt.image.BufferedImage;
import java.io.IOException;

/** A picture of colours with what another one cuts out of it as its alpha, for formats that know of no other cut-outs. */
public final class CutOutPicture {
    private CutOutPicture() {}

    /**
     * @param colours a PNG or JPEG; null for white
     * @param shape   a PNG or JPEG, which lies where the colours do
     * @param channel which of its channels tells how much there is
     * @return a PNG as wide as the wider and as high as the higher of the two
     * @throws IOException where one of them can't be decoded
     */
    public static byte[] of(byte[] colours, byte[] shape, Channel channel) throws IOException {
        Stretched cut = Stretched.of(shape);
        Stretched body = Stretched.of(colours);
        int w = Stretched.width(cut, body);
        int h = Stretched.height(cut, body);
        BufferedImage to = new BufferedImage(w, h, BufferedImage.TYPE_INT_ARGB);
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                int rgb = body == null ? 0xFFFFFF : body.argb(x, y, w, h) & 0xFFFFFF;
                to.setRGB(x, y, cut.number(x, y, w, h, channel) << 24 | rgb);
            }
        }
        return ImageFile.png(to);
    }
}

package app.zolvan.core.texture;

import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.Iterator;
import javax.imageio.IIOImage;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.ImageWriteParam;
import javax.imageio.ImageWriter;
import javax.imageio.stream.ImageInputStream;
import javax.imageio.stream.ImageOutputStream;

/** Encoded images, decoded within bounds and written anew. */
public final class ImageFile {
    private static final float JPEG_QUALITY = 0.92f;

    private ImageFile() {}

    /**
     * Decodes a PNG or JPEG, every second, third … pixel of it where all would be too many.
     *
     * @throws IOException where it is damaged or of another kind
     */
    public static BufferedImage decode(byte[] file, long mostPixels) throws IOException {
        ImageHeader header = ImageHeader.read(ByteBuffer.wrap(file)).orElseThrow(() -> new IOException("no image"));
        int step = 1;
        while ((long) (header.width() / step) * (header.height() / step) > mostPixels) {
            step++;
        }
        return decode(file, step);
    }

    private static BufferedImage decode(byte[] file, int step) throws IOException {
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(file))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                throw new IOException("no decoder");
            }
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                ImageReadParam param = reader.getDefaultReadParam();
                param.setSourceSubsampling(step, step, 0, 0);
                return reader.read(0, param);
            } catch (RuntimeException e) { // a damaged file makes decoders throw anything
                throw new IOException("damaged", e);
            } finally {
                reader.dispose();
            }
        }
    }

    /**
     * The same picture with no side longer than {@code side}: halved as often as it takes. A JPEG stays one; anything else
     * becomes a PNG.
     *
     * @throws IOException where it can't be decoded
     */
    public static byte[] reduced(byte[] file, int side) throws IOException {
        ImageHeader header = ImageHeader.read(ByteBuffer.wrap(file)).orElseThrow(() -> new IOException("no image"));
        int longest = Math.max(header.width(), header.height());
        int halvings = 0;
        while (longest >> halvings > side) {
            halvings++;
        }
        // all but the last halving while decoding, so that a huge picture never stands in memory whole
        BufferedImage image = decode(file, 1 << Math.max(0, halvings - 1));
        if (halvings > 0) {
            image = halved(image);
        }
        return encode(image, format(header));
    }

    private static String format(ImageHeader header) {
        return header.mediaType().equals("image/jpeg") ? "jpeg" : "png";
    }

    /** A picture made from that of a file, encoded alike: a JPEG where that is one, else a PNG. */
    public static byte[] like(byte[] file, BufferedImage image) throws IOException {
        ImageHeader header = ImageHeader.read(ByteBuffer.wrap(file)).orElseThrow(() -> new IOException("no image"));
        return encode(image, format(header));
    }

    private static BufferedImage halved(BufferedImage from) {
        int w = Math.max(1, from.getWidth() / 2);
        int h = Math.max(1, from.getHeight() / 2);
        boolean alpha = from.getColorModel().hasAlpha();
        BufferedImage to = new BufferedImage(w, h, alpha ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB);
        Graphics2D g = to.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BILINEAR);
        g.drawImage(from, 0, 0, w, h, null);
        g.dispose();
        return to;
    }

    /** A picture as PNG. */
    public static byte[] png(BufferedImage image) throws IOException {
        return encode(image, "png");
    }

    private static byte[] encode(BufferedImage image, String format) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageWriter writer = ImageIO.getImageWritersByFormatName(format).next();
        try (ImageOutputStream to = ImageIO.createImageOutputStream(out)) {
            writer.setOutput(to);
            ImageWriteParam param = writer.getDefaultWriteParam();
            if (format.equals("jpeg")) {
                param.setCompressionMode(ImageWriteParam.MODE_EXPLICIT);
                param.setCompressionQuality(JPEG_QUALITY);
            }
            writer.write(null, new IIOImage(image, null, null), param);
        } finally {
            writer.dispose();
        }
        return out.toByteArray();
    }
}

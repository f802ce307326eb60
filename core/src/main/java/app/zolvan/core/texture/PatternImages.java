package app.zolvan.core.texture;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.function.IntUnaryOperator;
import javax.imageio.ImageIO;

/** Turns patterns into PNG images for the slots of a material. */
public final class PatternImages {
    private final int pixels;
    private final double[] values;

    /** Samples one repeat of the pattern on pixels × pixels points at pixel centres. */
    public PatternImages(Pattern pattern, int pixels) {
        this.pixels = pixels;
        values = new double[pixels * pixels];
        for (int y = 0; y < pixels; y++) {
            for (int x = 0; x < pixels; x++) {
                values[y * pixels + x] = pattern.at((x + 0.5) / pixels, (y + 0.5) / pixels);
            }
        }
    }

    /** A grey picture, sRGB-encoded codes running from {@code dark} (value 0) to {@code light} (value 1), 0 … 255. */
    public byte[] tone(int dark, int light) {
        return png(i -> {
            int code = (int) Math.round(dark + (light - dark) * values[i]);
            return code << 16 | code << 8 | code;
        });
    }

    /**
     * Roughness in the green channel as glTF packs it, linear codes from {@code low} (value 0) to {@code high} (value 1)
     * as a share of the material's own roughness; red and blue are full.
     */
    public byte[] roughness(double low, double high) {
        return png(i -> {
            int code = (int) Math.round(255 * (low + (high - low) * values[i]));
            return 0xFF00FF | code << 8;
        });
    }

    /**
     * Normals of the pattern taken as height, green up (rules.md, section 5): n = normalise(−∂h/∂x, −∂h/∂y, 1) by
     * central differences that wrap around. Rows run downwards, so y grows against them.
     *
     * @param relief metres between value 0 and value 1
     * @param width  metres of one repeat across
     * @param height metres of one repeat down
     */
    public byte[] normals(double relief, double width, double height) {
        double pitchX = width / pixels;
        double pitchY = height / pixels;
        return png(i -> {
            int x = i % pixels;
            int y = i / pixels;
            double dx = relief * (at(x + 1, y) - at(x - 1, y)) / (2 * pitchX);
            double dy = relief * (at(x, y - 1) - at(x, y + 1)) / (2 * pitchY);
            return normalCode(dx, dy);
        });
    }

    /** The 24-bit code of the normal of a surface that rises by dx along x and dy along y. */
    static int normalCode(double dx, double dy) {
        double length = Math.sqrt(dx * dx + dy * dy + 1);
        return code(-dx / length) << 16 | code(-dy / length) << 8 | code(1 / length);
    }

    private static int code(double component) {
        return (int) Math.min(255, Math.round(127.5 * (component + 1)));
    }

    private double at(int x, int y) {
        return values[Math.floorMod(y, pixels) * pixels + Math.floorMod(x, pixels)];
    }

    private byte[] png(IntUnaryOperator rgb) {
        BufferedImage image = new BufferedImage(pixels, pixels, BufferedImage.TYPE_INT_RGB);
        for (int i = 0; i < values.length; i++) {
            image.setRGB(i % pixels, i / pixels, rgb.applyAsInt(i));
        }
        try (ByteArrayOutputStream out = new ByteArrayOutputStream()) {
            ImageIO.write(image, "png", out);
            return out.toByteArray();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}

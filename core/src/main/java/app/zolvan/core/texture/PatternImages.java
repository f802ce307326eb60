package app.zolvan.core.texture;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import java.util.function.IntUnaryOperator;

/** Turns patterns into PNG images for the slots of a material. */
public final class PatternImages {
    private static final byte[] CODES = codes();

    private final int width;
    private final int height;
    private final float[] tones;
    private final float[] heights;
    private final float[] joints;
    private final float[] pieces;
    private final float[] covers;

    /** Samples one repeat of the pattern at the centres of pixels × pixels pixels. */
    public PatternImages(Pattern pattern, int pixels) {
        this(pattern, pixels, pixels);
    }

    public PatternImages(Pattern pattern, int width, int height) {
        this.width = width;
        this.height = height;
        int n = width * height;
        tones = new float[n];
        heights = new float[n];
        joints = new float[n];
        pieces = new float[n];
        covers = new float[n];
        Pattern.Point point = new Pattern.Point();
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                pattern.at((x + 0.5) / width, (y + 0.5) / height, point);
                int i = y * width + x;
                tones[i] = (float) point.tone;
                heights[i] = (float) point.height;
                joints[i] = (float) point.joint;
                pieces[i] = (float) point.piece;
                covers[i] = (float) point.cover;
            }
        }
    }

    /** A grey picture, sRGB-encoded codes running from {@code dark} (tone 0) to {@code light} (tone 1), 0 … 255. */
    public byte[] tone(int dark, int light) {
        return png(false, i -> {
            int code = Math.round(dark + (light - dark) * tones[i]);
            return code << 16 | code << 8 | code;
        });
    }

    /** A grey picture of the heights, linear codes from the lowest (0) to the highest (255). */
    public byte[] heights() {
        return png(false, i -> Math.round(255 * heights[i]) * 0x010101);
    }

    /** A picture in colour; where the pattern has holes, with what is there as alpha. */
    public byte[] colours(Colouring by) {
        Pattern.Point p = new Pattern.Point();
        boolean holes = hasHoles();
        return png(holes, i -> {
            p.tone = tones[i];
            p.joint = joints[i];
            p.piece = pieces[i];
            LinearRgb c = by.at(p);
            int there = Math.round(255 * covers[i]);
            return there << 24 | encoded(c.r()) << 16 | encoded(c.g()) << 8 | encoded(c.b());
        });
    }

    private static int encoded(double linear) {
        return CODES[(int) (Math.max(0, Math.min(1, linear)) * (CODES.length - 1) + 0.5)] & 0xFF;
    }

    /** sRGB codes of linear values, finer than a code is wide even in the dark. */
    private static byte[] codes() {
        byte[] codes = new byte[1 << 14];
        for (int i = 0; i < codes.length; i++) {
            codes[i] = (byte) Math.round(255 * Srgb.encode(i / (codes.length - 1.0)));
        }
        return codes;
    }

    public boolean hasHoles() {
        for (float c : covers) {
            if (c < 1) {
                return true;
            }
        }
        return false;
    }

    /**
     * Roughness in the green channel as glTF packs it, linear codes from {@code low} (tone 0) to {@code high} (tone 1) and
     * to {@code joint} in joints, as a share of the material's own roughness; red and blue are full.
     */
    public byte[] roughness(double low, double high, double joint) {
        return png(false, i -> {
            double own = low + (high - low) * tones[i];
            int code = (int) Math.round(255 * (own + (joint - own) * joints[i]));
            return 0xFF00FF | code << 8;
        });
    }

    /**
     * Normals of the pattern's height, green up (rules.md, section 5): n = normalise(−∂h/∂x, −∂h/∂y, 1) by central
     * differences that wrap around. Rows run downwards, so y grows against them.
     *
     * @param relief metres between height 0 and height 1
     * @param across metres of one repeat across
     * @param down   metres of one repeat down
     */
    public byte[] normals(double relief, double across, double down) {
        double pitchX = across / width;
        double pitchY = down / height;
        return png(false, i -> {
            int x = i % width;
            int y = i / width;
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
        return heights[PeriodicNoise.wrapped(y, height) * width + PeriodicNoise.wrapped(x, width)];
    }

    private byte[] png(boolean alpha, IntUnaryOperator argb) {
        int channels = alpha ? 4 : 3;
        byte[] samples = new byte[channels * width * height];
        for (int i = 0, to = 0; i < width * height; i++) {
            int c = argb.applyAsInt(i);
            samples[to++] = (byte) (c >> 16);
            samples[to++] = (byte) (c >> 8);
            samples[to++] = (byte) c;
            if (alpha) {
                samples[to++] = (byte) (c >> 24);
            }
        }
        return Png.quick(width, height, samples, channels);
    }
}

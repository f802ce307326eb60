package app.zolvan.core.measure;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.ToneWord;
import app.zolvan.core.material.FinishWord;
import app.zolvan.core.material.MainColour;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.render.surface.GlossMeter;
import app.zolvan.core.texture.ImageFile;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.util.Map;
import java.util.function.Function;

/**
 * What is measured of a material, so that it can be judged, found and compared without putting it on anything.
 *
 * @param mean    the colour a designer means, times the mean of its picture
 * @param gloss   in GU at 60°
 * @param clarity how much shows through
 * @param pattern of its pictures; null where it has none with a real size
 * @param look    how it reflects and lets through, as {@link Likeness} compares it
 */
public record MaterialMeasure(LinearRgb mean, double gloss, Clarity clarity, PatternMeasure pattern, Likeness look) {
    private static final long MOST_PIXELS = 64_000_000;
    /** From here on a body is seen by its glow, in cd/m². */
    private static final double GLOWS = 100;
    /** In how many steps the roughness of a picture is read. */
    private static final int STEPS = 20;

    /** @param images bytes of the surface's pictures by their digests; one that can't be read counts as none */
    public static MaterialMeasure of(Surface s, Function<String, byte[]> images) {
        Parameter main = s.number(Parameter.EMISSION_LUMINANCE) > GLOWS ? Parameter.EMISSION_COLOR : MainColour.of(s);
        LinearRgb mean = s.colour(main);
        double[] roughness = {1};
        Details details = new Details();
        for (Map.Entry<Parameter, TextureUse> e : s.textures().entrySet()) {
            Parameter p = e.getKey();
            TextureUse use = e.getValue();
            BufferedImage image = decode(images.apply(use.image()));
            if (image == null) {
                continue;
            }
            PictureMeasure m = PictureMeasure.of(p, use, image);
            if (p == main) {
                mean = MainColour.under(use, mean, m.mean());
            } else if (p == Parameter.SPECULAR_ROUGHNESS) {
                roughness = shares(image, use.channel());
            }
            details.add(m, use);
        }
        double gloss = 0;
        double factor = 0;
        for (int i = 0; i < roughness.length; i++) {
            double here = (i + 1.0) / roughness.length;
            factor += roughness[i] * here;
            if (roughness[i] > 0) {
                gloss += roughness[i] * GlossMeter.measure(rougher(s, here));
            }
        }
        Surface even = rougher(s.with(main, mean.toArray()), factor);
        PatternMeasure pattern = details.pattern();
        double busyness = pattern == null ? 0 : pattern.busyness();
        return new MaterialMeasure(mean, gloss, Clarity.of(s), pattern, Likeness.of(even, busyness));
    }

    public ToneWord tone() {
        return ToneWord.of(CieLab.of(mean));
    }

    public FinishWord finish() {
        return FinishWord.ofGloss(gloss);
    }

    private static Surface rougher(Surface s, double factor) {
        return s.with(Parameter.SPECULAR_ROUGHNESS, s.number(Parameter.SPECULAR_ROUGHNESS) * factor);
    }

    /** How much of the picture has which value, in equal steps up to 1. */
    private static double[] shares(BufferedImage image, TextureUse.Channel channel) {
        int shift = switch (channel) {
            case R -> 16;
            case B -> 0;
            case A -> 24;
            default -> 8;
        };
        double[] shares = new double[STEPS];
        int w = image.getWidth();
        int[] argb = image.getRGB(0, 0, w, image.getHeight(), null, 0, w);
        for (int p : argb) {
            shares[(int) Math.max(0, Math.round((p >>> shift & 255) / 255.0 * STEPS) - 1)] += 1.0 / argb.length;
        }
        return shares;
    }

    private static BufferedImage decode(byte[] bytes) {
        try {
            return bytes == null ? null : ImageFile.decode(bytes, MOST_PIXELS);
        } catch (IOException e) {
            return null;
        }
    }

    /** Gathers what the pictures tell of the pattern. */
    private static final class Details {
        private RealSize size;
        private double pixelsPerMetre = Double.POSITIVE_INFINITY;
        private double seamU;
        private double seamV;
        private double energy;
        private double most;
        private double detail;

        void add(PictureMeasure m, TextureUse use) {
            if (!(use.placement() instanceof RealSize real)) {
                return;
            }
            if (size == null || real.width() > size.width()) {
                size = real;
            }
            double density = Math.min(m.width() / real.width(), m.height() / real.height());
            pixelsPerMetre = Math.min(pixelsPerMetre, density);
            seamU = Math.max(seamU, m.seamU());
            seamV = Math.max(seamV, m.seamV());
            for (int k = 0; k < m.details().length; k++) {
                double block = (1 << k) / density;
                double degrees = Math.toDegrees(2 * block / PatternMeasure.DISTANCE);
                double part = m.details()[k] * PatternMeasure.sensitivity(1 / degrees);
                energy += part * part;
                if (part > most) {
                    most = part;
                    detail = block;
                }
            }
        }

        PatternMeasure pattern() {
            return size == null
                    ? null
                    : new PatternMeasure(
                            size.width(), size.height(), pixelsPerMetre, seamU, seamV, Math.sqrt(energy), detail);
        }
    }
}

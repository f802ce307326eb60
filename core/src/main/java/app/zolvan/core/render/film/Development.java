package app.zolvan.core.render.film;

import app.zolvan.core.colour.Srgb;
import app.zolvan.core.light.ToneCurve;
import app.zolvan.core.light.WhiteBalance;
import java.util.Arrays;

/**
 * From what was gathered to a picture: circuits dimmed, exposed, balanced, bent by a tone curve and encoded. The film is
 * not changed, so all of it can be tried again at once.
 *
 * @param stops    exposure; 0 leaves radiance as it is
 * @param kelvin   what counts as white; 0 for no balancing
 * @param curve    how brightness becomes what a screen shows
 * @param dimmers  a factor for each circuit; null for all on
 * @param denoised whether grain is smoothed
 */
public record Development(double stops, double kelvin, Curve curve, double[] dimmers, boolean denoised) {
    public static final Development PLAIN = new Development(0, 0, Curve.NEUTRAL, null, false);

    /** What is brighter than a screen can show. */
    public enum Curve {
        /** Khronos PBR Neutral: a product's colours stay as they are. */
        NEUTRAL,
        /** Film-like: everything bright is drawn in, and paler. */
        FILMIC
    }

    public Development denoised(boolean is) {
        return new Development(stops, kelvin, curve, dimmers, is);
    }

    /**
     * Scene-linear radiance of a rectangle, three numbers a pixel, dimmed and, if wanted, denoised; pixels without a sample
     * take the nearest one's up and to the left.
     */
    public float[] radiance(Film film, int x0, int y0, int width, int height) {
        double[] all = new double[film.circuits()];
        Arrays.fill(all, 1);
        double[] dim = dimmers == null ? all : dimmers;
        float[] out = denoised ? Denoiser.smooth(film, dim, x0, y0, width, height) : new float[3 * width * height];
        double[] c = new double[3];
        for (int y = 0; y < height && !denoised; y++) {
            for (int x = 0; x < width; x++) {
                int sx = x0 + x;
                int sy = y0 + y;
                if (film.samples(sx, sy) == 0) {
                    sx -= sx % Film.COARSE;
                    sy -= sy % Film.COARSE;
                }
                film.mean(sx, sy, dim, c);
                for (int k = 0; k < 3; k++) {
                    out[3 * (y * width + x) + k] = (float) c[k];
                }
            }
        }
        return out;
    }

    /** Display-linear values in [0, 1], three a pixel. */
    private double[] shown(float[] radiance) {
        double gain = StrictMath.pow(2, stops);
        WhiteBalance balance = kelvin > 0 ? new WhiteBalance(kelvin) : null;
        double[] out = new double[radiance.length];
        double[] c = new double[3];
        for (int i = 0; i < radiance.length; i += 3) {
            for (int k = 0; k < 3; k++) {
                c[k] = radiance[i + k] * gain;
            }
            if (balance != null) {
                balance.apply(c);
            }
            for (int k = 0; k < 3; k++) {
                c[k] = Math.max(0, c[k]);
            }
            if (curve == Curve.NEUTRAL) {
                ToneCurve.neutral(c);
            } else {
                ToneCurve.filmic(c);
            }
            for (int k = 0; k < 3; k++) {
                out[i + k] = Math.max(0, Math.min(1, c[k]));
            }
        }
        return out;
    }

    /** sRGB codes, three bytes a pixel. */
    public byte[] bytes(float[] radiance) {
        double[] v = shown(radiance);
        byte[] out = new byte[v.length];
        for (int i = 0; i < v.length; i++) {
            out[i] = (byte) Math.round(255 * Srgb.encode(v[i]));
        }
        return out;
    }

    /** sRGB codes of 16 bits. */
    public short[] words(float[] radiance) {
        double[] v = shown(radiance);
        short[] out = new short[v.length];
        for (int i = 0; i < v.length; i++) {
            out[i] = (short) Math.round(65535 * Srgb.encode(v[i]));
        }
        return out;
    }
}

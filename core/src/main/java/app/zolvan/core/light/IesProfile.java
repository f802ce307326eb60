package app.zolvan.core.light;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;

/**
 * How much light a luminaire sends in each direction, as a file of IES LM-63 (1986 … 2019) gives it: type C photometry,
 * vertical angles from straight down, horizontal ones around. Symmetric files are completed.
 */
public final class IesProfile {
    private static final int LONGEST = 4 << 20;
    private static final int MOST_ANGLES = 1000;
    private static final Pattern BLANK = Pattern.compile("[\\s,]+");
    private static final int FLUX_STEPS = 180;

    private final double[] vertical;
    private final double[] horizontal;
    private final double[][] candela;
    private final double flux;

    private IesProfile(double[] vertical, double[] horizontal, double[][] candela) {
        this.vertical = vertical;
        this.horizontal = horizontal;
        this.candela = candela;
        double sum = 0;
        int around = horizontal.length == 1 ? 1 : 2 * FLUX_STEPS;
        for (int i = 0; i < FLUX_STEPS; i++) {
            double v0 = Math.PI * i / FLUX_STEPS;
            double v1 = Math.PI * (i + 1) / FLUX_STEPS;
            double angle = 2 * Math.PI / around * (StrictMath.cos(v0) - StrictMath.cos(v1));
            for (int k = 0; k < around; k++) {
                sum += angle * candela((v0 + v1) / 2, 2 * Math.PI * (k + 0.5) / around);
            }
        }
        flux = sum;
    }

    /** @throws IOException with a sentence, where it is no such file */
    public static IesProfile read(byte[] bytes) throws IOException {
        if (bytes.length > LONGEST) {
            throw new IOException("The luminaire file is larger than 4 MB; it is no IES file.");
        }
        String text = new String(bytes, StandardCharsets.ISO_8859_1);
        int tilt = text.indexOf("TILT=");
        if (tilt < 0) {
            throw new IOException("That is no IES LM-63 file: the line TILT= is missing.");
        }
        int end = text.indexOf('\n', tilt);
        String kind = text.substring(tilt + 5, end < 0 ? text.length() : end).strip();
        if (!kind.equals("NONE")) {
            throw new IOException("The luminaire file tilts its lamp (TILT=" + kind + "); only TILT=NONE is read.");
        }
        List<Double> n = new ArrayList<>();
        for (String word : BLANK.split(text.substring(end).strip())) {
            try {
                n.add(Double.parseDouble(word));
            } catch (NumberFormatException e) {
                throw new IOException("The luminaire file has “" + word + "” where a number belongs.", e);
            }
        }
        return of(n);
    }

    private static IesProfile of(List<Double> n) throws IOException {
        if (n.size() < 13) {
            throw cutOff();
        }
        double nv = n.get(3);
        double nh = n.get(4);
        if (!(nv >= 2 && nv <= MOST_ANGLES && nh >= 1 && nh <= MOST_ANGLES) || nv % 1 != 0 || nh % 1 != 0) {
            throw new IOException("The luminaire file's counts of angles are no sensible numbers.");
        }
        if (n.get(5) != 1) {
            throw new IOException("The luminaire file's photometry is of type A or B; only type C is read.");
        }
        int v = (int) nv;
        int h = (int) nh;
        if (n.size() < 13 + v + h + v * h) {
            throw cutOff();
        }
        double factor = n.get(2) * n.get(10); // candela multiplier and ballast factor
        double[] vertical = angles(n, 13, v);
        double[] horizontal = angles(n, 13 + v, h);
        double[][] candela = new double[h][v];
        for (int i = 0; i < h; i++) {
            for (int k = 0; k < v; k++) {
                double value = factor * n.get(13 + v + h + i * v + k);
                if (!(value >= 0 && value < 1e9)) {
                    throw new IOException("The luminaire file has a negative or absurd intensity.");
                }
                candela[i][k] = value;
            }
        }
        return new IesProfile(vertical, horizontal, candela);
    }

    private static IOException cutOff() {
        return new IOException("The luminaire file is cut off. Copy it again.");
    }

    private static double[] angles(List<Double> n, int from, int count) throws IOException {
        double[] out = new double[count];
        for (int i = 0; i < count; i++) {
            out[i] = Math.toRadians(n.get(from + i));
            if (i > 0 && !(out[i] > out[i - 1])) {
                throw new IOException("The luminaire file's angles do not rise.");
            }
        }
        return out;
    }

    /** Lumens that it sends out in all. */
    public double flux() {
        return flux;
    }

    /**
     * Luminous intensity in candela.
     *
     * @param down   angle from the luminaire's downward axis, 0 … π
     * @param around angle about that axis
     */
    public double candela(double down, double around) {
        if (down < vertical[0] - 1e-9 || down > vertical[vertical.length - 1] + 1e-9) {
            return 0;
        }
        double last = horizontal[horizontal.length - 1];
        double a = around - 2 * Math.PI * Math.floor(around / (2 * Math.PI));
        if (horizontal.length == 1) {
            a = horizontal[0];
        } else if (last <= Math.PI / 2 + 1e-6) {
            a = a > Math.PI ? 2 * Math.PI - a : a;
            a = a > Math.PI / 2 ? Math.PI - a : a;
        } else if (last <= Math.PI + 1e-6) {
            a = a > Math.PI ? 2 * Math.PI - a : a;
        } else if (horizontal[0] > Math.PI / 4) { // from 90° to 270°, mirrored about that plane
            a = a < Math.PI / 2 ? Math.PI - a : a > 1.5 * Math.PI ? 3 * Math.PI - a : a;
        }
        int h = below(horizontal, a);
        int v = below(vertical, down);
        double th = share(horizontal, h, a);
        double tv = share(vertical, v, down);
        int h1 = Math.min(h + 1, horizontal.length - 1);
        if (a > last && last > Math.PI && horizontal[0] < Math.PI / 4) { // from the last angle on to the first
            h = horizontal.length - 1;
            h1 = 0;
            th = (a - last) / (horizontal[0] + 2 * Math.PI - last);
        }
        int v1 = Math.min(v + 1, vertical.length - 1);
        return (1 - th) * ((1 - tv) * candela[h][v] + tv * candela[h][v1])
                + th * ((1 - tv) * candela[h1][v] + tv * candela[h1][v1]);
    }

    private static int below(double[] sorted, double x) {
        int lo = 0;
        int hi = sorted.length - 1;
        while (hi - lo > 1) {
            int mid = (lo + hi) >>> 1;
            if (sorted[mid] <= x) {
                lo = mid;
            } else {
                hi = mid;
            }
        }
        return lo;
    }

    private static double share(double[] sorted, int i, double x) {
        if (i + 1 >= sorted.length) {
            return 0;
        }
        return Math.max(0, Math.min(1, (x - sorted[i]) / (sorted[i + 1] - sorted[i])));
    }
}

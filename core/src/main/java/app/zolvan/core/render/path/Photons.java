package app.zolvan.core.render.path;

import java.util.Arrays;
import java.util.List;

/**
 * Light that lamps and suns have sent through mirrors and lenses, where it came to rest on what scatters it: caustics
 * (Jensen 1996). Kept in a grid of cells as wide as the gather's diameter, so that a look around meets eight of them.
 * Immutable.
 */
public final class Photons {
    /** Numbers a photon: place, direction it came along, flux in lumens (three each), circuit. */
    static final int STRIDE = 10;

    private final double radius;
    private final double cell;
    private final float[] data;
    private final int[] starts;
    private final int mask;
    /** A bit a slot, set where it holds photons: small enough for the cache, so that empty cells cost next to nothing. */
    private final long[] occupied;

    /** Lists of photons as one thread after another found them. */
    static final class Found {
        private float[] data = new float[STRIDE * 1024];
        private int size;

        void add(double x, double y, double z, double dx, double dy, double dz, double r, double g, double b, int c) {
            if (size + STRIDE > data.length) {
                data = Arrays.copyOf(data, 2 * data.length);
            }
            data[size++] = (float) x;
            data[size++] = (float) y;
            data[size++] = (float) z;
            data[size++] = (float) dx;
            data[size++] = (float) dy;
            data[size++] = (float) dz;
            data[size++] = (float) r;
            data[size++] = (float) g;
            data[size++] = (float) b;
            data[size++] = c;
        }
    }

    /** Hears of each photon near a place. */
    interface Gatherer {
        void take(double dx, double dy, double dz, double r, double g, double b, int circuit);
    }

    /**
     * @param found  in an order that does not depend on threads
     * @param radius in metres
     */
    Photons(List<Found> found, double radius) {
        this.radius = radius;
        this.cell = 2 * radius;
        int n = found.stream().mapToInt(f -> f.size / STRIDE).sum();
        int slots = Math.max(16, Integer.highestOneBit(Math.max(1, n)) * 2);
        mask = slots - 1;
        starts = new int[slots + 1];
        for (Found f : found) {
            for (int i = 0; i < f.size; i += STRIDE) {
                starts[slot(f.data[i], f.data[i + 1], f.data[i + 2]) + 1]++;
            }
        }
        occupied = new long[(slots + 63) / 64];
        for (int i = 0; i < slots; i++) {
            if (starts[i + 1] > 0) {
                occupied[i >> 6] |= 1L << i;
            }
            starts[i + 1] += starts[i];
        }
        data = new float[STRIDE * n];
        int[] next = starts.clone();
        for (Found f : found) {
            for (int i = 0; i < f.size; i += STRIDE) {
                int at = next[slot(f.data[i], f.data[i + 1], f.data[i + 2])]++;
                System.arraycopy(f.data, i, data, STRIDE * at, STRIDE);
            }
        }
    }

    /** How many there are. */
    public int count() {
        return data.length / STRIDE;
    }

    /** Flux of all of them, in lumens. */
    public double flux() {
        double sum = 0;
        for (int i = 0; i < data.length; i += STRIDE) {
            sum += 0.2126 * data[i + 6] + 0.7152 * data[i + 7] + 0.0722 * data[i + 8];
        }
        return sum;
    }

    double radius() {
        return radius;
    }

    private int slot(double x, double y, double z) {
        return hash((int) Math.floor(x / cell), (int) Math.floor(y / cell), (int) Math.floor(z / cell));
    }

    private int hash(int x, int y, int z) {
        int h = x * 73856093 ^ y * 19349663 ^ z * 83492791;
        return (h ^ h >>> 15) & mask;
    }

    /** Shows those within the radius whose surface faces the same way. */
    void near(double x, double y, double z, Gatherer to) {
        int cx = (int) Math.floor(x / cell - 0.5);
        int cy = (int) Math.floor(y / cell - 0.5);
        int cz = (int) Math.floor(z / cell - 0.5);
        for (int i = 0; i < 8; i++) {
            int kx = cx + (i & 1);
            int ky = cy + (i >> 1 & 1);
            int kz = cz + (i >> 2);
            int slot = hash(kx, ky, kz);
            if ((occupied[slot >> 6] >>> slot & 1) == 0) {
                continue;
            }
            for (int p = starts[slot]; p < starts[slot + 1]; p++) {
                int at = STRIDE * p;
                double px = data[at];
                double py = data[at + 1];
                double pz = data[at + 2];
                boolean other = (int) Math.floor(px / cell) != kx
                        || (int) Math.floor(py / cell) != ky
                        || (int) Math.floor(pz / cell) != kz; // another cell of the same slot
                double d2 = (px - x) * (px - x) + (py - y) * (py - y) + (pz - z) * (pz - z);
                if (!other && d2 < radius * radius) {
                    to.take(data[at + 3], data[at + 4], data[at + 5], data[at + 6], data[at + 7], data[at + 8], (int)
                            data[at + 9]);
                }
            }
        }
    }
}

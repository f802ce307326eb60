package app.zolvan.core.render.sample;

/**
 * The random numbers of one path: Owen-scrambled Sobol points, four dimensions at a time, each four shuffled and
 * scrambled anew by hashing (Burley 2020). Number k of sample i of a pixel is the same whenever and wherever it is asked
 * for, and the samples 0 … 2ⁿ − 1 of a pixel are stratified in every group of four.
 */
public final class Sampler {
    /** For each dimension and each byte of an index, what its bits add up to. */
    private static final int[][] SUMS = sums(directions());

    private static final double UNIT = 0x1p-32;

    private int seed;
    private int index;
    private int dimension;
    private int group;
    private int shuffled;
    private int groupSeed;

    /** Begins a path. */
    public void start(int x, int y, int sample, long seed) {
        this.seed = mix(mix(mix((int) seed, (int) (seed >>> 32)), x), y);
        this.index = sample;
        this.dimension = 0;
        this.group = -1;
    }

    /** The next number, in [0, 1). */
    public double next() {
        int g = dimension >> 2;
        int k = dimension & 3;
        dimension++;
        if (g != group) {
            group = g;
            groupSeed = mix(seed, g);
            shuffled = scramble(index, groupSeed);
        }
        int x = scramble(sobol(shuffled, k), mix(groupSeed, k + 1));
        return (x & 0xFFFFFFFFL) * UNIT;
    }

    private static int sobol(int i, int dimension) {
        if (dimension == 0) {
            return Integer.reverse(i);
        }
        int[] s = SUMS[dimension];
        return s[i & 255] ^ s[256 + (i >>> 8 & 255)] ^ s[512 + (i >>> 16 & 255)] ^ s[768 + (i >>> 24)];
    }

    /** Nested uniform scrambling in base 2, by the hash of Laine & Karras in Burley's version. */
    private static int scramble(int v, int seed) {
        int x = Integer.reverse(v);
        x ^= x * 0x3d20adea;
        x += seed;
        x *= (seed >>> 16) | 1;
        x ^= x * 0x05526c56;
        x ^= x * 0x53a22864;
        return Integer.reverse(x);
    }

    /** Two numbers made one, thoroughly. */
    public static int mix(int a, int b) {
        int x = a * 0x9E3779B1 + b * 0x85EBCA77 + 0x27D4EB2F;
        x = (x ^ (x >>> 15)) * 0x2C1B3C6D;
        x = (x ^ (x >>> 12)) * 0x297A2D39;
        return x ^ (x >>> 15);
    }

    private static int[][] sums(int[][] directions) {
        int[][] out = new int[directions.length][1024];
        for (int d = 0; d < directions.length; d++) {
            for (int k = 0; k < 1024; k++) {
                for (int bit = 0; bit < 8; bit++) {
                    out[d][k] ^= -(k >> bit & 1) & directions[d][8 * (k >> 8) + bit];
                }
            }
        }
        return out;
    }

    /** Direction numbers of dimensions 2 to 4 (Joe & Kuo 2008); the first needs none. */
    private static int[][] directions() {
        int[][] first = {{}, {1}, {1, 3}, {1, 3, 1}};
        int[] polynomial = {0, 0, 1, 1};
        int[][] v = new int[4][32];
        for (int d = 1; d < 4; d++) {
            int s = first[d].length;
            for (int i = 0; i < 32; i++) {
                if (i < s) {
                    v[d][i] = first[d][i] << (31 - i);
                } else {
                    v[d][i] = v[d][i - s] ^ (v[d][i - s] >>> s);
                    for (int k = 1; k < s; k++) {
                        v[d][i] ^= ((polynomial[d] >> (s - 1 - k)) & 1) * v[d][i - k];
                    }
                }
            }
        }
        return v;
    }
}

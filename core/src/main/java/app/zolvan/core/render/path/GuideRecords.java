package app.zolvan.core.render.path;

import java.util.Arrays;
import java.util.List;

/** What scouting paths found on their way: where they were, where they went on, and what light they met there. */
final class GuideRecords {
    /** Numbers a finding: place (3), direction on the square (2), light by density, and what {@link #square} needs (4). */
    private static final int STRIDE = 10;
    /** How often the surroundings may be looked for through panes. */
    private static final double[] PANED = {0, 0.5, 0.8};

    private float[] data = new float[STRIDE * 1024];
    private int size;
    private final double[] looks = new double[PANED.length];

    /** Findings of the path at hand, whose light is not known yet: what of it reaches the eye, and what was found before. */
    private double[] open = new double[64];

    private int opened;

    /** All of several, in their order. */
    static GuideRecords joined(List<GuideRecords> parts) {
        GuideRecords all = new GuideRecords();
        all.size = parts.stream().mapToInt(p -> p.size).sum();
        all.data = new float[STRIDE * all.size];
        int at = 0;
        for (GuideRecords p : parts) {
            System.arraycopy(p.data, 0, all.data, at, STRIDE * p.size);
            at += STRIDE * p.size;
            for (int k = 0; k < PANED.length; k++) {
                all.looks[k] += p.looks[k];
            }
        }
        return all;
    }

    /**
     * A path goes on from a place; what light it meets is told when it has ended.
     *
     * @param value      brightness of the surface's value times cosine for the unit direction (dx, dy, dz)
     * @param density    per steradian, with which the direction was chosen
     * @param surface    the density with which the surface alone would have chosen it
     * @param guide      the density with which the guide would have, negative where there was none
     * @param guidedPart what share of the surface's choices may be left to a guide
     * @param through    what share of the light from there reaches the eye
     * @param before     brightness that the path has found so far
     */
    void open(
            double x,
            double y,
            double z,
            double dx,
            double dy,
            double dz,
            double value,
            double density,
            double surface,
            double guide,
            double guidedPart,
            double through,
            double before) {
        int at = STRIDE * size++;
        if (at == data.length) {
            data = Arrays.copyOf(data, 2 * at);
        }
        data[at] = (float) x;
        data[at + 1] = (float) y;
        data[at + 2] = (float) z;
        data[at + 3] = (float) Octahedron.u(dx, dy, dz);
        data[at + 4] = (float) Octahedron.v(dx, dy, dz);
        data[at + 5] = (float) (value / density);
        data[at + 6] = (float) (value * value / density);
        data[at + 7] = (float) surface;
        data[at + 8] = (float) guide;
        data[at + 9] = (float) guidedPart;
        if (2 * opened == open.length) {
            open = Arrays.copyOf(open, 2 * open.length);
        }
        open[2 * opened] = through;
        open[2 * opened++ + 1] = before;
    }

    /** The path has ended, having found so much light. */
    void close(double found) {
        for (int k = 0; k < opened; k++) {
            double radiance = Math.max(0, found - open[2 * k + 1]) / open[2 * k];
            int at = STRIDE * (size - opened + k);
            data[at + 5] *= (float) radiance;
            data[at + 6] *= (float) (radiance * radiance);
        }
        opened = 0;
    }

    /**
     * What a look at the surroundings found.
     *
     * @param value   brightness times the surface's value
     * @param density per steradian, with which the direction was chosen
     * @param bright  the density of choosing it by the surroundings' brightness alone
     * @param paned   the density of choosing it by the panes alone
     * @param surface the density with which the path itself might have gone that way
     */
    void look(double value, double density, double bright, double paned, double surface) {
        double square = value * value / density;
        for (int k = 0; k < PANED.length; k++) {
            looks[k] += square / (surface + (1 - PANED[k]) * bright + PANED[k] * paned);
        }
    }

    /** How often to look for the surroundings through panes: so that the looks' squares are least. */
    double steadiestLook() {
        return PANED[least(looks)];
    }

    /** Where the least of them is; the first of several. */
    static int least(double[] of) {
        int best = 0;
        for (int k = 1; k < of.length; k++) {
            best = of[k] < of[best] ? k : best;
        }
        return best;
    }

    int size() {
        return size;
    }

    /** Whether they were found under a guide. */
    boolean wereGuided() {
        return size > 0 && data[8] >= 0;
    }

    float place(int i, int axis) {
        return data[STRIDE * i + axis];
    }

    float u(int i) {
        return data[STRIDE * i + 3];
    }

    float v(int i) {
        return data[STRIDE * i + 4];
    }

    /** What of its light the surface there passes on, by the density with which it was chosen. */
    float weight(int i) {
        return data[STRIDE * i + 5];
    }

    /** Dims a finding that outshines all others to so much: one lucky path must not lead all to follow it. */
    void cap(int i, double most) {
        double weight = weight(i);
        if (weight > most) {
            data[STRIDE * i + 5] = (float) most;
            data[STRIDE * i + 6] *= (float) ((most / weight) * (most / weight));
        }
    }

    /** An estimate of the mean square of what would be found, were the guide followed so often. */
    double square(int i, double share) {
        double s = share * data[STRIDE * i + 9];
        double surface = data[STRIDE * i + 7];
        double guide = data[STRIDE * i + 8];
        return data[STRIDE * i + 6] / Math.max(1e-30, (1 - s) * surface + s * guide);
    }
}

package app.zolvan.core.render.path;

/**
 * From where light comes at each place of a scene, as scouting paths have met it: a tree of places, with a quadtree of
 * directions in each (Müller, Gross & Novák 2017), over the octahedral map. What counts is what the surfaces there pass on.
 * Paths choose between it and what the surface prefers, as often as would have made the scouts' own estimates steadiest.
 * Immutable.
 */
final class Guide {
    private static final double BELOW_ONE = 1 - 0x1p-53;

    private final Places places;
    private final Quarters quarters;
    private final double share;

    /**
     * Halves of space: a plane and what lies on either side of it; a negative child −1 − k is cell k.
     *
     * @param top where to begin
     */
    record Places(float[] plane, int[] axis, int[] child, int top) {}

    /**
     * Quarters of the square of directions, by column and row.
     *
     * @param share of each quarter in its node's light
     * @param finer the node that divides it further, 0 for none
     * @param root  the first node of each cell, 0 where no light was found
     */
    record Quarters(float[] share, int[] finer, int[] root) {}

    /** @param share how often it is followed */
    Guide(Places places, Quarters quarters, double share) {
        this.places = places;
        this.quarters = quarters;
        this.share = share;
    }

    /** The cell of a place. */
    int cell(double x, double y, double z) {
        int n = places.top;
        while (n >= 0) {
            int axis = places.axis[n];
            double v = axis == 0 ? x : axis == 1 ? y : z;
            n = places.child[2 * n + (v < places.plane[n] ? 0 : 1)];
        }
        return -1 - n;
    }

    /** How often to follow the guide there, in [0, 1). */
    double share(int cell) {
        return quarters.root[cell] == 0 ? 0 : share;
    }

    /** The density per steradian of a unit direction. */
    double density(int cell, double x, double y, double z) {
        double u = Octahedron.u(x, y, z);
        double v = Octahedron.v(x, y, z);
        double density = 1;
        for (int n = quarters.root[cell]; n != 0; ) {
            u *= 2;
            v *= 2;
            int column = u >= 1 ? 1 : 0;
            int row = v >= 1 ? 1 : 0;
            u -= column;
            v -= row;
            int q = 4 * n + 2 * column + row;
            density *= 4 * quarters.share[q];
            n = quarters.finer[q];
        }
        return density * Octahedron.perSteradian(x, y, z);
    }

    /** Chooses a unit direction by two numbers in [0, 1). */
    void sample(int cell, double first, double second, double[] out) {
        float[] part = quarters.share;
        double u = 0;
        double v = 0;
        double side = 1;
        double a = first;
        double b = second;
        for (int n = quarters.root[cell]; n != 0; ) {
            int q = 4 * n;
            double left = part[q] + part[q + 1];
            double all = left + part[q + 2] + part[q + 3];
            side *= 0.5;
            a *= all;
            if (a < left || left >= all) {
                a /= left;
            } else {
                a = (a - left) / (all - left);
                u += side;
                q += 2;
            }
            double column = part[q] + part[q + 1];
            b *= column;
            if (b < part[q] || part[q] >= column) {
                b /= part[q];
            } else {
                b = (b - part[q]) / (column - part[q]);
                v += side;
                q++;
            }
            a = Math.min(a, BELOW_ONE);
            b = Math.min(b, BELOW_ONE);
            n = quarters.finer[q];
        }
        Octahedron.direction(u + side * a, v + side * b, out);
    }
}

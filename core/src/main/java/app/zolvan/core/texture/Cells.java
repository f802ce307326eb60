package app.zolvan.core.texture;

/** Cells of scattered points, one in each square of a lattice that wraps (Worley 1996). */
final class Cells {
    /** What is found at a place, in widths of the lattice's squares. */
    static final class Found {
        /** Distance to the nearest point. */
        double first;
        /** Distance to the second, where it was asked for. */
        double second;
        /** Distance to the border of the nearest point's cell, where it was asked for. */
        double edge;
        /** Chance in [0, 1) that belongs to the cell. */
        double chance;
    }

    private static final ThreadLocal<Search> SEARCH = ThreadLocal.withInitial(Search::new);

    /** Squares of the next repeats kept on each side, so that neighbours lie beside one another. */
    private static final int MARGIN = 2;

    private final int nu;
    private final int nv;
    /** Squares to a row, with margins. */
    private final int stride;
    /** Where each square's point lies in it: across, down. */
    private final double[] points;

    private final double[] chance;

    Cells(long seed, int nu, int nv) {
        this.nu = nu;
        this.nv = nv;
        stride = nu + 2 * MARGIN;
        points = new double[2 * stride * (nv + 2 * MARGIN)];
        chance = new double[points.length / 2];
        for (int k = 0; k < chance.length; k++) {
            int i = Math.floorMod(k % stride - MARGIN, nu);
            int j = Math.floorMod(k / stride - MARGIN, nv);
            long h = Chance.mixed((seed + 1) * Chance.STEP + nu * (long) j + i);
            points[2 * k] = Chance.unit(h);
            points[2 * k + 1] = Chance.unit(h + Chance.STEP);
            chance[k] = Chance.unit(Chance.mixed(h));
        }
    }

    /** The nearest point alone, which is fastest. */
    Found nearest(double u, double v) {
        double x = u * nu;
        double y = v * nv;
        double floorX = Math.floor(x);
        double floorY = Math.floor(y);
        double fx = x - floorX;
        double fy = y - floorY;
        int middle = square((int) floorX, (int) floorY);
        double least = Double.MAX_VALUE;
        int home = middle;
        for (int j = -1; j <= 1; j++) {
            int k = middle + j * stride;
            double a = far(k - 1, fx + 1, fy - j);
            double b = far(k, fx, fy - j);
            double c = far(k + 1, fx - 1, fy - j);
            int nearer = a < b ? k - 1 : k;
            double d = a < b ? a : b;
            nearer = c < d ? k + 1 : nearer;
            d = c < d ? c : d;
            home = d < least ? nearer : home;
            least = d < least ? d : least;
        }
        double beyond = 1 + Math.min(Math.min(fx, 1 - fx), Math.min(fy, 1 - fy));
        if (least > beyond * beyond) { // something two squares off may be nearer, which is seldom
            for (int j = -2; j <= 2; j++) {
                for (int i = -2; i <= 2; i++) {
                    double d = far(middle + j * stride + i, fx - i, fy - j);
                    if (d < least) {
                        least = d;
                        home = middle + j * stride + i;
                    }
                }
            }
        }
        Found out = new Found();
        out.first = Math.sqrt(least);
        out.chance = chance[home];
        return out;
    }

    /** The two nearest points. */
    Found nearestTwo(double u, double v) {
        Search s = SEARCH.get();
        s.begin(this, u, v);
        s.lookOn(points, stride, Math.sqrt(s.second));
        return found(s);
    }

    /** The two nearest points and the border between. */
    Found at(double u, double v) {
        Search s = SEARCH.get();
        s.begin(this, u, v);
        // whatever has a border with the nearest point's cell is no farther off than the nearest two together
        s.lookOn(points, stride, Math.sqrt(s.first) + Math.sqrt(s.second));
        Found out = found(s);
        out.edge = s.edge(out.first, out.second);
        return out;
    }

    private int square(int i, int j) {
        return (PeriodicNoise.wrapped(j, nv) + MARGIN) * stride + PeriodicNoise.wrapped(i, nu) + MARGIN;
    }

    /** Square of the distance of a square's point from a place that is so far from the square's corner. */
    private double far(int cell, double fx, double fy) {
        double ax = points[2 * cell] - fx;
        double ay = points[2 * cell + 1] - fy;
        return ax * ax + ay * ay;
    }

    private Found found(Search s) {
        Found out = new Found();
        out.first = Math.sqrt(s.first);
        out.second = Math.sqrt(s.second);
        out.chance = chance[s.homeCell];
        return out;
    }

    /** What has been looked at about a place. */
    private static final class Search {
        final double[] dx = new double[25];
        final double[] dy = new double[25];
        final double[] far = new double[25];
        int middle;
        double fx;
        double fy;
        int count;
        int home;
        int homeCell;
        double first;
        double second;

        void begin(Cells cells, double u, double v) {
            count = 0;
            first = Double.MAX_VALUE;
            second = Double.MAX_VALUE;
            double x = u * cells.nu;
            double y = v * cells.nv;
            int wholeX = (int) Math.floor(x);
            int wholeY = (int) Math.floor(y);
            fx = x - wholeX;
            fy = y - wholeY;
            middle = cells.square(wholeX, wholeY);
            for (int j = -1; j <= 1; j++) {
                for (int i = -1; i <= 1; i++) {
                    look(cells.points, i, j, middle + j * cells.stride + i);
                }
            }
        }

        /** Looks farther, as far as that. */
        void lookOn(double[] points, int stride, double reach) {
            for (int j = -2; j <= 2; j++) {
                double beyond = Math.max(0, Math.max(j - fy, fy - j - 1));
                int step = Math.abs(j) == 2 ? 1 : 4; // the middle rows' inner squares are known
                for (int i = -2; i <= 2 && beyond < reach; i += step) {
                    double aside = Math.max(0, Math.max(i - fx, fx - i - 1));
                    if (aside * aside + beyond * beyond < reach * reach) {
                        look(points, i, j, middle + j * stride + i);
                    }
                }
            }
        }

        private void look(double[] points, int i, int j, int cell) {
            double ax = i + points[2 * cell] - fx;
            double ay = j + points[2 * cell + 1] - fy;
            double d = ax * ax + ay * ay;
            int k = count++;
            dx[k] = ax;
            dy[k] = ay;
            far[k] = d;
            if (d < first) {
                second = first;
                first = d;
                home = k;
                homeCell = cell;
            } else if (d < second) {
                second = d;
            }
        }

        /** Distance to the border of the nearest point's cell. */
        double edge(double toFirst, double toSecond) {
            double edge = (toFirst + toSecond) / 2;
            for (int k = 0; k < count; k++) {
                double reach = toFirst + 2 * edge; // points farther off have borders farther off
                if (k != home && far[k] < reach * reach) {
                    double ax = dx[k] - dx[home];
                    double ay = dy[k] - dy[home];
                    // the middle between two points, along the line from one to the other
                    double border = (far[k] - first) / (2 * Math.max(1e-12, Math.sqrt(ax * ax + ay * ay)));
                    edge = Math.min(edge, border);
                }
            }
            return edge;
        }
    }
}

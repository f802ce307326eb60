package app.zolvan.core.texture;

/** Cells of scattered points, one in each square of a lattice that wraps (Worley 1996). */
final class Cells {
    /** What is found at a place, in widths of the lattice's squares. */
    static final class Found {
        /** Distances to the nearest point and to the second. */
        double first;

        double second;
        /** Distance to the border of the nearest point's cell. */
        double edge;
        /** Chance in [0, 1) that belongs to the cell. */
        double chance;
    }

    private static final ThreadLocal<Search> SEARCH = ThreadLocal.withInitial(Search::new);

    private final int nu;
    private final int nv;
    private final double[] px;
    private final double[] py;
    private final double[] chance;

    Cells(long seed, int nu, int nv) {
        this.nu = nu;
        this.nv = nv;
        px = new double[nu * nv];
        py = new double[nu * nv];
        chance = new double[nu * nv];
        for (int i = 0; i < px.length; i++) {
            long h = Chance.mixed((seed + 1) * Chance.STEP + i);
            px[i] = Chance.unit(h);
            py[i] = Chance.unit(h + Chance.STEP);
            chance[i] = Chance.unit(Chance.mixed(h));
        }
    }

    /** With the border. */
    Found at(double u, double v) {
        Search s = begin(u, v);
        // whatever has a border with the nearest point's cell is no farther off than the nearest two together
        lookOn(s, Math.sqrt(s.first) + Math.sqrt(s.second));
        Found out = found(s);
        out.edge = edge(s, out);
        return out;
    }

    /** The points alone, which is faster: the border is not told. */
    Found nearest(double u, double v) {
        Search s = begin(u, v);
        lookOn(s, Math.sqrt(s.second));
        return found(s);
    }

    private Search begin(double u, double v) {
        Search s = SEARCH.get();
        s.begin(u * nu, v * nv, nu, nv);
        for (int j = -1; j <= 1; j++) {
            for (int i = -1; i <= 1; i++) {
                look(s, i, j);
            }
        }
        return s;
    }

    /** Looks farther, as far as that. */
    private void lookOn(Search s, double reach) {
        for (int j = -2; j <= 2; j++) {
            double beyond = Math.max(0, Math.max(j - s.fy, s.fy - j - 1));
            int step = Math.abs(j) == 2 ? 1 : 4; // the middle rows' inner squares are known
            for (int i = -2; i <= 2 && beyond < reach; i += step) {
                double aside = Math.max(0, Math.max(i - s.fx, s.fx - i - 1));
                if (aside * aside + beyond * beyond < reach * reach) {
                    look(s, i, j);
                }
            }
        }
    }

    /** What has been looked at about a place. */
    private static final class Search {
        final double[] dx = new double[25];
        final double[] dy = new double[25];
        final double[] far = new double[25];
        int ix;
        int iy;
        double fx;
        double fy;
        int count;
        int home;
        int homeCell;
        double first;
        double second;

        void begin(double x, double y, int nu, int nv) {
            count = 0;
            first = Double.MAX_VALUE;
            second = Double.MAX_VALUE;
            int wholeX = (int) Math.floor(x);
            int wholeY = (int) Math.floor(y);
            fx = x - wholeX;
            fy = y - wholeY;
            ix = PeriodicNoise.wrapped(wholeX, nu);
            iy = PeriodicNoise.wrapped(wholeY, nv);
        }
    }

    private void look(Search s, int i, int j) {
        int cell = nu * near(s.iy + j, nv) + near(s.ix + i, nu);
        double ax = i + px[cell] - s.fx;
        double ay = j + py[cell] - s.fy;
        double d = ax * ax + ay * ay;
        int k = s.count++;
        s.dx[k] = ax;
        s.dy[k] = ay;
        s.far[k] = d;
        if (d < s.first) {
            s.second = s.first;
            s.first = d;
            s.home = k;
            s.homeCell = cell;
        } else if (d < s.second) {
            s.second = d;
        }
    }

    /** Wraps what lies at most two squares beyond. */
    private static int near(int i, int n) {
        int w = i < 0 ? i + n : i >= n ? i - n : i;
        return w >= 0 && w < n ? w : Math.floorMod(w, n);
    }

    private Found found(Search s) {
        Found out = new Found();
        out.first = Math.sqrt(s.first);
        out.second = Math.sqrt(s.second);
        out.chance = chance[s.homeCell];
        return out;
    }

    private static double edge(Search s, Found out) {
        double edge = (out.first + out.second) / 2;
        for (int k = 0; k < s.count; k++) {
            double reach = out.first + 2 * edge; // points farther off have borders farther off
            if (k != s.home && s.far[k] < reach * reach) {
                double ax = s.dx[k] - s.dx[s.home];
                double ay = s.dy[k] - s.dy[s.home];
                // the middle between two points, along the line from one to the other
                double border = (s.far[k] - s.first) / (2 * Math.max(1e-12, Math.sqrt(ax * ax + ay * ay)));
                edge = Math.min(edge, border);
            }
        }
        return edge;
    }
}

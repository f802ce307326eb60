package app.zolvan.core.texture;

/** Pieces laid beside each other with joints between: tiles, bricks, boards, blocks. */
final class Bonds {
    /** Where a place lies in its piece. */
    static final class Piece {
        /** Chance of the piece, in [0, 1). */
        double chance;
        /** Metres to the nearest edge of the piece's cell, joints' middles. */
        double edge;
        /** Metres along the piece and across it. */
        double along;

        double across;
    }

    /** Finds the piece at a place given in metres. */
    @FunctionalInterface
    interface Bond {
        void find(double x, double y, Piece out);
    }

    private Bonds() {}

    /** Pieces of a bond, each with its own stretch of what they are made of. */
    static Pattern of(Recipe r, Bond bond) {
        Pattern inner = r.inner() == null ? (u, v, out) -> out.set(0.5) : Patterns.of(r.inner());
        double w = r.inner() == null ? 1 : r.inner().width();
        double h = r.inner() == null ? 1 : r.inner().height();
        double half = r.joint() / 2;
        double soft = Math.max(r.pixel(), 0.15 * r.joint());
        return (u, v, out) -> {
            Piece p = new Piece();
            bond.find((u - Math.floor(u)) * r.width(), (v - Math.floor(v)) * r.height(), p);
            double shift = 17.31 * p.chance;
            inner.at(p.along / w + shift, p.across / h + 7.77 * shift, out);
            double isPiece = half <= 0 ? 1 : smooth((p.edge - half + soft / 2) / soft);
            double rises = half <= 0 ? 1 : smooth((p.edge - half) / (0.8 * half + soft));
            out.joint = Math.max(out.joint * isPiece, 1 - isPiece);
            out.height = rises * (0.8 + 0.2 * out.height);
            out.piece = p.chance;
        };
    }

    /** Courses of equal pieces, each shifted against the one below: 0 stacked, 0.5 running bond. */
    static Bond courses(Recipe r) {
        double w = r.width() / r.count();
        double h = r.height() / r.rows();
        Wrapped hash = new Wrapped(r.seed(), r.count(), r.rows());
        return (x, y, out) -> {
            int row = (int) Math.floor(y / h);
            double at = x / w + r.share() * (row & 1);
            int i = (int) Math.floor(at);
            double fx = (at - i) * w;
            double fy = y - row * h;
            set(out, hash.at(i, row), fx, fy, w, h);
        };
    }

    /** Boards: courses whose ends fall anywhere. */
    static Bond boards(Recipe r) {
        double h = r.height() / r.rows();
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        return (x, y, out) -> {
            int row = Math.floorMod((int) Math.floor(y / h), r.rows());
            double at = x / r.width() * r.count() + noise.value(row, 9);
            int i = (int) Math.floor(at);
            double from = i + 0.5 * noise.value(Math.floorMod(i, r.count()), 100 + row);
            if (at < from) {
                i--;
                from = i + 0.5 * noise.value(Math.floorMod(i, r.count()), 100 + row);
            }
            double to = i + 1 + 0.5 * noise.value(Math.floorMod(i + 1, r.count()), 100 + row);
            double w = r.width() / r.count();
            set(
                    out,
                    noise.value(Math.floorMod(i, r.count()), 1000 + row),
                    (at - from) * w,
                    y - Math.floor(y / h) * h,
                    (to - from) * w,
                    h);
        };
    }

    /** Blocks n times as long as wide, laid in zigzag; the count is of blocks' widths, a multiple of 2n. */
    static Bond herringbone(Recipe r, int n) {
        double w = r.width() / r.count();
        Wrapped hash = new Wrapped(r.seed(), r.count(), r.rows());
        return (x, y, out) -> {
            int i = (int) Math.floor(x / w);
            int j = (int) Math.floor(y / w);
            int s = Math.floorMod(i - j, 2 * n);
            double fx = x - i * w;
            double fy = y - j * w;
            if (s < n) {
                set(out, hash.at(i - s, j), fx + s * w, fy, n * w, w);
            } else {
                int t = 2 * n - 1 - s;
                set(out, hash.at(i + r.count() * 31, j - t), fy + t * w, fx, n * w, w);
            }
        };
    }

    /** Squares of n blocks side by side, lying and standing in turn; the count is of blocks' widths, a multiple of 2n. */
    static Bond basket(Recipe r, int n) {
        double w = r.width() / r.count();
        Wrapped hash = new Wrapped(r.seed(), r.count(), r.rows());
        return (x, y, out) -> {
            int bi = (int) Math.floor(x / (n * w));
            int bj = (int) Math.floor(y / (n * w));
            double fx = x - bi * n * w;
            double fy = y - bj * n * w;
            boolean lies = ((bi + bj) & 1) == 0;
            double along = lies ? fx : fy;
            double across = lies ? fy : fx;
            int k = Math.min(n - 1, (int) (across / w));
            set(out, hash.at(bi * n + (lies ? 0 : k), bj * n + (lies ? k : 0)), along, across - k * w, n * w, w);
        };
    }

    /** Hexagons in upright columns; rows even, {@code height / width = rows / count · √3/2}. */
    static Bond hexagons(Recipe r) {
        double w = r.width() / r.count();
        double h = r.height() / r.rows();
        Wrapped hash = new Wrapped(r.seed(), r.count(), r.rows());
        return (x, y, out) -> {
            double best = Double.MAX_VALUE;
            double second = Double.MAX_VALUE;
            double dx = 0;
            double dy = 0;
            int row = (int) Math.floor(y / h);
            for (int j = row - 1; j <= row + 2; j++) {
                double shift = 0.5 * (j & 1);
                int column = (int) Math.round(x / w - shift);
                for (int i = column - 1; i <= column + 1; i++) {
                    double cx = x - (i + shift) * w;
                    double cy = y - j * h;
                    double d = Math.sqrt(cx * cx + cy * cy);
                    if (d < best) {
                        second = best;
                        best = d;
                        dx = cx;
                        dy = cy;
                        out.chance = hash.at(i, j);
                    } else if (d < second) {
                        second = d;
                    }
                }
            }
            out.edge = (second * second - best * best) / (2 * w); // to the bisector of two centres w apart
            out.along = dx;
            out.across = dy;
        };
    }

    /** Broken stones: the cells of scattered points. */
    static Bond polygons(Recipe r) {
        Cells cells = new PeriodicNoise(r.seed()).cells(r.count(), r.rows());
        double w = r.width() / r.count();
        // pieces lie across the edges, so what they are made of has to fit a whole number of times
        double along = r.inner() == null ? 1 : whole(r.width(), r.inner().width());
        double across = r.inner() == null ? 1 : whole(r.height(), r.inner().height());
        return (x, y, out) -> {
            Cells.Found c = cells.at(x / r.width(), y / r.height());
            out.chance = c.chance;
            out.edge = c.edge * w;
            out.along = x * along;
            out.across = y * across;
        };
    }

    /** What a length is stretched by so that it is a whole number of periods. */
    private static double whole(double length, double period) {
        return Math.max(1, Math.round(length / period)) * period / length;
    }

    private static void set(Piece out, double chance, double fx, double fy, double w, double h) {
        out.chance = chance;
        out.edge = Math.min(Math.min(fx, w - fx), Math.min(fy, h - fy));
        out.along = fx;
        out.across = fy;
    }

    static double smooth(double t) {
        double c = Math.max(0, Math.min(1, t));
        return c * c * (3 - 2 * c);
    }

    /** Chance by whole numbers that wrap. */
    record Wrapped(int seed, int columns, int rows) {
        double at(int i, int j) {
            // multiples of the columns tell kinds of pieces apart
            long kind = i >= 16L * columns ? 1 : 0;
            long a = Math.floorMod(i, columns);
            long b = Math.floorMod(j, rows);
            return Chance.unit((seed * 3L + kind) * Chance.STEP + a * 0xBF58476D1CE4E5B9L + b * 0x94D049BB133111EBL);
        }
    }
}

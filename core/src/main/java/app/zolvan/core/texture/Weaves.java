package app.zolvan.core.texture;

/** Threads that cross, and loops of one thread. A warp thread's piece is 0, a weft thread's ½: they take colours by it. */
final class Weaves {
    /** Whether the warp lies above where the i-th warp thread crosses the j-th weft thread. */
    @FunctionalInterface
    interface Binding {
        boolean warpAbove(int i, int j);
    }

    static final Binding PLAIN = (i, j) -> Math.floorMod(i + j, 2) == 0;
    static final Binding TWILL = (i, j) -> Math.floorMod(i + j, 4) < 2;
    static final Binding SATIN = (i, j) -> Math.floorMod(i + 2 * j, 5) != 0;
    static final Binding BASKET = (i, j) -> Math.floorMod(Math.floorDiv(i, 2) + Math.floorDiv(j, 2), 2) == 0;
    /** Twill that turns back every eight threads. */
    static final Binding ZIGZAG = (i, j) -> {
        int k = Math.floorMod(i, 16);
        return Math.floorMod((k < 8 ? k : 15 - k) + j, 4) < 2;
    };

    private Weaves() {}

    /**
     * @param r count and rows: warp and weft threads, multiples of the binding's repeat; share: how flat threads lie, 0 round
     *          yarn … 1 flat tape; joint: the gap between threads in metres
     */
    static Pattern of(Recipe r, Binding binding) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        int nu = r.count();
        int nv = r.rows();
        double gapU = r.joint() * nu / r.width();
        double gapV = r.joint() * nv / r.height();
        double round = 2 + 6 * r.share();
        return (u, v, out) -> {
            // yarn is never quite even
            double x = u * nu + 0.1 * noise.gradient(u, v, Math.max(2, nu / 4), nv * 2);
            double y = v * nv + 0.1 * noise.gradient(u + 0.5, v, nu * 2, Math.max(2, nv / 4));
            int i = (int) Math.floor(x);
            int j = (int) Math.floor(y);
            double fx = x - i;
            double fy = y - j;
            boolean warp = binding.warpAbove(i, j);
            double across = Math.abs(2 * (warp ? fx : fy) - 1) / Math.max(0.05, 1 - (warp ? gapU : gapV));
            double along = warp ? fy : fx;
            boolean before = warp == (warp ? binding.warpAbove(i, j - 1) : binding.warpAbove(i - 1, j));
            boolean after = warp == (warp ? binding.warpAbove(i, j + 1) : binding.warpAbove(i + 1, j));
            double dip = 1;
            if (!before && along < 0.5) {
                dip = Math.sin(Math.PI * along);
            } else if (!after && along > 0.5) {
                dip = Math.sin(Math.PI * along);
            }
            double body = across >= 1 ? 0 : Math.pow(1 - Math.pow(across, round), 0.6);
            double twist = 0.5 + 0.5 * Math.sin(2 * Math.PI * (along * 2 + across * 0.8));
            double yarn = noise.gradient(u, v, warp ? nu * 3 : nu, warp ? nv : nv * 3);
            out.height = clamp(body * (0.35 + 0.65 * dip));
            out.tone = clamp(out.height * (0.9 + 0.1 * twist) + 0.12 * yarn);
            out.piece = warp ? 0 : 0.5;
            out.joint = 0;
            out.cover = across >= 1 && r.joint() > 0 ? 0 : 1;
        };
    }

    /** Stocking stitch: columns of V's; count columns, rows courses. */
    static Pattern knit(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        return Pattern.grey((u, v) -> {
            double x = u * r.count();
            double fx = x - Math.floor(x);
            double side = Math.abs(2 * fx - 1); // 0 between the legs, 1 at the column's edge
            double y = v * r.rows() - 0.75 * side + 0.12 * noise.gradient(u, v, r.count(), r.rows());
            double fy = y - Math.floor(y);
            double across = Math.abs(2 * fy - 1);
            double leg = Math.sqrt(Math.max(0, 1 - across * across));
            double width = 1 - Math.pow(Math.abs(2 * side - 1), 3);
            double hair = 0.12 * noise.gradient(u, v, r.count() * 4, r.rows() * 6);
            return clamp(leg * (0.25 + 0.75 * width) + hair);
        });
    }

    /** Loops or tufts close together, as in a carpet or towelling. */
    static Pattern loops(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        Cells cells = noise.cells(r.count(), r.rows());
        return (u, v, out) -> {
            Cells.Found c = cells.nearest(u, v);
            double curl = 0.5 + 0.5 * Math.sin(9 * c.first + 6.28 * c.chance);
            double body = clamp(1.15 - c.first * 1.1);
            out.set(clamp(body * (0.75 + 0.25 * curl)));
            out.tone = clamp(0.65 * body + 0.35 * noise.value((int) (c.chance * 4096), 5));
            out.piece = c.chance;
        };
    }

    private static double clamp(double v) {
        return Math.max(0, Math.min(1, v));
    }
}

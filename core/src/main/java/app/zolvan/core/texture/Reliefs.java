package app.zolvan.core.texture;

import static app.zolvan.core.texture.Bonds.smooth;
import static app.zolvan.core.texture.Fields.clamp;

/** What tools and moulds leave behind. */
final class Reliefs {
    private Reliefs() {}

    /** Metal brushed along u: fine long strokes. Depth of stroke. */
    static Pattern brushed(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        int n = r.count();
        return Pattern.grey((u, v) -> clamp(0.5
                + 0.35 * noise.gradient(u, v, 3, n)
                + 0.3 * noise.gradient(u + 0.37, v, 6, n * 2)
                + 0.15 * noise.gradient(u, v + 0.21, 12, n * 4)));
    }

    /** Overlapping round dents. */
    static Pattern hammered(Recipe r) {
        Cells cells = new PeriodicNoise(r.seed()).cells(r.count(), r.rows());
        return Pattern.grey((u, v) -> {
            double d = cells.nearest(u, v).first;
            return clamp(d * d * 1.1);
        });
    }

    /** Grooves that cross slantwise leave four-sided points. Height 0 in the grooves, 1 on the points. */
    static Pattern diamonds(int points) {
        return Pattern.grey((u, v) -> Math.min(ramp((u + v) * points), ramp((u - v) * points)));
    }

    /** Up and down by a straight slope, once in each unit. */
    private static double ramp(double t) {
        double f = t - Math.floor(t);
        return 1 - Math.abs(2 * f - 1);
    }

    /** Rounded ribs along v; share: how much of the width is rib. */
    static Pattern ribs(Recipe r) {
        return Pattern.grey((u, v) -> {
            double f = u * r.count() - Math.floor(u * r.count());
            double across = Math.abs(2 * f - 1) / Math.max(0.05, r.share());
            return across >= 1 ? 0 : Math.sqrt(1 - across * across);
        });
    }

    /** Round grains close together, as moulds leave on plastics. */
    static Pattern pebbled(Recipe r) {
        Cells cells = new PeriodicNoise(r.seed()).cells(r.count(), r.rows());
        return Pattern.grey((u, v) -> {
            Cells.Found c = cells.at(u, v);
            return smooth(c.edge / 0.3) * (0.75 + 0.25 * c.chance);
        });
    }

    /** The long waves of sprayed lacquer. */
    static Pattern orangePeel(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        return Pattern.grey((u, v) -> clamp(0.5
                + 0.55 * noise.gradient(u, v, r.count(), r.rows())
                + 0.2 * noise.gradient(u + 0.4, v, 2 * r.count(), 2 * r.rows())));
    }

    /** Plaster drawn by a trowel: broad overlapping strokes with fine edges. */
    static Pattern trowelled(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        int n = r.count();
        return Pattern.grey((u, v) -> {
            double wu = u + 0.5 / n * noise.fractal(u, v, n, n, 3);
            double wv = v + 0.5 / n * noise.fractal(u + 0.5, v, n, n, 3);
            double stroke = Math.abs(noise.gradient(wu, wv, n, 2 * n));
            double ridge = Math.pow(1 - Math.min(1, 3 * stroke), 3);
            double sand = 0.12 * noise.fractal(u, v, 40, 40, 2);
            return clamp(0.35 + 0.35 * noise.fractal(wu, wv, n, n, 3) + 0.35 * ridge + sand);
        });
    }

    /** Glass with bubbles just under its skin: some of the cells hold one, of its own size. Height 1 on top of them. */
    static Pattern bubbles(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        int cells = r.count();
        return Pattern.grey((u, v) -> {
            double x = u * cells;
            double y = v * cells;
            int i = (int) Math.floor(x);
            int j = (int) Math.floor(y);
            double high = 0;
            for (int dj = -1; dj <= 1; dj++) {
                for (int di = -1; di <= 1; di++) {
                    int ci = Math.floorMod(i + di, cells);
                    int cj = Math.floorMod(j + dj, cells);
                    double size = noise.value(ci, cj);
                    double radius = size < 0.35 ? 0 : 0.08 + 0.37 * size * size;
                    double bx = i + di + 0.2 + 0.6 * noise.value(ci + cells, cj) - x;
                    double by = j + dj + 0.2 + 0.6 * noise.value(ci, cj + cells) - y;
                    double r2 = (bx * bx + by * by) / Math.max(1e-18, radius * radius);
                    high = Math.max(high, r2 < 1 ? 2 * radius * (1 - r2) * (1 - r2) : 0);
                }
            }
            double waves = 0.5 + 0.5 * noise.gradient(u, v, 3, 3);
            return clamp(0.9 * high + 0.1 * waves);
        });
    }

    /** Round holes in staggered rows; share: a hole's width as a share of the distance of two. */
    static Pattern perforated(Recipe r) {
        double w = r.width() / r.count();
        double h = r.height() / r.rows();
        return (u, v, out) -> {
            double x = (u - Math.floor(u)) * r.width();
            double y = (v - Math.floor(v)) * r.height();
            int row = (int) Math.floor(y / h);
            double nearest = Double.MAX_VALUE;
            for (int j = row; j <= row + 1; j++) {
                double shift = 0.5 * (j & 1);
                double dx = x - (Math.round(x / w - shift) + shift) * w;
                double dy = y - j * h;
                nearest = Math.min(nearest, Math.sqrt(dx * dx + dy * dy));
            }
            double away = nearest - r.share() * w / 2;
            out.set(1);
            out.cover = smooth(away / r.pixel() + 0.5);
            out.height = smooth(away / (0.12 * w));
        };
    }
}

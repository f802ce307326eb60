package app.zolvan.core.texture;

import static app.zolvan.core.texture.Bonds.smooth;
import static app.zolvan.core.texture.Fields.clamp;

/** What grows, what is cast and what is ground: wood, hide, stone, cork, grass. */
final class Grains {
    /** How strokes may lie: whole steps across and down, so that they close over one repeat. */
    private static final int[][] LIES = {{1, 0}, {1, 2}, {2, -1}, {1, -1}, {1, 3}};

    private Grains() {}

    /** Wood with its grain along u: year rings cut lengthwise, pores as short dark strokes. Tone 1 is palest. */
    static Pattern wood(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        return (u, v, out) -> grain(noise, r, u, v, r.count() * v + 1.35 * noise.fractal(u, v, 2, 3, 3), out);
    }

    /** The same sawn at the heart: rings run up to points, one below the other. */
    static Pattern crown(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        return (u, v, out) -> {
            double side = Math.abs(2 * (v - Math.floor(v)) - 1); // 0 in the middle of the board
            double wave = 0.5 + 0.5 * Math.cos(2 * Math.PI * (u + 0.06 * noise.fractal(u, v, 2, 2, 2)));
            double far = Math.sqrt(side * side + 0.35 * wave * wave);
            grain(noise, r, u, v, r.count() * far + 0.5 * noise.fractal(u, v, 3, 3, 3), out);
        };
    }

    private static void grain(PeriodicNoise noise, Recipe r, double u, double v, double phase, Pattern.Point out) {
        double early = phase - Math.floor(phase);
        double ring = early < 0.8 ? 0.85 - 0.45 * Math.pow(early / 0.8, 3) : 0.4 + 0.45 * (early - 0.8) / 0.2;
        double fibre = noise.fractal(u, v, 8, 160, 2);
        double pore = noise.gradient(u, v, 24, 220);
        double dark = pore > 0.3 ? (pore - 0.3) * 2.4 * r.share() : 0;
        double broad = 0.1 * noise.fractal(u + 0.3, v, 1, 3, 2);
        out.set(clamp(ring + 0.12 * fibre + broad - dark));
        out.height = clamp(0.9 + 0.1 * fibre - 0.25 * (1 - ring) - 1.5 * dark);
    }

    /** Leather: pebbles divided by fine furrows. Height 0 in the furrows. */
    static Pattern leather(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        int n = r.count();
        Cells cells = noise.cells(n, n);
        return (u, v, out) -> {
            double bend = 0.25 / n;
            double wu = u + bend * noise.gradient(u, v, n / 2, n / 2);
            double wv = v + bend * noise.gradient(u + 0.5, v + 0.5, n / 2, n / 2);
            Cells.Found d = cells.nearestTwo(wu, wv);
            double furrow = Math.min(1, (d.second - d.first) / 0.35);
            double swell = 0.5 + 0.5 * noise.fractal(u, v, 3, 3, 3);
            out.set(clamp(0.8 * Math.sqrt(furrow) + 0.2 * swell));
            out.tone = clamp(0.55 * Math.sqrt(furrow) + 0.45 * swell);
        };
    }

    /** Veins through clouds; joint is how much of a vein there is, share how many. */
    static Pattern marble(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        int n = r.count();
        return (u, v, out) -> {
            double wu = u + 0.3 / n * noise.fractal(u, v, n, n, 3);
            double wv = v + 0.3 / n * noise.fractal(u + 0.37, v + 0.71, n, n, 3);
            double cloud = 0.5 + 0.4 * noise.fractal(wu, wv, 2, 2, 4);
            double vein = 0;
            double weight = 1;
            for (int o = 0; o < 3; o++) {
                double ridge = Math.abs(noise.gradient(wu + 0.13 * o, wv, n << o, n << o));
                double wide = 0.02 + 0.1 * r.share() / (o + 1);
                if (ridge < wide) {
                    double breaks = 0.5 + 0.7 * noise.gradient(u, v + 0.29 * o, n, n);
                    vein = Math.max(vein, weight * clamp(breaks) * smooth(1 - ridge / wide));
                }
                weight *= 0.62;
            }
            out.set(clamp(cloud));
            out.joint = clamp(vein);
            out.height = 1;
        };
    }

    /** Grains of several minerals, each with a colour by its chance. */
    static Pattern granite(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        Cells coarse = noise.cells(r.count(), r.rows());
        Cells fineOnes = noise.cells(3 * r.count(), 3 * r.rows());
        return (u, v, out) -> {
            double wu = u + 0.6 / r.count() * noise.fractal(u, v, r.count(), r.rows(), 2);
            double wv = v + 0.6 / r.rows() * noise.fractal(u + 0.5, v, r.count(), r.rows(), 2);
            Cells.Found big = coarse.nearest(wu, wv);
            Cells.Found small = fineOnes.nearest(wu + 0.5, wv);
            boolean fine = small.chance < r.share() * 0.6;
            out.set(clamp(0.5 + 0.6 * noise.gradient(u, v, r.count() * 2, r.rows() * 2)));
            out.piece = fine ? small.chance / (r.share() * 0.6) : big.chance;
            out.height = 1 - 0.15 * (fine ? small.chance : big.chance);
        };
    }

    /** Chips of several sizes in a binder; share: how much of the surface is chips. */
    static Pattern terrazzo(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        Cells[] chips = {
            noise.cells(r.count(), r.rows()),
            noise.cells(2 * r.count(), 2 * r.rows()),
            noise.cells(4 * r.count(), 4 * r.rows())
        };
        return (u, v, out) -> {
            out.set(clamp(0.5 + 0.5 * noise.fractal(u, v, r.count() * 4, r.rows() * 4, 2)));
            out.joint = 1;
            for (int layer = 0; layer < chips.length; layer++) { // large first: smaller ones fill what is left between
                int n = r.count() << layer;
                double lu = u + 0.21 * layer;
                double lv = v + 0.43 * layer;
                if (chips[layer].nearest(lu, lv).chance < r.share()) {
                    Cells.Found c = chips[layer].at(lu, lv);
                    double pixel = r.pixel() * n / r.width();
                    double in = smooth((c.edge - 0.1 - 0.12 * noise.value((int) (c.chance * 8192), layer))
                            / Math.max(0.02, pixel));
                    if (in > 0) {
                        out.joint = 1 - in;
                        out.piece = c.chance / r.share();
                        return;
                    }
                }
            }
        };
    }

    /** Limestone in beds, with open pores along them. */
    static Pattern travertine(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        int n = r.count();
        return (u, v, out) -> {
            double wv = v + 0.05 * noise.fractal(u, v, 2, 2, 3);
            double bed = 0.5 + 0.5 * noise.fractal(u, wv, 1, n, 5);
            double hole = noise.fractal(u + 0.4, wv, n, 5 * n, 3) + 0.45 * noise.gradient(u, wv, 1, n);
            double deep = smooth((hole - 1.05 + 0.75 * r.share()) / 0.12);
            out.set(clamp(bed));
            out.joint = deep;
            out.height = 1 - deep;
        };
    }

    static Pattern cork(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        Cells cells = noise.cells(r.count(), r.rows());
        return (u, v, out) -> {
            Cells.Found c = cells.at(u + 0.4 / r.count() * noise.gradient(u, v, r.count(), r.rows()), v);
            double fleck = noise.fractal(u, v, r.count() * 3, r.rows() * 3, 2);
            out.set(clamp(0.35 + 0.5 * c.chance + 0.2 * fleck));
            out.piece = c.chance;
            out.joint = 0.6 * smooth(1 - c.edge / 0.06);
            out.height = clamp(0.7 + 0.3 * c.chance - out.joint);
        };
    }

    /** Cast stuff, as concrete: clouds, and pores where air was; share: how many pores. */
    static Pattern cast(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        Cells[] pores = {noise.cells(r.count(), r.rows()), noise.cells(2 * r.count(), 2 * r.rows())};
        return (u, v, out) -> {
            double cloud = 0.5 + 0.42 * noise.fractal(u, v, 2, 2, 6);
            double sand = noise.gradient(u, v, 90, 90);
            double pore = 0;
            for (int layer = 0; layer < pores.length; layer++) {
                Cells.Found c = pores[layer].nearest(u + 0.31 * layer, v);
                if (c.chance < 0.6 * r.share()) {
                    pore = Math.max(pore, smooth((0.12 + 0.35 * c.chance - c.first) / 0.1));
                }
            }
            out.set(clamp(cloud + 0.08 * sand));
            out.joint = pore;
            out.height = clamp(0.9 + 0.06 * sand - 0.85 * pore);
        };
    }

    /** Blades, moss, soil: crowded strokes, darker below. */
    static Pattern turf(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        Cells[] strokes = new Cells[LIES.length];
        for (int k = 0; k < LIES.length; k++) {
            double n = r.count() / Math.hypot(LIES[k][0], LIES[k][1]);
            strokes[k] = new PeriodicNoise(r.seed() + k)
                    .cells(Math.max(1, (int) Math.round(n)), Math.max(1, (int) Math.round(4 * n)));
        }
        return (u, v, out) -> {
            double best = 0;
            double chance = 0;
            for (int k = 0; k < LIES.length; k++) {
                int a = LIES[k][0];
                int b = LIES[k][1];
                Cells.Found c = strokes[k].nearest(a * u + b * v, a * v - b * u);
                double high = clamp(1 - 1.3 * c.first) * (0.4 + 0.6 * c.chance);
                if (high > best) {
                    best = high;
                    chance = c.chance;
                }
            }
            double patch = 0.5 + 0.5 * noise.fractal(u, v, 2, 2, 4);
            out.set(clamp(best));
            out.tone = clamp(0.7 * best + 0.3 * patch);
            out.piece = chance;
        };
    }
}

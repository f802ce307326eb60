package app.zolvan.core.texture;

/** Plain fields of noise and waves. */
final class Fields {
    private Fields() {}

    static Pattern noise(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        return Pattern.grey((u, v) -> clamp(0.5 + 0.7 * noise.gradient(u, v, r.count(), r.rows())));
    }

    static Pattern clouds(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        return Pattern.grey((u, v) -> clamp(0.5 + 0.5 * noise.fractal(u, v, r.count(), r.rows(), 6)));
    }

    static Pattern turbulence(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        return Pattern.grey((u, v) -> {
            double sum = 0;
            double height = 1;
            for (int o = 0; o < 5; o++) {
                sum += height * Math.abs(noise.gradient(u, v, r.count() << o, r.rows() << o));
                height /= 2;
            }
            return clamp(sum);
        });
    }

    static Pattern waves(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        return Pattern.grey((u, v) ->
                0.5 + 0.5 * Math.sin(2 * Math.PI * (r.count() * u + 0.6 * r.share() * noise.fractal(u, v, 2, 2, 3))));
    }

    /** Water: waves from several directions that all close over one repeat. */
    static Pattern ripples(Recipe r) {
        PeriodicNoise noise = new PeriodicNoise(r.seed());
        int n = 14;
        int[] kx = new int[n];
        int[] ky = new int[n];
        double[] phase = new double[n];
        for (int i = 0; i < n; i++) {
            double angle = 2 * Math.PI * noise.value(i, 1);
            double k = r.count() * (0.5 + 1.5 * noise.value(i, 2));
            kx[i] = (int) Math.round(k * Math.cos(angle));
            ky[i] = (int) Math.round(k * Math.sin(angle));
            phase[i] = 2 * Math.PI * noise.value(i, 3);
        }
        return Pattern.grey((u, v) -> {
            double wu = u + 0.02 * noise.gradient(u, v, 3, 3);
            double sum = 0;
            for (int i = 0; i < n; i++) {
                double s = 0.5 + 0.5 * Math.sin(2 * Math.PI * (kx[i] * wu + ky[i] * v) + phase[i]);
                sum += s * s; // crests sharper than troughs
            }
            return clamp(0.1 + 1.1 * (sum / n - 0.1));
        });
    }

    static Pattern cells(Recipe r) {
        Cells cells = new PeriodicNoise(r.seed()).cells(r.count(), r.rows());
        return (u, v, out) -> {
            Cells.Found c = cells.nearest(u, v);
            out.set(clamp(1 - c.first));
            out.piece = c.chance;
        };
    }

    static double clamp(double v) {
        return Math.max(0, Math.min(1, v));
    }
}

package app.zolvan.core.measure;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.surface.Bsdf;
import app.zolvan.core.render.surface.SurfaceValues;
import java.util.Arrays;

/**
 * How a surface reflects and lets light through, as numbers that lie as far apart as two surfaces look: what the ray tracer's own
 * reflectance gives for set angles of light and view. Body colours are CIELAB under D65; gleams are logarithms, as the eye
 * answers to highlights (after Fores, Ferwerda & Gu 2012, who weigh them by a root).
 */
public final class Likeness {
    /** Angles of view from the normal at which gleams are read. */
    private static final double[] VIEWS = {20, 60, 82};
    /** How far beside the mirror's direction. */
    private static final double[] BESIDE = {0, 2, 6, 15, 35};
    /** How far beside straight ahead, of what passes through. */
    private static final double[] AHEAD = {0, 8, 30};
    /** A gleam ten times as strong counts as this many ΔE: how a surface reflects counts more than its colour, which is soon changed. */
    private static final double DECADE = 30;

    private static final double BODY = 0.6;
    /** Below this roughness all are mirrors to the eye, which sees lamps and windows in them and no points. */
    private static final double MIRROR = 0.1;

    private static final double BUSY = 2;
    private final double[] v;

    private Likeness(double[] v) {
        this.v = v;
    }

    /** @param busyness as {@link PatternMeasure} has it */
    static Likeness of(Surface s, double busyness) {
        SurfaceValues values = SurfaceValues.of(s);
        values.roughness = Math.max(MIRROR, values.roughness);
        values.coatRoughness = Math.max(MIRROR, values.coatRoughness);
        Reading r = new Reading(values);
        r.body(0, 45, BODY);
        r.body(70, 20, BODY / 2);
        for (double view : VIEWS) {
            for (double beside : BESIDE) {
                r.gleam(view, view - beside);
            }
        }
        for (double ahead : AHEAD) {
            r.through(ahead);
        }
        double clear = (1 - values.metalness) * values.transmission;
        r.tint(clear, new LinearRgb(values.transmissionR, values.transmissionG, values.transmissionB));
        r.add(BUSY * busyness);
        r.add(20 * Math.log10(1 + (values.emissionR + values.emissionG + values.emissionB) / 3));
        return new Likeness(Arrays.copyOf(r.v, r.n));
    }

    /** As {@link #toArray} gave it. */
    public static Likeness of(double[] numbers) {
        return new Likeness(numbers.clone());
    }

    public double[] toArray() {
        return v.clone();
    }

    /** 0 for the same; about as ΔE counts. */
    public double distance(Likeness o) {
        double sum = 0;
        for (int i = 0; i < v.length; i++) {
            sum += (v[i] - o.v[i]) * (v[i] - o.v[i]);
        }
        return Math.sqrt(sum);
    }

    @Override
    public boolean equals(Object o) {
        return o instanceof Likeness l && Arrays.equals(v, l.v);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(v);
    }

    /** Asks the reflectance and notes the answers. */
    private static final class Reading {
        private final double[] v = new double[40];
        private final SurfaceValues values;
        private final Bsdf bsdf = new Bsdf();
        private int n;

        Reading(SurfaceValues values) {
            this.values = values;
        }

        void add(double number) {
            v[n++] = number;
        }

        private void look(double view) {
            bsdf.set(values, -sin(view), 0, cos(view), values.ior, false);
        }

        /** Colour in light that falls from the side of the viewer, where there is no gleam. */
        void body(double view, double light, double weight) {
            look(view);
            bsdf.evaluate(-sin(light), 0, cos(light));
            double white = cos(light) / Math.PI;
            CieLab c = CieLab.of(new LinearRgb(bsdf.r / white, bsdf.g / white, bsdf.b / white).clamped());
            add(weight * c.l());
            add(weight * c.a());
            add(weight * c.b());
        }

        /** Strength of what is mirrored, and at the middle its tint. */
        void gleam(double view, double light) {
            look(view);
            bsdf.evaluate(sin(light), 0, cos(light));
            double y = new LinearRgb(bsdf.r, bsdf.g, bsdf.b).luminance();
            add(DECADE / Math.sqrt(BESIDE.length) * Math.log10(1 + 10 * y));
            if (view == VIEWS[0] && view == light && y > 0) {
                LinearRgb tint = new LinearRgb(bsdf.r / y, bsdf.g / y, bsdf.b / y).times(0.5);
                CieLab c = CieLab.of(tint);
                double shown = Math.min(1, y);
                add(shown * c.a());
                add(shown * c.b());
            }
        }

        void through(double beside) {
            look(0);
            bsdf.evaluate(sin(beside), 0, -cos(beside));
            add(DECADE * Math.log10(1 + 10 * new LinearRgb(bsdf.r, bsdf.g, bsdf.b).luminance()));
        }

        /** The colour of the body that light passes through. */
        void tint(double weight, LinearRgb colour) {
            CieLab c = CieLab.of(colour);
            add(weight * (c.l() - 100));
            add(weight * c.a());
            add(weight * c.b());
        }

        private static double sin(double degrees) {
            return StrictMath.sin(Math.toRadians(degrees));
        }

        private static double cos(double degrees) {
            return StrictMath.cos(Math.toRadians(degrees));
        }
    }
}

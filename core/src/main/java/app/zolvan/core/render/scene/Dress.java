package app.zolvan.core.render.scene;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import java.util.function.Function;

/**
 * What a span of a placed mesh wears.
 *
 * @param metric   whether its pictures lie by the mesh's metric coordinates rather than by those of the file
 * @param painted  whether the mesh's painted colours multiply the base colour
 * @param priority of its medium where clear bodies overlap; the higher one fills the place
 * @param circuit  which lamps it is switched with, should it glow
 * @param age      how readily the mesh ages from place to place; null where nobody worked it out: it looks new then
 * @param boundary the media on its two sides where it is an open boundary surface; null for a body's own surface
 * @param behind   what is worn on the backs of its triangles; null for the same as on their fronts. A body's medium is that
 *                 of its front
 */
public record Dress(
        Surface surface,
        boolean metric,
        boolean painted,
        int priority,
        int circuit,
        Boundary boundary,
        AgeFields age,
        Dress behind) {
    private static final int VESSEL = 10_000;

    /**
     * The media in front of a boundary (where its normal points) and behind it; null for air. Index of refraction and
     * absorption are theirs, all else is the surface's.
     */
    public record Boundary(Surface front, Surface back) {}

    public static Dress of(Surface surface) {
        return new Dress(surface, false, false, 0, 0, null, null, null);
    }

    /**
     * What a look makes of a span: as it arrived the mesh's own colours are painted on it; a vessel's wall goes before what
     * is in it, glass first, then by index of refraction.
     */
    public static Dress of(Look look) {
        Material m = look.material();
        int byIndex = (int) Math.round(1000 * m.surface().number(Parameter.SPECULAR_IOR));
        return of(m.surface())
                .priority(m.kind() == MaterialKind.GLASS ? VESSEL + byIndex : byIndex)
                .metric(look.mapping() instanceof Mapping.Box)
                .painted(look.from() == null);
    }

    /**
     * What two looks make of a span.
     *
     * @param back what its backs show; null for what its fronts show
     * @param ages how readily the part ages, by whether it weathers as metal does; null where nobody worked it out
     */
    public static Dress of(Look front, Look back, Function<Boolean, AgeFields> ages) {
        Dress own = of(front, ages);
        return back == null ? own : own.behind(of(back, ages));
    }

    private static Dress of(Look look, Function<Boolean, AgeFields> ages) {
        Ageing ageing = Ageing.of(look.material().surface());
        return ageing.isNone() ? of(look) : of(look).aged(ages.apply(ageing.corrodes()));
    }

    public Dress showing(Surface other) {
        return new Dress(other, metric, painted, priority, circuit, boundary, age, behind);
    }

    /**
     * What is worn on a mesh that encloses nothing: a clear surface there is thin-walled on both its sides, as it has no
     * inside. A colour that transmission has at depth is lost.
     */
    public Dress open() {
        return (behind == null ? this : behind(behind.open())).thin();
    }

    private Dress thin() {
        boolean solid =
                surface.number(Parameter.TRANSMISSION_WEIGHT) > 0 && !surface.flag(Parameter.GEOMETRY_THIN_WALLED);
        if (!solid) {
            return this;
        }
        Surface pane = surface.with(Parameter.GEOMETRY_THIN_WALLED, true);
        return showing(
                surface.number(Parameter.TRANSMISSION_DEPTH) > 0
                        ? pane.with(Parameter.TRANSMISSION_DEPTH, 0).with(Parameter.TRANSMISSION_COLOR, LinearRgb.WHITE)
                        : pane);
    }

    public Dress priority(int p) {
        return new Dress(surface, metric, painted, p, circuit, boundary, age, behind);
    }

    public Dress aged(AgeFields fields) {
        return new Dress(surface, metric, painted, priority, circuit, boundary, fields, behind);
    }

    public Dress circuit(int c) {
        return new Dress(surface, metric, painted, priority, c, boundary, age, behind);
    }

    public Dress between(Surface front, Surface back) {
        return new Dress(surface, metric, painted, priority, circuit, new Boundary(front, back), age, behind);
    }

    public Dress metric(boolean is) {
        return new Dress(surface, is, painted, priority, circuit, boundary, age, behind);
    }

    public Dress painted(boolean is) {
        return new Dress(surface, metric, is, priority, circuit, boundary, age, behind);
    }

    /** The same with something else on the backs of its triangles. */
    public Dress behind(Dress back) {
        return new Dress(surface, metric, painted, priority, circuit, boundary, age, back);
    }
}

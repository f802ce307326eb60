package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.LengthText;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import app.zolvan.core.prepare.VesselContact.Kind;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** needs.md P20, Q55: how liquid and container meet, and how deep. */
class VesselContactTest {
    private static final double WALL = 0.004;
    private static final double INSIDE = 0.04;
    private static final double FILLED = 0.08;

    /** A profile of radii and heights turned about y. */
    private static Mesh lathe(double[]... profile) {
        TriangleSoup soup = new TriangleSoup();
        int n = 96;
        for (int i = 0; i + 1 < profile.length; i++) {
            for (int k = 0; k < n; k++) {
                soup.quad(
                        at(profile[i], k, n),
                        at(profile[i], k + 1, n),
                        at(profile[i + 1], k + 1, n),
                        at(profile[i + 1], k, n));
            }
        }
        return soup.toMesh(0.5);
    }

    private static Vec3 at(double[] p, int k, int n) {
        double a = 2 * Math.PI * (k % n) / n;
        return new Vec3(p[0] * Math.cos(a), p[1], p[0] * Math.sin(a));
    }

    /** A glass with walls and a floor, from the axis inside over the rim to the axis below. */
    private static Mesh glass() {
        double out = INSIDE + WALL;
        return lathe(
                new double[] {0, 0},
                new double[] {INSIDE, 0},
                new double[] {INSIDE, 0.12},
                new double[] {out, 0.12},
                new double[] {out, -WALL},
                new double[] {0, -WALL});
    }

    /** A filling that is by so much larger than the inside, or smaller. */
    private static Mesh filling(double larger) {
        return lathe(
                new double[] {0, FILLED},
                new double[] {INSIDE + larger, FILLED},
                new double[] {INSIDE + larger, -larger},
                new double[] {0, -larger});
    }

    private static Model model(Mesh... meshes) {
        return new Model(
                List.of(),
                List.of(
                        new Model.Part(Model.NONE, "Glass", Transform.IDENTITY, 0, List.of(Model.NONE)),
                        new Model.Part(Model.NONE, "Juice", Transform.IDENTITY, 1, List.of(Model.NONE))),
                List.of(meshes),
                List.of(),
                Map.of(),
                List.of());
    }

    @ParameterizedTest
    @CsvSource({"-0.0005, GAP", "0, COINCIDENT", "0.0002, OVERLAP", "0.003, OVERLAP"})
    void theDepthIsMeasuredAcrossTheWall(double larger, Kind kind) {
        Model model = model(glass(), filling(larger));
        VesselContact c = VesselContact.of(model, 0, 1);
        assertThat(c).isEqualTo(VesselContact.of(model, 1, 0));
        assertThat(c.filling()).isEqualTo(1);
        assertThat(VesselContact.of(model(Sides.flip(glass()), Sides.flip(filling(larger))), 0, 1))
                .as("inside out, both")
                .isEqualTo(c);
        assertThat(c.kind()).isEqualTo(kind);
        assertThat(c.usual())
                .isCloseTo(-larger, within(5e-6)); // facets of 96 sides: 1 − cos(π/96) of the radius, cancelled out
        double r = INSIDE + larger;
        double wet = 2 * Math.PI * r * (FILLED + larger) + Math.PI * r * r;
        assertThat(c.area()).as("walls and floor, not the level").isCloseTo(wet, within(0.01 * wet));
        assertThat(c.growth()).isCloseTo(larger > 0 ? 0 : 1e-4 - larger, within(5e-6));
    }

    @Test
    void growingTheFillingByWhatIsSaidMakesItReachIntoTheWall() throws Exception {
        Model model = model(glass(), filling(-0.0005));
        double growth = VesselContact.of(model, 0, 1).growth();
        Mesh grown = Repair.OFFSET
                .apply(filling(-0.0005), new Vec3(1, 1, 1), growth)
                .orElseThrow()
                .mesh();
        VesselContact c = VesselContact.of(model(glass(), grown), 0, 1);
        assertThat(c.kind()).isEqualTo(Kind.OVERLAP);
        assertThat(c.usual()).isCloseTo(-1e-4, within(1e-5));
    }

    @Test
    void whatIsFoundIsSaidInTheProjectsUnit() {
        Model model = model(glass(), filling(-0.0005));
        VesselContact c = VesselContact.of(model, 0, 1);
        assertThat(c.sentence(model, LengthUnit.MM))
                .startsWith("Between “Juice” and “Glass” there is a gap of 0.50 mm")
                .endsWith("cm².");
        assertThat(c.sentence(model, LengthUnit.IN)).contains("0.020 in").endsWith("in².");
        assertThat(c.advice(LengthUnit.MM)).contains("grow the filling by 0.60 mm");
        VesselContact apart = VesselContact.of(
                model(glass(), lathe(new double[] {0, 0.2}, new double[] {0.01, 0.2}, new double[] {0, 0.19})), 0, 1);
        assertThat(apart.kind()).isEqualTo(Kind.APART);
    }

    /** Sentences that are kept are read in any unit; names with odd signs stay as they are. */
    @Test
    void keptLengthsAreReadInAnyUnit() {
        String kept = "“5 {mm}” is " + LengthText.kept(0.0123) + " off, over " + LengthText.keptArea(0.5) + ".";
        assertThat(LengthText.read(kept, LengthUnit.MM)).isEqualTo("“5 {mm}” is 12 mm off, over 0.50 m².");
        assertThat(LengthText.read(kept, LengthUnit.IN)).isEqualTo("“5 {mm}” is 0.484 in off, over 5.4 ft².");
        assertThat(LengthText.of(12.34, LengthUnit.MM)).isEqualTo("12.3 m");
        assertThat(LengthText.of(0.25, LengthUnit.M)).isEqualTo("0.25 m");
        assertThat(LengthText.of(0.25, LengthUnit.CM)).isEqualTo("25.0 cm");
        assertThat(LengthText.of(6.096, LengthUnit.FT)).isEqualTo("20.0 ft");
        assertThat(LengthText.of(-2e-4, LengthUnit.CM)).isEqualTo("-0.20 mm");
    }
}

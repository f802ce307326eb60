package app.zolvan.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;

/** Volumes in closed form, of the facets that a round body is cut into. */
class SolidsTest {
    private static final int SEGMENTS = 24;
    /** Of a circle of radius 1 cut into as many corners. */
    private static final double POLYGON = SEGMENTS * Math.sin(2 * Math.PI / SEGMENTS) / 2;

    private static double volume(TriangleSoup soup) {
        Mesh mesh = soup.toMesh(0.5);
        assertThat(Topology.of(mesh).isClosed()).isTrue();
        return mesh.signedVolume();
    }

    @Test
    void turnedBodiesHoldWhatTheirPrismsAndFrustumsDo() {
        double cylinder = volume(Solids.lathe(Solids.profile(0, 0, 0.3, 0, 0.3, 2, 0, 2), SEGMENTS));
        assertThat(cylinder).isCloseTo(POLYGON * 0.09 * 2, within(1e-6));
        double cone = volume(Solids.lathe(Solids.profile(0, 0, 0.6, 0, 0, 1), SEGMENTS));
        assertThat(cone).isCloseTo(POLYGON * 0.36 / 3, within(1e-6));
    }

    @Test
    void aRingHoldsItsSectionTimesTheWayOfItsMiddle() { // Pappus, for chords in the place of arcs
        int steps = 16;
        double section = 0.01 * steps * Math.sin(2 * Math.PI / steps) / 2;
        double ring = volume(Solids.lathe(Solids.circle(1, 0, 0.1, steps), SEGMENTS));
        assertThat(ring).isCloseTo(2 * POLYGON * section, within(1e-6));
    }

    @Test
    void aWallHasItsThickness() {
        List<double[]> outer = Solids.profile(0.5, 0, 0.5, 1);
        double tube = volume(Solids.lathe(Solids.wall(outer, 0.02), SEGMENTS));
        assertThat(tube).isCloseTo(POLYGON * (0.25 - 0.48 * 0.48), within(1e-6));
    }

    @Test
    void aSectionCarriedStraightIsAPrism() {
        List<double[]> clockwise = List.of(
                new double[] {-0.1, -0.2}, new double[] {-0.1, 0.2}, new double[] {0.1, 0.2}, new double[] {0.1, -0.2});
        List<Vec3> path = List.of(Vec3.ZERO, new Vec3(0, 0, -1), new Vec3(0, 0, -3));
        double bar = volume(Solids.sweep(path, clockwise, Vec3.axis(1), false));
        assertThat(Math.abs(bar)).isCloseTo(0.2 * 0.4 * 3, within(1e-6));
    }

    @Test
    void aCurvePassesThroughItsPointsAndAnOutlineIsDividedEvenly() {
        List<double[]> p = Solids.profile(0, 0, 1, 0.5, 1.5, 2, 0.2, 3);
        List<double[]> curve = Solids.curve(p, 7);
        for (int i = 0; i < p.size(); i++) {
            assertThat(curve.get(7 * i)).containsExactly(p.get(i), within(1e-12));
        }
        List<double[]> outline = Solids.divided(Solids.roundedRectangle(1, 0.4, 0.05, 3), 0.1);
        for (int i = 0; i < outline.size(); i++) {
            double[] a = outline.get(i);
            double[] b = outline.get((i + 1) % outline.size());
            assertThat(Math.hypot(a[0] - b[0], a[1] - b[1])).isLessThanOrEqualTo(0.1 + 1e-12);
        }
    }
}

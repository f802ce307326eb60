package app.zolvan.core.mapping;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class BoxProjectionTest {
    private static final Vec3 NO_STRETCH = new Vec3(1, 1, 1);

    @Test
    void aSampleOf600MillimetresRepeatsFiveTimesOnAWallOfThreeMetres() {
        Mesh wall = BoxProjection.apply(Cubes.box(3000, 2400, 100), new Vec3(0.001, 0.001, 0.001));
        assertThat(extent(wall, 4, 0) / 0.6).isCloseTo(5.000, within(1e-6));
    }

    @Test
    void coordinatesAreMetresWithoutStretchOrShearOnEverySide() {
        Mesh box = BoxProjection.apply(Cubes.box(1, 2, 3), NO_STRETCH);
        for (int t = 0; t < box.triangleCount(); t++) {
            for (int k = 0; k < 3; k++) {
                int a = box.indices()[3 * t + k];
                int b = box.indices()[3 * t + (k + 1) % 3];
                double du = box.metricUv()[2 * b] - box.metricUv()[2 * a];
                double dv = box.metricUv()[2 * b + 1] - box.metricUv()[2 * a + 1];
                assertThat(Math.hypot(du, dv))
                        .isCloseTo(box.position(b).minus(box.position(a)).length(), within(1e-6));
            }
        }
    }

    @Test
    void noSideIsMirroredAndTheGrainRunsAlongTheLongestAxis() {
        for (int grain = 0; grain < 3; grain++) {
            for (int side = 0; side < 6; side++) {
                Vec3 u = BoxProjection.uAxis(side, grain);
                Vec3 v = BoxProjection.vAxis(side, u);
                assertThat(u.cross(v).dot(BoxProjection.outward(side))).isEqualTo(1);
                if (side / 2 != grain) {
                    assertThat(Math.abs(u.get(grain))).isEqualTo(1);
                }
                boolean lyingWall = grain != 1 && side / 2 != 1;
                if (lyingWall) {
                    assertThat(v.y()).as("images stand upright").isEqualTo(1);
                }
            }
        }
    }

    @Test
    void tangentsFollowTheGrainAndTheImagesUpDirection() {
        Mesh box = BoxProjection.apply(Cubes.box(3, 2, 1), NO_STRETCH);
        float[] t = Tangents.of(box, box.metricUv());
        for (int i = 0; i < box.vertexCount(); i++) {
            int v = i;
            Vec3 tangent = new Vec3(t[4 * v], t[4 * v + 1], t[4 * v + 2]);
            assertThat(tangent.dot(box.normal(v))).isCloseTo(0, within(1e-6));
            int side = IntStream.range(0, 6)
                    .filter(s -> box.normal(v).dot(BoxProjection.outward(s)) > 0.9)
                    .findFirst()
                    .orElseThrow();
            Vec3 u = BoxProjection.uAxis(side, 0);
            assertThat(tangent.dot(u)).isCloseTo(1, within(1e-6));
            Vec3 up = box.normal(v).cross(tangent).times(t[4 * v + 3]);
            assertThat(up.dot(BoxProjection.vAxis(side, u))).isCloseTo(1, within(1e-6));
        }
    }

    @Test
    void verticesAreSplitOnlyWhereSidesMeet() {
        Mesh box = BoxProjection.apply(Cubes.box(1, 1, 1), NO_STRETCH);
        assertThat(box.vertexCount()).isEqualTo(24);
        assertThat(box.triangleCount()).isEqualTo(12);
    }

    private static double extent(Mesh mesh, int side, int component) {
        double lo = Double.MAX_VALUE;
        double hi = -Double.MAX_VALUE;
        for (int v = 0; v < mesh.vertexCount(); v++) {
            if (mesh.normal(v).dot(BoxProjection.outward(side)) > 0.9) {
                lo = Math.min(lo, mesh.metricUv()[2 * v + component]);
                hi = Math.max(hi, mesh.metricUv()[2 * v + component]);
            }
        }
        return hi - lo;
    }
}

package app.zolvan.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class TrianglesTest {
    private final SplittableRandom random = new SplittableRandom(11);

    @Test
    void noPlaceOfATriangleIsNearerThanItsDistance() {
        for (int n = 0; n < 300; n++) {
            Vec3 a = any();
            Vec3 b = any();
            Vec3 c = any();
            Vec3 p = any().times(2);
            double nearest = Double.POSITIVE_INFINITY;
            int cuts = 60;
            for (int i = 0; i <= cuts; i++) {
                for (int j = 0; i + j <= cuts; j++) {
                    Vec3 q = a.plus(b.minus(a).times((double) i / cuts))
                            .plus(c.minus(a).times((double) j / cuts));
                    nearest = Math.min(nearest, q.minus(p).length());
                }
            }
            double cell = Math.max(b.minus(a).length(), c.minus(a).length()) / cuts;
            assertThat(Triangles.distance(p, a, b, c)).isBetween(nearest - cell, nearest + 1e-12);
        }
    }

    private Vec3 any() {
        return new Vec3(random.nextDouble(-1, 1), random.nextDouble(-1, 1), random.nextDouble(-1, 1));
    }

    @Test
    void theSidesOfABodyFillAllDirectionsFromWithinAndNoneFromOutside() {
        Mesh body = Solids.lathe(Solids.profile(0, -1, 0.7, -0.8, 0.4, 0.3, 0, 0.5), 9)
                .toMesh(0.1);
        assertThat(seenFrom(body, new Vec3(0.1, 0, -0.1))).isCloseTo(4 * Math.PI, within(1e-6));
        assertThat(seenFrom(body, new Vec3(0.9, 0.4, 0))).isCloseTo(0, within(1e-6));
        assertThat(Triangles.solidAngle(Vec3.axis(0), Vec3.axis(1), Vec3.axis(2)))
                .as("an eighth")
                .isCloseTo(Math.PI / 2, within(1e-12));
    }

    private static double seenFrom(Mesh body, Vec3 eye) {
        int[] i = body.indices();
        double sum = 0;
        for (int t = 0; t < body.triangleCount(); t++) {
            sum += Triangles.solidAngle(
                    body.position(i[3 * t]).minus(eye),
                    body.position(i[3 * t + 1]).minus(eye),
                    body.position(i[3 * t + 2]).minus(eye));
        }
        return sum;
    }

    @Test
    void aStretchCutsATriangleWhereItsPlaceInThePlaneIsHeld() {
        Vec3 p = new Vec3(0, 0, 0);
        Vec3 q = new Vec3(1, 0.2, 0.1);
        Vec3 r = new Vec3(0.1, 1, -0.3);
        Vec3 n = q.minus(p).cross(r.minus(p));
        for (int k = 0; k < 500; k++) {
            double u = random.nextDouble(-0.5, 1.5);
            double v = random.nextDouble(-0.5, 1.5);
            Vec3 at = q.times(u).plus(r.times(v));
            Vec3 way = any();
            if (Math.abs(way.dot(n)) < 1e-3) {
                continue;
            }
            boolean within = u >= 0 && v >= 0 && u + v <= 1;
            assertThat(Triangles.holds(at, n, p, q, r)).isEqualTo(within);
            assertThat(Triangles.isCut(at.minus(way), at.plus(way), p, q, r)).isEqualTo(within);
            assertThat(Triangles.isCut(at.plus(way), at.plus(way.times(2)), p, q, r))
                    .as("ends before")
                    .isFalse();
        }
    }
}

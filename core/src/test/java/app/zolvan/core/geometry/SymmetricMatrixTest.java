package app.zolvan.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.SplittableRandom;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class SymmetricMatrixTest {
    private static final double SLACK = 1e-12;

    @Property(tries = 500)
    void everySymmetricMatrixIsStretchedAlongDirectionsAcrossEachOther(@ForAll long seed) {
        double[] m = new SplittableRandom(seed).doubles(6, -10, 10).toArray();
        SymmetricMatrix.Eigen e = SymmetricMatrix.eigen(m[0], m[1], m[2], m[3], m[4], m[5]);
        for (int i = 0; i < 3; i++) {
            Vec3 d = e.directions()[i];
            assertThat(times(m, d).minus(d.times(e.values()[i])).length()).isLessThan(100 * SLACK);
            for (int j = 0; j < 3; j++) {
                assertThat(d.dot(e.directions()[j])).isCloseTo(i == j ? 1 : 0, within(SLACK));
            }
            assertThat(SymmetricMatrix.quadratic(m[0], m[1], m[2], m[3], m[4], m[5], d))
                    .isCloseTo(e.values()[i], within(100 * SLACK));
        }
        assertThat(e.values()).isSorted();
        assertThat(e.values()[0] + e.values()[1] + e.values()[2])
                .as("trace")
                .isCloseTo(m[0] + m[1] + m[2], within(100 * SLACK));
    }

    private static Vec3 times(double[] m, Vec3 d) {
        return new Vec3(
                m[0] * d.x() + m[3] * d.y() + m[4] * d.z(),
                m[3] * d.x() + m[1] * d.y() + m[5] * d.z(),
                m[4] * d.x() + m[5] * d.y() + m[2] * d.z());
    }

    @Test
    void equalStretchesKeepThreeDirections() {
        SymmetricMatrix.Eigen e = SymmetricMatrix.eigen(2, 2, 2, 0, 0, 0);
        assertThat(e.values()).containsExactly(2, 2, 2);
        Vec3[] d = e.directions();
        assertThat(Math.abs(d[0].cross(d[1]).dot(d[2]))).isCloseTo(1, within(SLACK));
    }
}

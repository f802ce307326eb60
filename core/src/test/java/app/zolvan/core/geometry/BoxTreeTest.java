package app.zolvan.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Trees of boxes and what is asked of triangles, against looking at every one. */
class BoxTreeTest {
    private final Random random = new Random(5);

    private Vec3 point(double size) {
        return new Vec3(random.nextDouble(), random.nextDouble(), random.nextDouble()).times(size);
    }

    @ParameterizedTest
    @ValueSource(ints = {0, 1, 8, 9, 300})
    void whatTouchesABoxAndWhatIsNearestIsFoundAsByLookingAtAll(int n) {
        double[] boxes = new double[6 * n];
        List<Vec3[]> triangles = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            Vec3 at = point(i % 7 == 0 ? 0 : 10); // some in one place
            Vec3[] t = {at, at.plus(point(1)), at.plus(point(1))};
            triangles.add(t);
            Box3.EMPTY.with(t[0]).with(t[1]).with(t[2]).put(boxes, 6 * i);
        }
        BoxTree tree = new BoxTree(boxes);
        for (int k = 0; k < 50; k++) {
            Vec3 p = point(11);
            double[] asked = new double[6];
            Box3.EMPTY.with(p).with(p.plus(point(2))).put(asked, 0);
            List<Integer> found = new ArrayList<>();
            tree.touching(asked, found::add);
            List<Integer> expected = new ArrayList<>();
            double nearest = Double.POSITIVE_INFINITY;
            for (int i = 0; i < n; i++) {
                boolean apart = false;
                for (int axis = 0; axis < 3; axis++) {
                    apart |= boxes[6 * i + axis] > asked[3 + axis] || boxes[6 * i + 3 + axis] < asked[axis];
                }
                if (!apart) {
                    expected.add(i);
                }
                Vec3[] t = triangles.get(i);
                nearest = Math.min(nearest, Triangles.distance(p, t[0], t[1], t[2]));
            }
            assertThat(found).containsExactlyInAnyOrderElementsOf(expected);
            assertThat(tree.nearest(p, i -> {
                        Vec3[] t = triangles.get(i);
                        return Triangles.distance(p, t[0], t[1], t[2]);
                    }))
                    .isEqualTo(nearest);
        }
    }

    /** No point of the triangle is nearer than its distance, and one of a fine grid is about as near. */
    @Test
    void theDistanceToATriangleIsThatOfItsNearestPoint() {
        for (int k = 0; k < 200; k++) {
            Vec3 a = point(1);
            Vec3 b = point(1);
            Vec3 c = point(1);
            Vec3 p = point(3).minus(new Vec3(1, 1, 1));
            double best = Double.POSITIVE_INFINITY;
            int n = 60;
            for (int i = 0; i <= n; i++) {
                for (int j = 0; i + j <= n; j++) {
                    Vec3 q =
                            a.times(n - i - j).plus(b.times(i)).plus(c.times(j)).times(1.0 / n);
                    best = Math.min(best, q.minus(p).length());
                }
            }
            double d = Triangles.distance(p, a, b, c);
            assertThat(d).isLessThanOrEqualTo(best + 1e-12).isCloseTo(best, within(0.02));
        }
    }

    /** A sixth of a cube fills a sixth of what is seen from its middle, above 0 from behind; a stretch out passes it. */
    @Test
    void solidAnglesFillTheSphereAndAWayOutPassesOneFace() {
        Vec3 a = new Vec3(-1, -1, 1);
        Vec3 b = new Vec3(1, -1, 1);
        Vec3 c = new Vec3(1, 1, 1);
        Vec3 d = new Vec3(-1, 1, 1);
        double face = Triangles.solidAngle(a, b, c) + Triangles.solidAngle(a, c, d);
        assertThat(face).isCloseTo(4 * Math.PI / 6, within(1e-12));
        assertThat(Triangles.solidAngle(a, c, b)).isNegative();
        Vec3 out = new Vec3(0.3, -0.2, 2);
        assertThat(Triangles.isCut(Vec3.ZERO, out, a, b, c)).isTrue();
        assertThat(Triangles.isCut(Vec3.ZERO, out, a, c, d)).isFalse();
        assertThat(Triangles.isCut(Vec3.ZERO, out.times(0.4), a, b, c)).isFalse();
    }
}

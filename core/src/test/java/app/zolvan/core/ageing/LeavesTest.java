package app.zolvan.core.ageing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.scene.SceneSight;
import app.zolvan.core.render.trace.Kernel;
import java.util.List;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** A wall of 2 × 2 m, 20 cm thick, on the ground. */
class LeavesTest {
    private static final double SIZE = 0.08;
    private static final Mesh WALL = Cubes.box(2, 2, 0.2);
    private static final Transform STANDING = Transform.translation(0, 1, 0);
    private static final double[] AREAS = {0.4, 0.4, 4};
    private static Leaves leaves;

    @BeforeAll
    static void grow() { // not while the class is being made: other threads work on it, too
        leaves = Leaves.on(WALL, STANDING, 0, fields(), SIZE);
    }

    private static AgeFields fields() {
        RenderScene scene = new RenderScene.Builder(Kernel.Kind.SCALAR)
                .add(WALL, STANDING, List.of(Surface.STANDARD))
                .build();
        return AgeBake.of(WALL, STANDING, 0.15, 0, false, () -> new SceneSight(scene));
    }

    @Test
    void soMuchOfTheWallIsCoveredAsIsAskedFor() {
        // rays straight at each side that meet a leaf before it; leaves lean over edges and onto each other: within 8
        // points
        for (double cover : new double[] {0.25, 0.6, 0.95}) {
            RenderScene.Builder b = new RenderScene.Builder(Kernel.Kind.SCALAR);
            leaves.all()
                    .subList(0, leaves.count(cover))
                    .forEach(l -> b.add(Leaves.BLADE, l.toWorld(), List.of(Surface.STANDARD)));
            SceneSight sight = new SceneSight(b.build());
            double met = 0;
            for (int axis = 0; axis < 3; axis++) {
                for (int way = -1; way <= 1; way += 2) {
                    met += met(sight, axis, way) * AREAS[axis] / 9.6;
                }
            }
            assertThat(met).as("cover " + cover).isCloseTo(cover, within(0.08));
        }
    }

    /** The share of rays straight at one side that meet a leaf. */
    private static double met(SceneSight sight, int axis, int way) {
        Vec3 out = Vec3.axis(axis).times(way);
        Vec3 u = Vec3.axis((axis + 1) % 3);
        Vec3 v = Vec3.axis((axis + 2) % 3);
        double[] half = {1, 1, 0.1};
        int met = 0;
        for (int i = 0; i < 2500; i++) {
            int row = i / 50;
            Vec3 at = new Vec3(0, 1, 0)
                    .plus(out.times(half[axis] + 1))
                    .plus(u.times(half[(axis + 1) % 3] * ((i % 50 + 0.5) / 25 - 1)))
                    .plus(v.times(half[(axis + 2) % 3] * ((row + 0.5) / 25 - 1)));
            met += sight.distance(at, out.times(-1), 1) < 1 ? 1 : 0;
        }
        return met / 2500.0;
    }

    @Test
    void theyStandOnTheWallHangDownAndStartNearTheGround() {
        int n = leaves.all().size();
        int hanging = 0;
        for (Leaves.Leaf l : leaves.all()) {
            double outside = Math.max(
                    Math.max(Math.abs(l.at().x()) - 1, Math.abs(l.at().y() - 1) - 1), Math.abs(l.at().z()) - 0.1);
            assertThat(outside).isBetween(-1e-9, 0.36 * SIZE);
            assertThat(l.along().dot(l.face())).isCloseTo(0, within(1e-9));
            assertThat(l.toWorld().determinant()).isPositive();
            hanging += l.along().y() < -0.3 ? 1 : 0;
        }
        assertThat(hanging).isGreaterThan(n * 7 / 10);
        assertThat(heightOf(0, n / 10)).isLessThan(heightOf(9 * n / 10, n) - 0.2);
        assertThat(leaves.count(0)).isZero();
        assertThat(leaves.count(1)).isEqualTo(n);
    }

    private static double heightOf(int from, int to) {
        return leaves.all().subList(from, to).stream()
                .mapToDouble(l -> l.at().y())
                .average()
                .orElseThrow();
    }
}

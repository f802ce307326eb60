package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.AreaLamp;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class SidesTest {
    /** Several meshes as one. */
    private static Mesh joined(List<Mesh> meshes) {
        List<Integer> left = new ArrayList<>();
        int vertices = meshes.stream().mapToInt(Mesh::vertexCount).sum();
        float[] p = new float[3 * vertices];
        float[] n = new float[3 * vertices];
        int at = 0;
        for (Mesh m : meshes) {
            System.arraycopy(m.positions(), 0, p, 3 * at, 3 * m.vertexCount());
            System.arraycopy(m.normals(), 0, n, 3 * at, 3 * m.vertexCount());
            for (int i : m.indices()) {
                left.add(at + i);
            }
            at += m.vertexCount();
        }
        int[] index = left.stream().mapToInt(Integer::intValue).toArray();
        return new Mesh(p, n, null, null, index, new int[] {0, index.length / 3}, null);
    }

    private static Mesh ball(double radius, double x) {
        Mesh m = AreaLamp.sphere(radius);
        float[] p = m.positions().clone();
        for (int i = 0; i < p.length; i += 3) {
            p[i] += (float) x;
        }
        return new Mesh(p, m.normals(), null, null, m.indices(), m.spanStarts(), null);
    }

    /** Some triangles turned by hand, their normals left as they were, and one in a hundred taken away. */
    private static Mesh messed(Mesh mesh, Random random, boolean holes) {
        List<Integer> index = new ArrayList<>();
        for (int t = 0; t < mesh.triangleCount(); t++) {
            boolean turned = random.nextInt(3) == 0;
            if (holes && random.nextInt(100) == 0) {
                continue;
            }
            index.add(mesh.indices()[3 * t]);
            index.add(mesh.indices()[3 * t + (turned ? 2 : 1)]);
            index.add(mesh.indices()[3 * t + (turned ? 1 : 2)]);
        }
        int[] corners = index.stream().mapToInt(Integer::intValue).toArray();
        return new Mesh(mesh.positions(), mesh.normals(), null, null, corners, new int[] {0, corners.length / 3}, null);
    }

    /** Twenty times two balls, one of them hollow, with a third of the triangles turned: each faces where it should. */
    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void messyShellsAreMadeToFaceOutward(boolean holes) {
        for (int seed = 0; seed < 20; seed++) {
            Random random = new Random(seed);
            Mesh outer = messed(ball(0.5, 0), random, holes);
            Mesh hollow = Sides.flip(ball(0.3, 0));
            Mesh beside = messed(ball(0.2, 2), random, holes);
            Mesh made = Sides.unify(joined(List.of(outer, hollow, beside)), 1).orElseThrow();
            int first = outer.triangleCount();
            int second = first + hollow.triangleCount();
            for (int t = 0; t < made.triangleCount(); t++) {
                Vec3 a = made.position(made.indices()[3 * t]);
                Vec3 b = made.position(made.indices()[3 * t + 1]);
                Vec3 c = made.position(made.indices()[3 * t + 2]);
                Vec3 middle = a.plus(b).plus(c).times(1.0 / 3).minus(new Vec3(t < second ? 0 : 2, 0, 0));
                double outward = b.minus(a).cross(c.minus(a)).dot(middle);
                assertThat(Math.signum(outward))
                        .as("triangle %s of seed %s", t, seed)
                        .isEqualTo(t >= first && t < second ? -1 : 1);
            }
        }
    }

    /** Turned triangles take the normals of their corners with them, and leave those of their neighbours. */
    @Test
    void aFlippedMeshIsItsOwnOppositeAndFlippedTwiceItself() {
        Mesh ball = ball(0.5, 0);
        Mesh flipped = Sides.flip(ball);
        assertThat(volume(flipped)).isCloseTo(-volume(ball), within(1e-12));
        assertThat(Sides.unify(ball, 1)).isEmpty();
        Mesh back = Sides.unify(flipped, 1).orElseThrow();
        for (int i = 0; i < ball.indices().length; i++) {
            Vec3 expected = ball.position(ball.indices()[i]);
            assertThat(back.position(back.indices()[i])).isEqualTo(expected);
            assertThat(back.normal(back.indices()[i]).dot(expected)).isPositive();
        }
    }

    private static double volume(Mesh mesh) {
        double six = 0;
        for (int i = 0; i < mesh.indices().length; i += 3) {
            Vec3 a = mesh.position(mesh.indices()[i]);
            six += a.dot(mesh.position(mesh.indices()[i + 1]).cross(mesh.position(mesh.indices()[i + 2])));
        }
        return six / 6;
    }
}

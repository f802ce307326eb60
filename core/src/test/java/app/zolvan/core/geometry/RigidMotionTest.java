package app.zolvan.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class RigidMotionTest {
    /** Without a symmetry. */
    private static final Mesh HOOK = Solids.sweep(
                    Solids.curve(Solids.profile(0, 0, 0.4, 0.1, 0.5, 0.6, 0.1, 0.8), 5).stream()
                            .map(p -> new Vec3(p[0], p[1], p[0] * p[1]))
                            .toList(),
                    Solids.disc(0.03, 7),
                    Vec3.axis(2),
                    false)
            .toMesh(0.5);

    private static Mesh moved(Mesh m, Transform t) {
        float[] positions = new float[m.positions().length];
        float[] normals = new float[positions.length];
        for (int v = 0; v < m.vertexCount(); v++) {
            for (int k = 0; k < 3; k++) {
                positions[3 * v + k] = (float) t.point(m.position(v)).get(k);
                normals[3 * v + k] = (float) t.normal(m.normal(v)).normalised().get(k);
            }
        }
        return new Mesh(positions, normals, m.uv(), m.metricUv(), m.indices(), m.spanStarts(), m.faces());
    }

    @Property(tries = 200)
    void theMotionOfACopyIsFound(
            @ForAll @DoubleRange(min = -3, max = 3) double angle,
            @ForAll @DoubleRange(min = -1, max = 1) double lean,
            @ForAll @DoubleRange(min = -5, max = 5) double away) {
        Transform motion = Transform.translation(away, -away / 2, 0.3)
                .after(Transform.rotation(new Vec3(lean, 1, 0.4).normalised(), angle));
        Mesh copy = moved(HOOK, motion);
        assertThat(RigidMotion.kinship(copy)).isEqualTo(RigidMotion.kinship(HOOK));
        assertThat(RigidMotion.between(HOOK, copy)).hasValueSatisfying(found -> {
            for (int v = 0; v < HOOK.vertexCount(); v++) {
                Vec3 there = copy.position(v);
                assertThat(found.point(HOOK.position(v)).minus(there).length()).isLessThan(1e-5 * (1 + Math.abs(away)));
            }
            assertThat(found.determinant()).isBetween(0.9999, 1.0001);
        });
    }

    @Test
    void whatIsLargerMirroredOrBentIsNoCopy() {
        Transform turned = Transform.rotation(new Vec3(1, 2, 2).normalised(), 1);
        assertThat(RigidMotion.between(HOOK, moved(HOOK, turned.after(Transform.scale(1.001, 1.001, 1.001)))))
                .isEmpty();
        assertThat(RigidMotion.between(HOOK, moved(HOOK, turned.after(Transform.scale(-1, 1, 1)))))
                .isEmpty();
        Mesh bent = moved(HOOK, turned);
        bent.positions()[3 * (bent.vertexCount() / 2)] += 0.001f;
        assertThat(RigidMotion.between(HOOK, bent)).isEmpty();
    }

    @Test
    void aCopyWithOtherColoursOrOnALineAloneIsNotMoved() {
        Mesh copy = moved(HOOK, Transform.translation(1, 0, 0));
        byte[] painted = new byte[4 * HOOK.vertexCount()];
        Arrays.fill(painted, (byte) 9);
        Mesh other = new Mesh(
                copy.positions(), copy.normals(), null, null, copy.indices(), copy.spanStarts(), null, null, painted);
        assertThat(RigidMotion.between(HOOK, other)).isEmpty();
        float[] line = {0, 0, 0, 1, 0, 0, 2, 0, 0};
        float[] further = {0, 1, 0, 1, 1, 0, 2, 1, 0};
        int[] corners = {0, 1, 2};
        int[] all = {0, 1};
        Mesh one = new Mesh(line, new float[9], null, null, corners, all, null);
        assertThat(RigidMotion.between(one, new Mesh(further, new float[9], null, null, corners, all, null)))
                .isEmpty();
    }
}

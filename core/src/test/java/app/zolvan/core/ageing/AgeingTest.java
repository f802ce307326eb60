package app.zolvan.core.ageing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.mapping.Atlas;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.Metal;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.scene.SceneSight;
import app.zolvan.core.render.surface.SurfaceValues;
import app.zolvan.core.render.trace.Kernel;
import java.util.List;
import org.junit.jupiter.api.Test;

/** A block of 0.4 m on the ground, beside a wall or in the open. */
class AgeingTest {
    private static final int WEATHERING = 0;
    private static final int GROWTH = 1;
    private static final int WEAR = 2;
    private static final int DUST = 3;
    private static final Mesh BLOCK =
            Preparation.again(Cubes.box(0.4, 0.4, 0.4), Transform.IDENTITY).mesh();
    private static final Transform STANDING = Transform.translation(0, 0.2, 0);

    private static AgeFields baked(boolean corrodes, boolean walled) {
        RenderScene.Builder b =
                new RenderScene.Builder(Kernel.Kind.SCALAR).add(BLOCK, STANDING, List.of(Surface.STANDARD));
        if (walled) { // 5 cm before the side that looks along x
            b.add(Cubes.box(0.1, 2, 2), Transform.translation(0.3, 1, 0), List.of(Surface.STANDARD));
        }
        RenderScene scene = b.build();
        return AgeBake.of(BLOCK, STANDING, 0.13, 0, corrodes, () -> new SceneSight(scene));
    }

    /** The mean resistance of the triangles that look some way, where a condition on the place within the block holds. */
    private static double mean(AgeFields f, int what, double nx, double ny, double nz, Where where) {
        double[] four = new double[4];
        double sum = 0;
        int n = 0;
        for (int t = 0; t < BLOCK.triangleCount(); t++) {
            int v = BLOCK.indices()[3 * t];
            float[] normals = BLOCK.normals();
            if (nx * normals[3 * v] + ny * normals[3 * v + 1] + nz * normals[3 * v + 2] < 0.9) {
                continue;
            }
            for (int i = 0; i < 400; i++) {
                double a = (i % 20 + 0.5) / 20;
                int row = i / 20;
                double b = (row + 0.5) / 20;
                if (a + b > 1) {
                    continue;
                }
                double k = 1 - a - b;
                double[] p = new double[3];
                for (int c = 0; c < 3; c++) {
                    p[c] = k * at(t, 0, c) + a * at(t, 1, c) + b * at(t, 2, c);
                }
                if (where.holds(p[0], p[1], p[2])) {
                    float[] uv = f.atlas().uv();
                    f.at(
                            k * uv[6 * t] + a * uv[6 * t + 2] + b * uv[6 * t + 4],
                            k * uv[6 * t + 1] + a * uv[6 * t + 3] + b * uv[6 * t + 5],
                            four);
                    sum += four[what];
                    n++;
                }
            }
        }
        assertThat(n).isPositive();
        return sum / n;
    }

    private interface Where {
        boolean holds(double x, double y, double z);
    }

    private static double at(int t, int corner, int axis) {
        return BLOCK.positions()[3 * BLOCK.indices()[3 * t + corner] + axis];
    }

    private static boolean inside(double a, double b) {
        return Math.abs(a) < 0.17 && Math.abs(b) < 0.17;
    }

    @Test
    void eachWayStartsWhereItWouldInLife() {
        AgeFields open = baked(false, false);
        AgeFields walled = baked(false, true);
        Where middle = (x, y, z) -> (inside(x, z) || inside(x, y)) || inside(y, z);
        // dust lies on top
        assertThat(mean(open, DUST, 0, 1, 0, middle)).isLessThan(mean(open, DUST, 1, 0, 0, middle) - 0.3);
        // growth climbs from the ground
        assertThat(mean(open, GROWTH, 0, 0, 1, (x, y, z) -> y < -0.1))
                .isLessThan(mean(open, GROWTH, 0, 0, 1, (x, y, z) -> y > 0.1) - 0.01);
        // and likes a hollow, where less of the sky weathers it
        assertThat(mean(walled, GROWTH, 1, 0, 0, middle)).isLessThan(mean(open, GROWTH, 1, 0, 0, middle) - 0.1);
        assertThat(mean(walled, WEATHERING, 1, 0, 0, middle))
                .isGreaterThan(mean(open, WEATHERING, 1, 0, 0, middle) + 0.1);
        // what looks up weathers first, what looks down last
        assertThat(mean(open, WEATHERING, 0, 1, 0, middle)).isLessThan(mean(open, WEATHERING, 1, 0, 0, middle));
        assertThat(mean(open, WEATHERING, 0, -1, 0, middle)).isGreaterThan(mean(open, WEATHERING, 1, 0, 0, middle));
        // edges wear; the middle of a face never does
        assertThat(mean(open, WEAR, 0, 1, 0, (x, y, z) -> Math.abs(x) > 0.196 || Math.abs(z) > 0.196))
                .isLessThan(0.9);
        assertThat(mean(open, WEAR, 0, 1, 0, (x, y, z) -> inside(x, z))).isGreaterThan(1.15);
    }

    @Test
    void theSameBlockAgesTheSameEachTimeAndEachPlaceHasItsOwnTexels() {
        AgeFields one = baked(true, true);
        assertThat(baked(true, true).resistances()).isEqualTo(one.resistances());
        Atlas a = one.atlas();
        // six squares of 0.4 m: no triangle lies on another's texels, and texels are as wide as told
        boolean[] taken = new boolean[a.width() * a.height()];
        double area = 0;
        for (int t = 0; t < BLOCK.triangleCount(); t++) {
            double x0 = a.uv()[6 * t] * a.width();
            double y0 = a.uv()[6 * t + 1] * a.height();
            double ax = a.uv()[6 * t + 2] * a.width() - x0;
            double ay = a.uv()[6 * t + 3] * a.height() - y0;
            double bx = a.uv()[6 * t + 4] * a.width() - x0;
            double by = a.uv()[6 * t + 5] * a.height() - y0;
            assertThat(ax * by - bx * ay).isNegative(); // v runs downwards, so that anticlockwise turns round
            area -= (ax * by - bx * ay) / 2;
            int mx = (int) (x0 + (ax + bx) / 3);
            int my = (int) (y0 + (ay + by) / 3);
            assertThat(taken[my * a.width() + mx]).isFalse();
            taken[my * a.width() + mx] = true;
        }
        assertThat(area * a.texel() * a.texel()).isCloseTo(6 * 0.16, within(1e-3));
    }

    @Test
    void coverGrowsWithTheAmountFromNothingToAll() {
        Ageing.Layer half = new Ageing.Layer(0.5, 0.2, 0, 0, LinearRgb.BLACK, 0, 1, 0);
        assertThat(half.cover(0.3)).isEqualTo(1);
        assertThat(half.cover(0.5)).isCloseTo(0.5, within(1e-12));
        assertThat(half.cover(0.61)).isZero();
        assertThat(new Ageing.Layer(1, 0.2, 0, 0, LinearRgb.BLACK, 0, 1, 0).cover(Ageing.NEVER))
                .isZero();
        assertThat(new Ageing.Layer(0, 0.2, 0, 0, LinearRgb.BLACK, 0, 1, 0).cover(0))
                .isZero();
    }

    @Test
    void metalsTurnToWhatTheirKindTurnsTo() {
        Surface bare = Surface.STANDARD.with(Parameter.BASE_METALNESS, 1).with(Parameter.AGE_WEATHERING, 1);
        assertThat(corroded(Metal.IRON.on(bare)))
                .satisfies(c -> assertThat(c.baseR).isGreaterThan(2 * c.baseB));
        assertThat(corroded(Metal.COPPER.on(bare)))
                .satisfies(c -> assertThat(c.baseG).isGreaterThan(c.baseR));
        assertThat(corroded(Metal.COPPER.on(bare)).metalness).isZero();
        SurfaceValues gold = corroded(Metal.GOLD.on(bare));
        assertThat(gold.metalness).isEqualTo(1);
        assertThat(gold.baseR).isEqualTo(SurfaceValues.of(Metal.GOLD.on(bare)).baseR);
    }

    private static SurfaceValues corroded(Surface s) {
        SurfaceValues v = SurfaceValues.of(s);
        v.age(Ageing.of(s), new double[4]);
        return v;
    }
}

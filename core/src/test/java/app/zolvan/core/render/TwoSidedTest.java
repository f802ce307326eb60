package app.zolvan.core.render;

import static app.zolvan.core.render.Sheets.DARK;
import static app.zolvan.core.render.Sheets.MATT;
import static app.zolvan.core.render.Sheets.centre;
import static app.zolvan.core.render.Sheets.eye;
import static app.zolvan.core.render.Sheets.glowing;
import static app.zolvan.core.render.Sheets.sheet;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.prepare.OuterFaces;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.scene.Dress;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.scene.SceneSight;
import app.zolvan.core.render.trace.Kernel.Kind;
import java.util.BitSet;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Surfaces that show one thing on their fronts and another on their backs, or nothing on one of them. */
class TwoSidedTest {
    private static final Environment EVEN = Environment.uniform(1, 1, 1);
    private static final Surface DIM = MATT.with(Parameter.BASE_COLOR, 0.2, 0.2, 0.2);
    private static final Camera ABOVE = eye(new Vec3(0.4, 3, 0.3), Vec3.ZERO, 1);
    private static final Camera BELOW = eye(new Vec3(0.4, -3, 0.3), Vec3.ZERO, 1);
    private static final Transform MIRRORED = Transform.scale(-1, 1, 1);

    private static RenderScene.Builder scene() {
        return new RenderScene.Builder(Kind.SCALAR);
    }

    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void eachSideShowsItsOwn(boolean mirrored) {
        RenderScene scene = scene().addDressed(
                        sheet(1, 0, true),
                        mirrored ? MIRRORED : Transform.IDENTITY,
                        List.of(Dress.of(MATT).behind(Dress.of(DIM))))
                .build();
        assertThat(centre(scene, EVEN, ABOVE, 64)[1]).isCloseTo(0.5, within(0.01));
        assertThat(centre(scene, EVEN, BELOW, 64)[1]).isCloseTo(0.2, within(0.01));
    }

    /** A large lamp one metre above a floor lights it with π·L·(its share of the sky), from its glowing side alone. */
    @ParameterizedTest
    @ValueSource(booleans = {false, true})
    void onlyTheSideThatGlowsLights(boolean mirrored) {
        for (boolean down : new boolean[] {true, false}) {
            Dress dark = Dress.of(DIM);
            Dress lamp = Dress.of(glowing(1000));
            RenderScene scene = scene().add(sheet(50, -1, true), Transform.IDENTITY, List.of(MATT))
                    .addDressed(
                            sheet(0.05, 0, true),
                            mirrored ? MIRRORED : Transform.IDENTITY,
                            List.of(down ? dark.behind(lamp) : lamp.behind(dark)))
                    .build();
            Camera aside = eye(new Vec3(2, 1, 0), new Vec3(0, -1, 0), 0.5);
            double lux = centre(scene, DARK, aside, 64)[1] * 1000 * Math.PI / 0.5;
            assertThat(lux).isCloseTo(down ? 1000 * 0.01 : 0, within(0.1)); // L·A/d², seen straight
        }
    }

    /** A room of sheets under a roof that is a slab, or a sheet that faces up or down. */
    @ParameterizedTest
    @ValueSource(strings = {"slab", "up", "down"})
    void aRoofIsLookedThroughFromAboveAndSolidFromWithin(String kind) {
        TriangleSoup walls = new TriangleSoup();
        box(walls, -1, 0, false);
        Mesh room = walls.toMesh(0.1);
        TriangleSoup slab = new TriangleSoup();
        box(slab, 0.01, 0.2, true);
        Mesh roof = kind.equals("slab") ? slab.toMesh(0.1) : sheet(1, 0.1, kind.equals("up"));
        RenderScene rest = scene().add(room, Transform.IDENTITY, List.of(MATT)).build();
        BitSet outer = OuterFaces.of(roof, Transform.IDENTITY, () -> new SceneSight(rest), new Vec3(0, -0.5, 0), 100);
        for (int t = 0; t < roof.triangleCount(); t++) {
            int i = roof.indices()[3 * t];
            double up = roof.normals()[3 * i + 1];
            if (Math.abs(up) > 0.9) {
                assertThat(outer.get(t)).as("triangle " + t + ", normal " + up).isEqualTo(up > 0);
            }
        }
        RenderScene scene = scene().add(room, Transform.IDENTITY, List.of(glow(3)))
                .addDressed(roof, Transform.IDENTITY, Collections.nCopies(roof.spanCount(), Dress.of(glow(7))), outer)
                .build();
        assertThat(centre(scene, DARK, ABOVE, 1)[1]).as("the floor").isCloseTo(3, within(1e-6));
        Camera within = eye(new Vec3(0.2, -0.9, 0.1), new Vec3(0, 0.1, 0), 1);
        assertThat(centre(scene, DARK, within, 1)[1]).as("the ceiling").isCloseTo(7, within(1e-6));
    }

    /** What it hides from an eye it still hides from the light. */
    @Test
    void whatIsLookedThroughStillShades() {
        BitSet outer = new BitSet();
        outer.set(0, 2);
        RenderScene scene = scene().add(sheet(1, -0.5, true), Transform.IDENTITY, List.of(MATT))
                .addDressed(sheet(50, 0, true), Transform.IDENTITY, List.of(Dress.of(DIM)), outer)
                .build();
        assertThat(centre(scene, EVEN, ABOVE, 16)[1]).isLessThan(0.05);
    }

    private static Surface glow(double radiance) {
        return glowing(1000 * radiance);
    }

    /** A box from one height to another, outward; or a room without a ceiling, inward. */
    private static void box(TriangleSoup to, double y0, double y1, boolean closed) {
        Vec3[] low = {new Vec3(-1, y0, -1), new Vec3(-1, y0, 1), new Vec3(1, y0, 1), new Vec3(1, y0, -1)};
        Vec3 rise = new Vec3(0, y1 - y0, 0);
        for (int i = 0; i < 4; i++) {
            Vec3 a = low[i];
            Vec3 b = low[(i + 1) % 4];
            if (closed) {
                to.quad(a, b, b.plus(rise), a.plus(rise));
            } else {
                to.quad(b, a, a.plus(rise), b.plus(rise));
            }
        }
        if (closed) {
            to.quad(low[3], low[2], low[1], low[0]);
            to.quad(low[0].plus(rise), low[1].plus(rise), low[2].plus(rise), low[3].plus(rise));
        } else {
            to.quad(low[0], low[1], low[2], low[3]);
        }
    }
}

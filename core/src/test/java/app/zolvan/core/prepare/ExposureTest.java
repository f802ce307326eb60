package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.geometry.FilledSpace;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.scene.SceneSight;
import app.zolvan.core.render.trace.Kernel;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.junit.jupiter.api.Test;

/** needs.md P32: of a build-up, what one can come to see. */
class ExposureTest {
    private static final double STRETCH = 0.05;

    private record Placed(Mesh mesh, Transform at, boolean closed) {
        Placed(Mesh mesh, double x) {
            this(mesh, Transform.translation(x, 0, 0), true);
        }
    }

    /** The open share of each part's first span. */
    private static List<Double> shares(List<Placed> parts) {
        RenderScene.Builder all = new RenderScene.Builder(Kernel.Kind.SCALAR);
        List<FilledSpace.Body> bodies = new ArrayList<>();
        for (Placed p : parts) {
            all.add(p.mesh, p.at, Collections.nCopies(p.mesh.spanCount(), Surface.STANDARD));
            if (p.closed) {
                bodies.add(new FilledSpace.Body(p.mesh, p.at));
            }
        }
        SceneSight sight = new SceneSight(all.build());
        FilledSpace filled = new FilledSpace(bodies);
        List<Double> out = new ArrayList<>();
        parts.forEach(p -> out.add(Exposure.of(p.mesh, p.at, p.closed, sight, filled, STRETCH)[0]));
        return out;
    }

    /** Plaster, brick, insulation and render, touching, in a wall of 4 by 2.5 m: what is within shows its rims alone. */
    @Test
    void ofAWallTheOuterLayersAreSeen() {
        double[] thickness = {0.015, 0.24, 0.14, 0.02};
        List<Placed> layers = new ArrayList<>();
        double x = 0;
        for (double t : thickness) {
            layers.add(new Placed(Cubes.box(t, 2.5, 4), x + t / 2));
            x += t;
        }
        List<Double> shares = shares(layers);
        for (int i = 0; i < 4; i++) {
            double face = 2.5 * 4;
            double rim = 2 * thickness[i] * (2.5 + 4);
            boolean outer = i == 0 || i == 3;
            assertThat(shares.get(i)).isCloseTo(((outer ? face : 0) + rim) / (2 * face + rim), within(0.04));
        }
    }

    @Test
    void aBodyWithinAnotherIsNotSeenAndOneTurnedInsideOutIs() {
        Placed shell = new Placed(Cubes.box(1, 1, 1), 0);
        Placed core = new Placed(Cubes.box(0.3, 0.3, 0.3), 0);
        Placed beside = new Placed(Cubes.box(0.3, 0.3, 0.3).turnedOver(), 2);
        assertThat(shares(List.of(shell, core, beside))).containsExactly(1.0, 0.0, 1.0);
    }

    @Test
    void aSheetIsSeenUnlessThereIsSomethingCloseOnBothSides() {
        TriangleSoup soup = new TriangleSoup();
        soup.quad(new Vec3(0, -1, -1), new Vec3(0, 1, -1), new Vec3(0, 1, 1), new Vec3(0, -1, 1));
        Placed sheet = new Placed(soup.toMesh(0.1), Transform.translation(0.505, 0, 0), false);
        Placed one = new Placed(Cubes.box(1, 4, 4), 0);
        assertThat(shares(List.of(sheet, one)).get(0)).as("5 mm off a wall").isEqualTo(1);
        Placed other = new Placed(Cubes.box(1, 4, 4), 1.01);
        assertThat(shares(List.of(sheet, one, other)).get(0))
                .as("in a gap of 10 mm")
                .isZero();
    }
}

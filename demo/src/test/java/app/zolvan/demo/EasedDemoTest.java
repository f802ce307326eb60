package app.zolvan.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshMeasure;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.model.Model;
import app.zolvan.core.prepare.EasedEdges;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Every part of both demo models, eased a little and far too much: each stays the shape that it is. */
class EasedDemoTest {
    @ParameterizedTest
    @ValueSource(doubles = {0.0005, 0.003, 0.02})
    void noShapeChanges(double width) {
        int eased = 0;
        double full = 0;
        for (Model model : new Model[] {DemoFiles.floatingSauna(), DemoFiles.stormLantern()}) {
            for (Model.Part part : model.parts()) {
                Mesh mesh = model.meshOf(part);
                double scale = model.partToWorld(part).meanScale();
                EasedEdges.Outcome o = EasedEdges.of(mesh, width / scale).orElse(null);
                if (o == null) {
                    continue;
                }
                eased++;
                full += o.full();
                MeshMeasure before = MeshMeasure.of(mesh, Topology.of(mesh), Transform.IDENTITY);
                MeshMeasure after = MeshMeasure.of(o.mesh(), Topology.of(o.mesh()), Transform.IDENTITY);
                assertThat(after.closed()).as("%s", part.name()).isEqualTo(before.closed());
                assertThat(after.area())
                        .as("area of %s", part.name())
                        .isCloseTo(before.area(), within(0.01 * before.area()));
                assertThat(after.volume())
                        .as("volume of %s", part.name())
                        .isCloseTo(before.volume(), within(0.02 * before.volume()));
            }
        }
        System.out.printf(
                "width %.4f m: %d parts eased, on average %.0f %% in full%n", width, eased, 100 * full / eased);
        assertThat(eased).isGreaterThan(40);
    }
}

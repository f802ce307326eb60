package app.zolvan.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class PreparationTest {

    @Test
    void aMeshShownAtTwoSizesGetsCoordinatesForEachAndCopiesShareOne() {
        Preparation p = Preparation.of(
                cubes(
                        Transform.IDENTITY,
                        Transform.translation(5, 0, 0).after(Transform.rotation(Vec3.axis(1), 0.7)),
                        Transform.scale(2, 2, 2)),
                share -> {});
        List<Model.Part> parts = p.model().parts();
        assertThat(parts.get(0).mesh()).isEqualTo(parts.get(1).mesh());
        assertThat(parts.get(2).mesh()).isNotEqualTo(parts.get(0).mesh());
        assertThat(span(p.model(), 0)).isCloseTo(1, within(1e-6));
        assertThat(span(p.model(), 2)).as("in world metres").isCloseTo(2, within(1e-6));
    }

    @Test
    void roundingInTheHierarchyDoesNotSplitWhatWasOneSize() {
        double angle = 0.1;
        Transform turned = Transform.IDENTITY;
        for (int i = 0; i < 50; i++) {
            turned = Transform.rotation(new Vec3(1, 2, 3).normalised(), angle).after(turned);
        }
        assertThat(Preparation.of(cubes(Transform.IDENTITY, turned), share -> {})
                        .model()
                        .meshes())
                .hasSize(1);
    }

    @Test
    void aMirroredPartHasTheVolumeOfItsOriginal() {
        Preparation p = Preparation.of(cubes(Transform.scale(-1, 1, 1)), share -> {});
        assertThat(p.measures().get(0).volume()).isCloseTo(1, within(1e-9));
        assertThat(p.measures().get(0).closed()).isTrue();
    }

    @Test
    void facesAreNumberedAndProgressReachesTheEnd() {
        List<Double> told = new ArrayList<>();
        Preparation p = Preparation.of(cubes(Transform.IDENTITY, Transform.IDENTITY), told::add);
        assertThat(p.model().meshes().get(0).faceCount()).isEqualTo(6);
        assertThat(told).containsExactly(0.5, 1.0);
    }

    private static double span(Model model, int part) {
        float[] uv = model.meshOf(model.parts().get(part)).metricUv();
        double lo = Double.MAX_VALUE;
        double hi = -Double.MAX_VALUE;
        for (int i = 0; i < uv.length; i += 2) {
            lo = Math.min(lo, uv[i]);
            hi = Math.max(hi, uv[i]);
        }
        return hi - lo;
    }

    private static Model cubes(Transform... places) {
        List<Model.Part> parts = new ArrayList<>();
        for (Transform t : places) {
            parts.add(new Model.Part(Model.NONE, "Cube", t, 0, List.of(Model.NONE)));
        }
        return new Model(List.of(), parts, List.of(Cubes.box(1, 1, 1)), List.of(), Map.of(), List.of());
    }
}

package app.zolvan.core.context;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshMeasure;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Excerpt;
import app.zolvan.core.model.Model;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;

class PlacingTest {
    private static final double TOLERANCE = 1e-9;
    private static final Box3 DESIGN = new Box3(new Vec3(1, 2, 3), new Vec3(3, 5, 4));

    private static void assertNear(Vec3 actual, Vec3 expected) {
        assertThat(actual.minus(expected).length())
                .as("%s is %s", actual, expected)
                .isLessThan(TOLERANCE);
    }

    @Test
    void theFootStandsOnThePointWhateverTurnAndSize() {
        Vec3 foot = Placement.footOf(DESIGN);
        assertNear(foot, new Vec3(2, 2, 3.5));
        Vec3 at = new Vec3(-7, 0.5, 9);
        Transform t = new Placement(at, new Vec3(20, 130, -40), 2.5).transform(foot);
        assertNear(t.point(foot), at);
        assertThat(t.meanScale()).isCloseTo(2.5, within(TOLERANCE));
        Transform upright = new Placement(at, new Vec3(0, 90, 0), 1).transform(foot);
        assertNear(upright.point(foot.plus(Vec3.axis(0))), at.minus(Vec3.axis(2)));
        assertThat(new Placement(at, Vec3.ZERO, 0).isWithinReach()).isFalse();
        assertThat(new Placement(new Vec3(Double.NaN, 0, 0), Vec3.ZERO, 1).isWithinReach())
                .isFalse();
    }

    @Test
    void copiesStandInALineAndAroundAnAxis() {
        Vec3 foot = new Vec3(1, 0, 0);
        List<Transform> line = Repeating.line(3, new Vec3(0.5, 0, 0.25));
        assertNear(line.get(2).point(foot), new Vec3(2.5, 0, 0.75));
        List<Transform> ring = Repeating.around(3, Vec3.ZERO, 360);
        assertNear(ring.get(0).point(foot), new Vec3(0, 0, -1)); // a quarter each: the last is not on the first
        assertNear(ring.get(2).point(foot), new Vec3(0, 0, 1));
        List<Transform> half = Repeating.around(2, Vec3.ZERO, 180);
        assertNear(half.get(1).point(foot), new Vec3(-1, 0, 0));
    }

    @Test
    void copiesAreSpreadOverWhatLooksUp() {
        TriangleSoup soup = new TriangleSoup()
                .quad(new Vec3(0, 1, 4), new Vec3(4, 1, 4), new Vec3(4, 1, 0), new Vec3(0, 1, 0))
                .quad(new Vec3(0, 0, 0), new Vec3(4, 0, 0), new Vec3(4, 0, 4), new Vec3(0, 0, 4))
                .quad(new Vec3(0, 0, 4), new Vec3(4, 0, 4), new Vec3(4, 1, 4), new Vec3(0, 1, 4));
        List<Resting.Body> block = List.of(new Resting.Body(soup.toMesh(0.1), Transform.IDENTITY));
        Vec3 foot = new Vec3(0.1, 1, 0.1);
        List<Transform> copies = Repeating.over(12, block, 0.6, foot, 3);
        assertThat(copies).hasSize(12).isEqualTo(Repeating.over(12, block, 0.6, foot, 3));
        List<Vec3> places = copies.stream().map(t -> t.point(foot)).toList();
        for (int i = 0; i < places.size(); i++) {
            assertThat(places.get(i).y()).as("on the side that looks up").isCloseTo(1, within(TOLERANCE));
            assertThat(places.get(i).minus(foot).length()).isGreaterThanOrEqualTo(0.6);
            for (int j = 0; j < i; j++) {
                assertThat(places.get(i).minus(places.get(j)).length()).isGreaterThanOrEqualTo(0.6);
            }
        }
        assertThat(Repeating.over(500, block, 1.5, foot, 3))
                .as("as many as have room")
                .hasSizeBetween(4, 10);
    }

    @Test
    void helperFormsStandByTheDesignAndLookTheRightWay() {
        for (HelperForm form : HelperForm.values()) {
            Model model = form.model(DESIGN);
            Transform place = form.place(DESIGN).transform(Placement.footOf(model.bounds()));
            Box3 box = Box3.EMPTY;
            for (Model.Part p : model.parts()) {
                box = box.with(model.meshOf(p).bounds(place.after(model.partToWorld(p))));
            }
            assertThat(box.min().y()).as("%s", form).isCloseTo(2, within(2e-4)); // on the level of the design
            switch (form) {
                case GROUND, BACKDROP -> {
                    assertThat(box.min().x()).isLessThan(-1);
                    assertThat(box.max().z()).isGreaterThan(6);
                    assertThat(box.min().y()).as("under it").isLessThan(2);
                }
                case TILE -> assertThat(box.min().x()).isGreaterThan(3);
                case STRIPES -> {
                    assertThat(box.max().z()).as("behind it").isLessThan(3);
                    assertThat(box.size().y()).isGreaterThan(3);
                    double area = model.parts().stream()
                            .mapToDouble(p -> model.meshOf(p).area())
                            .sum();
                    assertThat(area).isCloseTo(box.size().x() * box.size().y(), within(1e-5));
                }
                case STOOL, CHAIR, TABLE, BOWL, PLANT, TREE, DOG ->
                    assertThat(box.min().x()).as("%s, beside it", form).isGreaterThan(3);
            }
        }
        Model tile = HelperForm.TILE.model(DESIGN);
        assertThat(MeshMeasure.of(
                                tile.meshes().get(0), Topology.of(tile.meshes().get(0)), Transform.IDENTITY)
                        .closed())
                .isTrue();
        Model ground = HelperForm.GROUND.model(DESIGN);
        assertThat(ground.meshes().get(0).normals()[1]).as("up").isEqualTo(1);
        assertThat(HelperForm.STRIPES.model(DESIGN).meshes().get(0).normals()[2])
                .as("to the front")
                .isEqualTo(1);
    }

    /** needs.md P26: what gives scale has its own size, whatever the design's is. */
    @Test
    void readyThingsHaveTheSizesOfThings() {
        Map<HelperForm, double[]> heights = Map.of(
                HelperForm.STOOL, new double[] {0.449, 0.451},
                HelperForm.CHAIR, new double[] {0.81, 0.83},
                HelperForm.TABLE, new double[] {0.739, 0.741},
                HelperForm.DOG, new double[] {0.7, 0.8},
                HelperForm.BOWL, new double[] {0.089, 0.091},
                HelperForm.PLANT, new double[] {0.45, 0.75},
                HelperForm.TREE, new double[] {4.5, 6});
        Box3 tiny = new Box3(Vec3.ZERO, new Vec3(0.1, 0.1, 0.1));
        heights.forEach((form, height) -> {
            Box3 box = form.model(tiny).bounds();
            assertThat(box.size().y()).as("%s", form).isBetween(height[0], height[1]);
            assertThat(box.min().y())
                    .as("%s stands", form)
                    .isCloseTo(0, within(form == HelperForm.TREE ? 0.03 : 0.001));
            assertThat(box).isEqualTo(form.model(DESIGN).bounds());
        });
        for (HelperForm form :
                List.of(HelperForm.STOOL, HelperForm.CHAIR, HelperForm.TABLE, HelperForm.BOWL, HelperForm.DOG)) {
            for (Mesh m : form.model(tiny).meshes()) {
                MeshMeasure measure = MeshMeasure.of(m, Topology.of(m), Transform.IDENTITY);
                assertThat(measure.closed()).as("%s", form).isTrue();
                assertThat(m.signedVolume()).as("outward").isPositive();
            }
        }
    }

    @Test
    void anExcerptLeavesOutWhatGroupsHold() {
        Model whole = new Model(
                List.of(
                        new Model.Group(Model.NONE, "a", Transform.IDENTITY),
                        new Model.Group(Model.NONE, "b", Transform.translation(1, 0, 0)),
                        new Model.Group(1, "c", Transform.IDENTITY),
                        new Model.Group(0, "d", Transform.translation(0, 3, 0))),
                List.of(
                        new Model.Part(2, "in c", Transform.IDENTITY, 0, List.of(0)),
                        new Model.Part(3, "in d", Transform.IDENTITY, 0, List.of(0)),
                        new Model.Part(Model.NONE, "free", Transform.IDENTITY, 0, List.of(0))),
                HelperForm.GROUND.model(DESIGN).meshes(),
                List.of(),
                Map.of(),
                List.of());
        Excerpt e = Excerpt.without(whole, Set.of(1));
        assertThat(e.parts()).containsExactly(1, 2);
        assertThat(e.model().groups()).extracting(Model.Group::name).containsExactly("a", "d");
        assertThat(e.model().partToWorld(e.model().parts().get(0))).isEqualTo(Transform.translation(0, 3, 0));
    }
}

package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.DistinctColours;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** Telling apart, and finding again, what arrived in one matching set. */
class MatchingSetsTest {
    private final List<Model.Part> parts = new ArrayList<>();
    private final List<Mesh> meshes = new ArrayList<>();

    private int add(String name, Mesh mesh, Transform t, int set) {
        meshes.add(Preparation.withFaces(mesh, Topology.of(mesh)));
        parts.add(new Model.Part(Model.NONE, name, t, meshes.size() - 1, List.of(set)));
        return parts.size() - 1;
    }

    private Model model() {
        return new Model(List.of(), parts, meshes, List.of(), Map.of(), List.of());
    }

    private static Transform anywhere(Random random) {
        Vec3 axis = new Vec3(random.nextGaussian(), random.nextGaussian(), random.nextGaussian()).normalised();
        Transform turn = Transform.rotation(axis, 6 * random.nextDouble());
        return Transform.translation(9 * random.nextDouble(), 9 * random.nextDouble(), 9)
                .after(turn);
    }

    /** A rectangle a × b spreads by a/√12 and b/√12 along its sides and not at all across them. */
    @Test
    void aSignatureIsTheSameWhereverAShapeStandsAndInAMirror() {
        TriangleSoup soup = new TriangleSoup();
        soup.quad(new Vec3(0, 0, 0), new Vec3(2, 0, 0), new Vec3(2, 0, 0.5), new Vec3(0, 0, 0.5));
        ShapeSignature sheet = ShapeSignature.of(soup.toMesh(0.1), Transform.translation(7, 8, 9));
        assertThat(sheet.area()).isCloseTo(1, within(1e-9));
        assertThat(sheet.least()).isCloseTo(0, within(1e-7));
        assertThat(sheet.middle()).isCloseTo(0.5 / Math.sqrt(12), within(1e-7));
        assertThat(sheet.most()).isCloseTo(2 / Math.sqrt(12), within(1e-7));
        assertThat(sheet.centre().minus(new Vec3(8, 8, 9.25)).length()).isLessThan(1e-6);
        assertThat(Math.abs(sheet.along().x())).isCloseTo(1, within(1e-9));
        Random random = new Random(5);
        Mesh box = Cubes.box(0.4, 0.7, 1.1);
        ShapeSignature here = ShapeSignature.of(box, Transform.IDENTITY);
        for (int i = 0; i < 40; i++) {
            Transform t = anywhere(random).after(Transform.scale(i % 2 == 0 ? 1 : -1, 1, 1));
            assertThat(ShapeSignature.of(box, t).isLike(here)).isTrue();
        }
        assertThat(ShapeSignature.of(box, Transform.scale(1, 1.01, 1)).isLike(here))
                .isFalse();
    }

    /** needs.md P06: one material on floor, walls and underside becomes three sets, by where the surface faces. */
    @Test
    void aBoxSplitByDirectionGivesItsTopItsUndersideAndItsSides() {
        int part = add("Room", Cubes.box(2, 1, 3), Transform.IDENTITY, 7);
        Model model = model();
        Splitting split = Splitting.of(model, List.of(new Model.Region(part, 0)), Splitting.By.DIRECTION);
        assertThat(split.kinds())
                .extracting(Splitting.Kind::name)
                .containsExactlyInAnyOrder("upright", "facing up", "facing down");
        assertThat(split.kinds().get(0).name()).isEqualTo("upright");
        assertThat(split.kinds().get(0).area()).isCloseTo(10, within(1e-6));
        assertThat(split.kinds().get(1).area()).isCloseTo(6, within(1e-6));
        Mesh mesh = split.apply(model.meshOf(parts.get(part)), part);
        assertThat(mesh.spanCount()).isEqualTo(3);
        assertThat(Topology.of(mesh).isClosed()).as("nothing is cut").isTrue();
        assertThat(mesh.area()).isCloseTo(22, within(1e-5));
        Set<Integer> seen = new HashSet<>();
        for (int s = 0; s < 3; s++) {
            int[] starts = mesh.spanStarts();
            Set<Integer> faces = new HashSet<>();
            IntStream.range(starts[s], starts[s + 1]).forEach(t -> faces.add(mesh.faces()[t]));
            assertThat(seen).as("each face lies in one span").doesNotContainAnyElementsOf(faces);
            seen.addAll(faces);
        }
        assertThat(seen).hasSize(6);
    }

    /** Pieces of one shape stay together, whether they lie in one part or in several. */
    @Test
    void aSetSplitByPiecesKeepsEqualPiecesTogether() {
        TriangleSoup two = new TriangleSoup();
        Cubes.addTo(two, 0.2, 0.3, 0.4, false);
        Cubes.addTo(two, 5, 6, 7, false);
        Random random = new Random(3);
        int a = add("Both", two.toMesh(0.1), Transform.IDENTITY, 1);
        int b = add("Small", Cubes.box(0.3, 0.4, 0.2), anywhere(random), 1);
        Splitting split =
                Splitting.of(model(), List.of(new Model.Region(a, 0), new Model.Region(b, 0)), Splitting.By.PIECE);
        assertThat(split.kinds()).extracting(Splitting.Kind::pieces).containsExactly(1, 2);
        assertThat(split.kindsIn(new Model.Region(a, 0))).containsExactly(0, 1);
        assertThat(split.kindsIn(new Model.Region(b, 0))).containsExactly(1);
        assertThat(Arrays.stream(split.kindOf().get(new Model.Region(a, 0))).filter(k -> k == 1))
                .hasSize(12);
    }

    @Test
    void partsAreFoundThatAreLikeOneOfThem() {
        Mesh board = Cubes.box(2, 0.02, 0.1);
        int first = add("Board", board, Transform.IDENTITY, 0);
        int turned = add("Board", board, Transform.rotation(Vec3.axis(1), 1.2), 0);
        int beside = add("Batten", Cubes.box(2, 0.05, 0.05), Transform.translation(0, 1, 0), 1);
        int panel = add("Panel", Cubes.box(1, 1, 0.02), Transform.IDENTITY, 1);
        List<Role> roles = Arrays.asList(Role.FLOOR, null, Role.FLOOR, null);
        Map<Similar.By, List<Integer>> like = Similar.to(model(), roles, first);
        assertThat(like.get(Similar.By.SHAPE)).containsExactly(first, turned);
        assertThat(like.get(Similar.By.SIZE)).containsExactly(first, turned);
        assertThat(like.get(Similar.By.DIRECTION)).containsExactly(first, beside);
        assertThat(like.get(Similar.By.SET)).containsExactly(first, turned);
        assertThat(like.get(Similar.By.ROLE)).containsExactly(first, beside);
        assertThat(Similar.to(model(), roles, panel)).doesNotContainKey(Similar.By.ROLE);
        assertThat(Similar.to(model(), roles, panel).get(Similar.By.DIRECTION)).containsExactly(panel);
    }

    @Test
    void sharesOfAllSetsMakeTheWhole() {
        add("One", Cubes.box(1, 1, 1), Transform.scale(2, 1, 1), 0);
        add("Two", Cubes.box(1, 2, 3), Transform.IDENTITY, 4);
        Map<Integer, Coverage> all = Coverage.of(model());
        assertThat(all.get(0).area()).isCloseTo(10, within(1e-6));
        assertThat(all.get(4).area()).isCloseTo(22, within(1e-6));
        assertThat(all.values().stream().mapToDouble(Coverage::share).sum()).isCloseTo(1, within(1e-12));
    }

    /** needs.md P10: ΔE2000 of 20 and more is a difference nobody overlooks; even all of them differ by several. */
    @Test
    void coloursForTellingThingsApartDoSo() {
        assertThat(nearest(8)).isGreaterThan(20);
        assertThat(nearest(DistinctColours.COUNT)).isGreaterThan(6);
        int large = add("Large", Cubes.box(9, 9, 9), Transform.IDENTITY, 1);
        int small = add("Small", Cubes.box(1, 1, 1), Transform.IDENTITY, 0);
        int copy = add("Copy", Cubes.box(1, 1, 1), Transform.translation(3, 0, 0), 1);
        Map<String, PlainColours.Mark> marks = PlainColours.marks(Map.of("brass", 1.0, "oak", 7.0, "ash", 1.0));
        assertThat(marks.get("oak")).isEqualTo(new PlainColours.Mark(DistinctColours.get(0), 0));
        assertThat(marks.get("brass")).isEqualTo(new PlainColours.Mark(DistinctColours.get(2), 2));
        assertThat(PlainColours.bySet(model()).get(large)).isEqualTo(DistinctColours.get(0));
        assertThat(PlainColours.bySet(model()).get(copy)).isEqualTo(DistinctColours.get(0));
        assertThat(PlainColours.byShape(model()).get(copy))
                .isEqualTo(PlainColours.byShape(model()).get(small))
                .isEqualTo(DistinctColours.get(1));
    }

    private static double nearest(int count) {
        double least = Double.POSITIVE_INFINITY;
        for (int i = 0; i < count; i++) {
            for (int j = 0; j < i; j++) {
                least = Math.min(
                        least, CieLab.of(DistinctColours.get(i)).difference(CieLab.of(DistinctColours.get(j))));
            }
        }
        return least;
    }

    @Test
    void tidyNamesKeepThoseThatSaySomethingAndNumberEqualShapesInARow() {
        Mesh board = Cubes.box(2, 0.02, 0.1);
        add("Solid 12 copy", board, Transform.IDENTITY, Model.NONE);
        add("mesh_7", Cubes.box(1, 1, 0.9), Transform.IDENTITY, Model.NONE);
        add("Solid 13 copy", board, Transform.translation(0, 0, 1), Model.NONE);
        add("Floor 01", Cubes.box(3, 1, 0.9), Transform.IDENTITY, Model.NONE);
        add("node", Cubes.box(1.1, 1, 0.9), Transform.IDENTITY, Model.NONE);
        List<Role> roles = Arrays.asList(Role.FLOOR, Role.FLOOR, Role.FLOOR, Role.FLOOR, null);
        assertThat(TidyNames.propose(model(), roles))
                .extracting(TidyNames.Proposal::part, TidyNames.Proposal::name)
                .containsExactly(tuple(4, "Block"), tuple(0, "Floor 02"), tuple(2, "Floor 03"), tuple(1, "Floor 04"));
    }
}

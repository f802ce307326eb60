package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.LengthText;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.model.SourceImage;
import app.zolvan.core.snag.Snag;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ModelInspectionTest {
    private final List<Model.Part> parts = new ArrayList<>();
    private final List<Mesh> meshes = new ArrayList<>();
    private final List<Model.Group> groups = new ArrayList<>();

    private int add(String name, Mesh mesh, double x, double y, double z) {
        meshes.add(mesh);
        parts.add(new Model.Part(
                Model.NONE, name, Transform.translation(x, y, z), meshes.size() - 1, List.of(Model.NONE)));
        return parts.size() - 1;
    }

    private List<Snag> findings() {
        Model model = new Model(groups, parts, meshes, List.of(), Map.of(), List.of());
        return ModelInspection.of(Preparation.of(model, share -> {}), share -> {}).stream()
                .filter(f -> f.kind() != ModelSnag.NO_COORDINATES)
                .toList();
    }

    private static Mesh mesh(TriangleSoup soup) {
        return soup.toMesh(Math.toRadians(30));
    }

    /** A box from 0, with a face less for each side left out: 2 · axis, and 1 more for the far one. */
    private static TriangleSoup box(double x, double y, double z, Integer... without) {
        TriangleSoup soup = new TriangleSoup();
        for (int side = 0; side < 6; side++) {
            if (Arrays.asList(without).contains(side)) {
                continue;
            }
            int axis = side / 2;
            Vec3 n = Vec3.axis(axis).times(side % 2 == 0 ? -1 : 1);
            Vec3 u = Vec3.axis((axis + 1) % 3);
            Vec3 v = n.cross(u);
            Vec3[] c = new Vec3[4];
            for (int i = 0; i < 4; i++) {
                Vec3 p = n.plus(u.times(i == 0 || i == 3 ? -1 : 1)).plus(v.times(i < 2 ? -1 : 1));
                c[i] = new Vec3((p.x() + 1) * x / 2, (p.y() + 1) * y / 2, (p.z() + 1) * z / 2);
            }
            soup.quad(c[0], c[1], c[2], c[3]);
        }
        return soup;
    }

    private static TriangleSoup rod(double radius, double length, int sides) {
        TriangleSoup soup = new TriangleSoup();
        for (int i = 0; i < sides; i++) {
            Vec3 a = rim(radius, 0, i, sides);
            Vec3 b = rim(radius, 0, i + 1, sides);
            Vec3 c = rim(radius, length, i + 1, sides);
            Vec3 d = rim(radius, length, i, sides);
            soup.quad(b, a, d, c).triangle(a, b, Vec3.ZERO).triangle(c, d, new Vec3(0, length, 0));
        }
        return soup;
    }

    private static Vec3 rim(double radius, double y, int i, int sides) {
        double angle = 2 * Math.PI * (i % sides) / sides;
        return new Vec3(radius * Math.cos(angle), y, radius * Math.sin(angle));
    }

    /** A tidy table: legs under a top, a pin in a hole of another fineness, a sheet, and a hollow body. */
    private void table() {
        add("Top", mesh(box(1.2, 0.03, 0.6)), 0, 0.7, 0);
        for (int i = 0; i < 4; i++) {
            add("Leg " + (i + 1), mesh(box(0.05, 0.7, 0.05)), i % 2 * 1.15, 0, i < 2 ? 0 : 0.55);
        }
        add(
                "Cloth",
                mesh(new TriangleSoup()
                        .quad(new Vec3(0, 0, 0), new Vec3(0, 0, 0.4), new Vec3(0.8, 0, 0.4), new Vec3(0.8, 0, 0))),
                0.2,
                0.735,
                0.1);
        TriangleSoup vessel =
                box(0.2, 0.2, 0.2).add(box(0.18, 0.18, 0.18).reversed(), Transform.translation(0.01, 0.01, 0.01));
        add("Vessel", mesh(vessel), 2, 0, 0);
        add("Pin", mesh(rod(0.02, 0.1, 24)), 3, 0, 0);
        TriangleSoup sleeve = new TriangleSoup();
        for (int i = 0; i < 32; i++) { // a tube whose wall the pin just touches
            Vec3[] c = new Vec3[8];
            for (int k = 0; k < 8; k++) {
                c[k] = rim(k < 4 ? 0.02 : 0.03, k % 4 < 2 ? 0.02 : 0.08, i + k % 2, 32);
            }
            sleeve.quad(c[0], c[1], c[3], c[2]).quad(c[5], c[4], c[6], c[7]);
            sleeve.quad(c[1], c[0], c[4], c[5]).quad(c[2], c[3], c[7], c[6]);
        }
        add("Sleeve", mesh(sleeve), 3, 0, 0);
    }

    @Test
    void aTidyModelHasNothingToTell() {
        table();
        assertThat(findings()).isEmpty();
    }

    /** Each kind of defect once, at places drawn by seed among tidy boxes: all are found, and nothing else is. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5})
    void everyPlantedDefectIsFoundAndNothingElse(long seed) {
        Random random = new Random(seed);
        List<ModelSnag> planted = new ArrayList<>();
        List<List<Integer>> where = new ArrayList<>();
        List<ModelSnag> kinds = new ArrayList<>(List.of(
                ModelSnag.OPEN,
                ModelSnag.NON_MANIFOLD,
                ModelSnag.FLIPPED,
                ModelSnag.FLIPPED,
                ModelSnag.DUPLICATE,
                ModelSnag.DEGENERATE,
                ModelSnag.COINCIDENT,
                ModelSnag.POKING,
                ModelSnag.GAP));
        Collections.shuffle(kinds, random);
        for (int i = 0; i < 30; i++) {
            double x = 1.5 * (i % 6);
            double z = 1.5 * Math.floorDiv(i, 6);
            double w = 0.2 + random.nextDouble();
            double h = 0.2 + random.nextDouble();
            double d = 0.2 + random.nextDouble();
            if (i % 3 != 0 || i / 3 >= kinds.size()) {
                add("Box " + i, mesh(box(w, h, d)), x, 0, z);
                continue;
            }
            ModelSnag kind = kinds.get(i / 3);
            int at = parts.size();
            planted.add(kind);
            where.add(
                    plant(kind, w, h, d, x, z, planted.indexOf(kind) < planted.size() - 1)
                            ? List.of(at, at + 1)
                            : List.of(at));
        }
        List<Snag> found = findings();
        List<String> expected = new ArrayList<>();
        for (int i = 0; i < planted.size(); i++) {
            expected.add(planted.get(i) + " " + where.get(i));
        }
        assertThat(found.stream().map(f -> f.kind() + " " + f.parts())).containsExactlyInAnyOrderElementsOf(expected);
        for (Snag f : found) {
            int i = expected.indexOf(f.kind() + " " + f.parts());
            assertThat(f.place().isEmpty()).isFalse();
            assertThat(f.place()
                            .min()
                            .minus(new Vec3(1.5 * ((3 * i) % 6), 0, 1.5 * Math.floorDiv(3 * i, 6)))
                            .length())
                    .as(f.says())
                    .isLessThan(2.5);
        }
    }

    /** Returns whether it took two parts. */
    private boolean plant(ModelSnag kind, double w, double h, double d, double x, double z, boolean second) {
        Mesh tidy = mesh(box(w, h, d));
        switch (kind) {
            case OPEN ->
                add("Open", mesh(box(w, h, d, w > d && w > h ? 1 : h > d ? 3 : 5)), x, 0, z); // its smallest face
            case NON_MANIFOLD ->
                add(
                        "Finned",
                        mesh(box(w, h, d)
                                .triangle(new Vec3(0, h, 0), new Vec3(w, h, 0), new Vec3(w / 2, h + 0.1, -0.1))),
                        x,
                        0,
                        z);
            case FLIPPED ->
                add(
                        second ? "Inside out" : "Turned",
                        second ? mesh(box(w, h, d).reversed()) : withFirstFlipped(tidy),
                        x,
                        0,
                        z);
            case DUPLICATE ->
                add("Doubled", withIndices(tidy, tidy.indices()[3], tidy.indices()[4], tidy.indices()[5]), x, 0, z);
            case DEGENERATE ->
                add("Flat", withIndices(tidy, tidy.indices()[0], tidy.indices()[0], tidy.indices()[1]), x, 0, z);
            case COINCIDENT -> {
                add("Pane", tidy, x, 0, z);
                add("Pane again", mesh(box(w, h / 2, d)), x, 0, z);
                return true;
            }
            case POKING -> {
                add("Screw", mesh(rod(0.01, h + 0.054, 12)), x + w / 2, -0.05, z + d / 2);
                add("Seat", tidy, x, 0, z);
                return true;
            }
            default -> {
                add("Lower", tidy, x, 0, z);
                add("Upper", mesh(box(w, 0.1, d)), x, h + 0.0004, z);
                return true;
            }
        }
        return false;
    }

    private static Mesh withFirstFlipped(Mesh m) {
        int[] index = m.indices().clone();
        int keep = index[0];
        index[0] = index[1];
        index[1] = keep;
        return new Mesh(m.positions(), m.normals(), null, null, index, m.spanStarts(), null);
    }

    private static Mesh withIndices(Mesh m, int a, int b, int c) {
        int[] index = Arrays.copyOf(m.indices(), m.indices().length + 3);
        index[index.length - 3] = a;
        index[index.length - 2] = b;
        index[index.length - 1] = c;
        return new Mesh(m.positions(), m.normals(), null, null, index, new int[] {0, index.length / 3}, null);
    }

    /** A bolt sunk into a seat holds it, and so does one that goes through; only a tip that looks out is told, and how far. */
    @ParameterizedTest
    @CsvSource({"-0.030, 0", "0.0035, 3.5", "0.010, 10", "0.030, 0"})
    void aTipThatLooksOutIsMeasured(double out, double millimetres) {
        add("Bolt", mesh(rod(0.01, 0.1, 16)), 0.2, -0.06 + out, 0.2);
        add("Seat", mesh(box(0.4, 0.04, 0.4)), 0, 0, 0);
        List<Snag> found = findings();
        if (millimetres == 0) {
            assertThat(found).isEmpty();
            return;
        }
        assertThat(found).hasSize(1);
        assertThat(found.get(0).parts()).containsExactly(0, 1);
        assertThat(1000 * found.get(0).amount()).isCloseTo(millimetres, within(0.01));
        assertThat(LengthText.read(found.get(0).says(), LengthUnit.MM))
                .startsWith("“Bolt” pokes ")
                .endsWith(" mm out of “Seat”.");
    }

    /** What all but a corner of is hidden looks out, too. */
    @Test
    void aHiddenBodyWhoseCornerShowsPokesThrough() {
        add("Housing", mesh(box(0.3, 0.3, 0.3)), 0, 0, 0);
        add("Insert", mesh(box(0.1, 0.1, 0.1)), 0.1, 0.202, 0.1);
        assertThat(findings())
                .extracting(f -> LengthText.read(f.says(), LengthUnit.IN))
                .containsExactly("“Insert” pokes 0.079 in out of “Housing”.");
    }

    @Test
    void theGapAndTheLengthOfOpenEdgesAreMeasured() {
        add("Lower", mesh(box(0.3, 0.1, 0.2)), 0, 0, 0);
        add("Upper", mesh(box(0.3, 0.1, 0.2)), 0, 0.1003, 0);
        add("Open", mesh(box(0.5, 0.25, 0.125, 1)), 2, 0, 0);
        List<Snag> found = findings();
        assertThat(found).extracting(Snag::kind).containsExactly(ModelSnag.OPEN, ModelSnag.GAP);
        assertThat(found.get(0).amount()).isCloseTo(2 * (0.25 + 0.125), within(1e-6));
        assertThat(found.get(0).count()).isEqualTo(4);
        assertThat(found.get(1).amount()).isCloseTo(0.0003, within(1e-6));
    }

    @Test
    void partsFarAwayEmptyGroupsAndNamesWithoutMeaningAreTold() {
        table();
        groups.add(new Model.Group(Model.NONE, "Spare", Transform.IDENTITY));
        groups.add(new Model.Group(0, "Spare, inner", Transform.IDENTITY));
        add("Mesh_12", mesh(box(0.1, 0.1, 0.1)), 500, 0, 0);
        List<Snag> found = findings();
        assertThat(found)
                .extracting(Snag::kind)
                .containsExactly(ModelSnag.STRAY, ModelSnag.EMPTY_GROUP, ModelSnag.NAMELESS);
        assertThat(found.get(1).count()).isEqualTo(2);
    }

    @Test
    void aModelFarFromTheOriginAndAnImageTooLargeAreTold() {
        add("Oak plank", mesh(box(2, 0.02, 0.2)), 300, 0, 400);
        SourceImage image = new SourceImage("oak.png", "image/png", 8192, 4096, new byte[0]);
        Model model = new Model(groups, parts, meshes, List.of(), Map.of("a", image), List.of());
        List<Snag> found = ModelInspection.of(Preparation.of(model, share -> {}), share -> {});
        assertThat(found)
                .extracting(Snag::kind)
                .containsExactly(ModelSnag.FAR_FROM_ORIGIN, ModelSnag.NO_COORDINATES, ModelSnag.OVERSIZE_IMAGE);
        assertThat(found.get(0).amount()).isCloseTo(Math.hypot(301, 400.1), within(0.1));
        assertThat(found.get(2).says()).isEqualTo("The image “oak.png” has 8,192 × 4,096 pixels.");
    }

    /** A hollow, a body within it, and a hole that is the wrong way round: by nesting. */
    @Test
    void hollowsFaceInwardAndWhatIsWithinThemOutward() {
        TriangleSoup good = box(1, 1, 1)
                .add(box(0.8, 0.8, 0.8).reversed(), Transform.translation(0.1, 0.1, 0.1))
                .add(box(0.6, 0.6, 0.6), Transform.translation(0.2, 0.2, 0.2));
        add("Nested", mesh(good), 0, 0, 0);
        assertThat(findings()).isEmpty();
        TriangleSoup bad = box(1, 1, 1)
                .add(box(0.8, 0.8, 0.8).reversed(), Transform.translation(0.1, 0.1, 0.1))
                .add(box(0.6, 0.6, 0.6).reversed(), Transform.translation(0.2, 0.2, 0.2));
        add("Wrong inside", mesh(bad), 5, 0, 0);
        assertThat(findings())
                .extracting(Snag::says)
                .containsExactly("12 triangles of “Wrong inside” face the wrong way.");
    }

    @ParameterizedTest
    @CsvSource({
        "Mesh_12, true", "Material #4, true", "mat_07.001, true", "Default, true", "12, true", "Color_A05, true",
        "e3b0c44298fc, true", "'', true", "Solid 12 copy, true", "Oak, false", "Leg 2, false", "Pane copy, false",
        "Glas_klar, false", "座面, false"
    })
    void aNameSaysNothingWhereItIsAGeneralWordOrANumber(String name, boolean nothing) {
        assertThat(Names.saysNothing(name)).isEqualTo(nothing);
    }
}

package app.zolvan.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.exchange.text.Numbers;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Repeats;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GeometryOfImportTest {

    @Property(tries = 2000)
    void everyNumberReadsAsTheJdkReadsIt(@ForAll double v) {
        if (Double.isFinite(v)) {
            byte[] text = Double.toString(v).getBytes(StandardCharsets.ISO_8859_1);
            assertThat(Numbers.parse(text, 0, text.length)).isEqualTo(v);
        }
    }

    /** Two triangles back to back in one smoothing group cancel out: their corners look the way the first one does. */
    @Test
    void aFanThatCancelsOutLooksLikeItsFirstTriangle() {
        float[] places = {0, 0, 0, 1, 0, 0, 0, 1, 0};
        CornerNormals made = CornerNormals.of(places, 3, new int[] {0, 1, 2, 0, 2, 1}, new int[] {1, 1}, 0.5);
        assertThat(made.vectors()).hasSizeLessThanOrEqualTo(18);
        for (int c = 0; c < 3; c++) {
            int at = 3 * made.fan()[c];
            assertThat(Arrays.copyOfRange(made.vectors(), at, at + 3)).containsExactly(0, 0, 1);
        }
        CornerNormals flat = CornerNormals.of(new float[9], 3, new int[] {0, 1, 2}, null, 0.5);
        assertThat(Arrays.copyOf(flat.vectors(), 3)).containsExactly(0, 1, 0); // no direction at all: up
    }

    @ParameterizedTest
    @CsvSource({
        "NaN, 2, a position",
        "Infinity, 2, a position",
        "1, 3, an index",
        "1, -1, an index",
        "1, 2147483647, an index"
    })
    void aMeshWithoutSenseIsRefused(float x, int index, String complaint) {
        float[] p = {0, 0, 0, x, 0, 0, 0, 1, 0};
        int[] corners = {0, 1, index};
        assertThatThrownBy(() -> new Mesh(p, new float[9], null, null, corners, new int[] {0, 1}, null))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageStartingWith(complaint);
    }

    @Property(tries = 200)
    void aStarShapedPolygonIsCoveredExactlyOnce(@ForAll long seed) {
        Random random = new Random(seed);
        int n = 4 + random.nextInt(40);
        double[] points = new double[3 * n];
        double area = 0;
        for (int i = 0; i < n; i++) {
            double r = 0.2 + random.nextDouble();
            points[3 * i] = r * Math.cos(2 * Math.PI * i / n);
            points[3 * i + 1] = r * Math.sin(2 * Math.PI * i / n);
        }
        for (int i = 0; i < n; i++) {
            int j = (i + 1) % n;
            area += (points[3 * i] * points[3 * j + 1] - points[3 * j] * points[3 * i + 1]) / 2;
        }
        int[] cut = PolygonTriangulation.of(points);
        double sum = 0;
        for (int t = 0; t < cut.length; t += 3) {
            double one = cross(points, cut[t], cut[t + 1], cut[t + 2]) / 2;
            assertThat(one).isGreaterThan(-1e-12); // never turned over
            sum += one;
        }
        assertThat(cut).hasSize(3 * (n - 2));
        assertThat(sum).isCloseTo(area, within(1e-9));
    }

    private static double cross(double[] p, int a, int b, int c) {
        return (p[3 * b] - p[3 * a]) * (p[3 * c + 1] - p[3 * a + 1])
                - (p[3 * b + 1] - p[3 * a + 1]) * (p[3 * c] - p[3 * a]);
    }

    @Property(tries = 100)
    void anInverseUndoesATransform(
            @ForAll @DoubleRange(min = -3, max = 3) double angle,
            @ForAll @DoubleRange(min = 0.1, max = 9) double size) {
        Transform t = Transform.translation(1, 2, 3)
                .after(Transform.rotation(new Vec3(1, 2, 2).normalised(), angle))
                .after(Transform.scale(size, -1, 2));
        double[] m = t.inverse().after(t).columns();
        double[] identity = Transform.IDENTITY.columns();
        for (int i = 0; i < 16; i++) {
            assertThat(m[i]).isCloseTo(identity[i], within(1e-9));
        }
    }

    @Test
    void aMirroredNormalStillPointsOutward() {
        Transform mirror = Transform.scale(-2, 1, 1);
        assertThat(mirror.normal(Vec3.axis(0)).x()).isEqualTo(-1);
        assertThat(mirror.normal(Vec3.axis(1)).y()).isEqualTo(1);
    }

    @Test
    void copiesMovedAndTurnedBecomeInstancesAndMirroredOnesDoNot() {
        Mesh one = cylinder(0.3, 1, 24);
        Transform motion =
                Transform.translation(5, 0, -2).after(Transform.rotation(new Vec3(1, 1, 0).normalised(), 1.1));
        Mesh copy = moved(one, motion);
        Mesh mirrored = moved(one, Transform.scale(-1, 1, 1));
        Mesh wider = cylinder(0.3003, 1, 24);
        Model model = new Model(
                List.of(),
                List.of(part(0), part(1), part(2), part(3)),
                List.of(one, copy, mirrored, wider),
                List.of(),
                Map.of(),
                List.of());
        Model joined = Repeats.joined(model);
        assertThat(joined.meshes()).hasSize(3);
        assertThat(joined.parts().get(1).mesh()).isEqualTo(0);
        for (int p = 0; p < 4; p++) { // nothing has moved
            Box3 before = model.boundsOf(model.parts().get(p));
            Box3 after = joined.boundsOf(joined.parts().get(p));
            assertThat(after.min().minus(before.min()).length()).isLessThan(1e-5);
            assertThat(after.max().minus(before.max()).length()).isLessThan(1e-5);
        }
    }

    @Test
    void aCopyIsFoundAmongHundredsOfShapesOfOneKind() {
        List<Mesh> boards = new ArrayList<>();
        List<Model.Part> parts = new ArrayList<>();
        for (int i = 0; i < 300; i++) { // 150 lengths, each twice
            boards.add(moved(cylinder(0.1, 1 + 0.01 * (i % 150), 12), Transform.translation(i, 0, 0)));
            parts.add(part(i));
        }
        Model joined = Repeats.joined(new Model(List.of(), parts, boards, List.of(), Map.of(), List.of()));
        assertThat(joined.meshes()).hasSize(150);
    }

    private static Model.Part part(int mesh) {
        return new Model.Part(Model.NONE, "p" + mesh, Transform.IDENTITY, mesh, List.of(Model.NONE));
    }

    @Test
    void aCylindersFacesAreOneRoundAndTwoPlanesAndAreFoundAgainElsewhere() {
        Mesh mesh = cylinder(0.25, 2, 48);
        mesh = mesh.withFaces(Topology.of(mesh).smoothFaces(Math.toRadians(30)));
        MeshFaces faces = MeshFaces.of(mesh);
        assertThat(faces.count()).isEqualTo(3);
        assertThat(faces.count(MeshFaces.Shape.PLANAR)).isEqualTo(2);
        assertThat(faces.count(MeshFaces.Shape.CYLINDRICAL)).isEqualTo(1);
        for (int f = 0; f < 3; f++) {
            if (faces.get(f).shape() == MeshFaces.Shape.CYLINDRICAL) {
                assertThat(faces.get(f).radius()).isCloseTo(0.25, within(1e-6));
            }
        }
        // the same body exported again with its triangles in another order
        int[] indices = mesh.indices().clone();
        int[] face = mesh.faces().clone();
        int n = face.length;
        for (int t = 0; t < n / 2; t++) {
            for (int k = 0; k < 3; k++) {
                int keep = indices[3 * t + k];
                indices[3 * t + k] = indices[3 * (n - 1 - t) + k];
                indices[3 * (n - 1 - t) + k] = keep;
            }
        }
        Mesh again = new Mesh(mesh.positions(), mesh.normals(), null, null, indices, new int[] {0, n}, null);
        again = again.withFaces(Topology.of(again).smoothFaces(Math.toRadians(30)));
        int[] match = faces.match(MeshFaces.of(again), 0.01);
        for (int t = 0; t < n; t++) {
            assertThat(match[again.faces()[t]]).isEqualTo(face[t < n / 2 || t >= (n + 1) / 2 ? n - 1 - t : t]);
        }
    }

    private static Mesh cylinder(double r, double h, int segments) {
        TriangleSoup soup = new TriangleSoup();
        Vec3 top = new Vec3(0, h, 0);
        for (int i = 0; i < segments; i++) {
            Vec3 a = rim(r, i, segments);
            Vec3 b = rim(r, i + 1, segments);
            soup.triangle(Vec3.ZERO, a, b).triangle(top, b.plus(top), a.plus(top));
            soup.quad(b, a, a.plus(top), b.plus(top));
        }
        return soup.toMesh(Math.toRadians(30));
    }

    private static Vec3 rim(double r, int i, int segments) {
        double a = 2 * Math.PI * (i % segments) / segments;
        return new Vec3(r * Math.cos(a), 0, r * Math.sin(a));
    }

    private static Mesh moved(Mesh m, Transform t) {
        float[] p = new float[m.positions().length];
        float[] n = new float[p.length];
        for (int v = 0; v < m.vertexCount(); v++) {
            Vec3 at = t.point(m.position(v));
            Vec3 normal = t.normal(m.normal(v));
            for (int k = 0; k < 3; k++) {
                p[3 * v + k] = (float) at.get(k);
                n[3 * v + k] = (float) normal.get(k);
            }
        }
        return new Mesh(p, n, null, null, m.indices(), m.spanStarts(), null);
    }

    @Test
    void placesWithinTheToleranceAreOne() {
        float[] p = {0, 0, 0, 1e-7f, 0, 0, 1, 0, 0, -0f, 0, 0, 1, 1e-5f, 0};
        assertThat(VertexWeld.exact(p, 5)).containsExactly(0, 1, 2, 0, 4);
        assertThat(VertexWeld.within(p, 5, 1e-6)).containsExactly(0, 0, 2, 0, 4);
        assertThat(VertexWeld.within(p, 5, 1e-4)).containsExactly(0, 0, 2, 0, 2);
    }
}

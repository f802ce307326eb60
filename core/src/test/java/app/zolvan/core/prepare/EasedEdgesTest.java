package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshMeasure;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

/** needs.md P28: hard edges look round without another shape. */
class EasedEdgesTest {
    private static final double CREASE = Math.toRadians(30);

    /** An outline in x and y drawn along z, closed. */
    private static Mesh prism(double depth, double[]... outline) {
        TriangleSoup soup = new TriangleSoup();
        int n = outline.length;
        for (int i = 0; i < n; i++) {
            double[] p = outline[i];
            double[] q = outline[(i + 1) % n];
            soup.quad(
                    new Vec3(p[0], p[1], 0),
                    new Vec3(p[0], p[1], -depth),
                    new Vec3(q[0], q[1], -depth),
                    new Vec3(q[0], q[1], 0));
        }
        for (int i = 1; i + 1 < n; i++) {
            soup.triangle(at(outline[0], 0), at(outline[i], 0), at(outline[i + 1], 0));
            soup.triangle(at(outline[0], -depth), at(outline[i + 1], -depth), at(outline[i], -depth));
        }
        return soup.toMesh(CREASE);
    }

    private static Vec3 at(double[] p, double z) {
        return new Vec3(p[0], p[1], z);
    }

    private static Mesh board(double x, double y, double z) {
        return prism(z, new double[] {0, 0}, new double[] {x, 0}, new double[] {x, y}, new double[] {0, y});
    }

    private static Mesh rod(double radius, double length) {
        double[][] outline = new double[48][];
        for (int i = 0; i < outline.length; i++) {
            double a = 2 * Math.PI * i / outline.length;
            outline[i] = new double[] {radius * Math.cos(a), radius * Math.sin(a)};
        }
        return prism(length, outline);
    }

    /** Two boards that meet at a right angle: an L, from its inner corner, so that a fan of triangles covers it. */
    private static Mesh angle() {
        return prism(
                0.3,
                new double[] {0, 0},
                new double[] {0, 0.5},
                new double[] {-0.1, 0.5},
                new double[] {-0.1, -0.1},
                new double[] {0.5, -0.1},
                new double[] {0.5, 0});
    }

    private static EasedEdges.Outcome eased(Mesh mesh, double width) {
        EasedEdges.Outcome o = EasedEdges.of(mesh, width).orElseThrow();
        MeshMeasure before = MeshMeasure.of(mesh, Topology.of(mesh), Transform.IDENTITY);
        MeshMeasure after = MeshMeasure.of(o.mesh(), Topology.of(o.mesh()), Transform.IDENTITY);
        assertThat(after.closed()).isTrue();
        assertThat(after.area()).isCloseTo(before.area(), within(1e-5 * before.area()));
        assertThat(after.volume()).isCloseTo(before.volume(), within(1e-5 * before.volume()));
        assertThat(o.mesh().bounds().min().minus(mesh.bounds().min()).length()).isLessThan(1e-9);
        return o;
    }

    /** What is seen of a surface at a point: the normal between its triangle's corners. */
    private static Vec3 normalAt(Mesh mesh, Vec3 p, Vec3 facing) {
        for (int t = 0; t < mesh.triangleCount(); t++) {
            int[] v = {mesh.indices()[3 * t], mesh.indices()[3 * t + 1], mesh.indices()[3 * t + 2]};
            Vec3 a = mesh.position(v[0]);
            Vec3 u = mesh.position(v[1]).minus(a);
            Vec3 w = mesh.position(v[2]).minus(a);
            Vec3 n = u.cross(w);
            Vec3 d = p.minus(a);
            double s = d.cross(w).dot(n) / n.dot(n);
            double r = u.cross(d).dot(n) / n.dot(n);
            if (Math.abs(d.dot(n.normalised())) < 1e-7
                    && s > -1e-7
                    && r > -1e-7
                    && s + r < 1 + 1e-7
                    && n.normalised().dot(facing) > 0.99) {
                return mesh.normal(v[0])
                        .times(1 - s - r)
                        .plus(mesh.normal(v[1]).times(s))
                        .plus(mesh.normal(v[2]).times(r))
                        .normalised();
            }
        }
        throw new AssertionError("no surface at " + p);
    }

    @Test
    void theNormalTurnsWithinTheStripAndNowhereElse() {
        double width = 0.002;
        Mesh mesh = eased(board(1, 0.1, 0.05), width).mesh();
        Vec3 up = Vec3.axis(1);
        Vec3 front = Vec3.axis(2);
        Vec3 between = up.plus(front).normalised();
        for (double x : new double[] {0.01, 0.3, 0.5, 0.98}) {
            assertThat(normalAt(mesh, new Vec3(x, 0.1, 0), up).dot(between))
                    .as("on the edge at %s", x)
                    .isCloseTo(1, within(1e-6));
            assertThat(normalAt(mesh, new Vec3(x, 0.1, -0.0021), up).dot(up)).isCloseTo(1, within(1e-6));
            double half = normalAt(mesh, new Vec3(x, 0.1, -0.001), up).dot(up);
            assertThat(Math.toDegrees(Math.acos(half))).as("half way, %s", x).isCloseTo(22.5, within(1.0));
            assertThat(normalAt(mesh, new Vec3(x, 0.099, 0), front).dot(front)).isCloseTo(half, within(1e-6));
        }
        Vec3 corner = normalAt(mesh, new Vec3(1, 0.1, 0), up);
        assertThat(corner.dot(new Vec3(1, 1, 1).normalised())).as("at a corner").isCloseTo(1, within(1e-6));
    }

    @Test
    void everyShapeStaysAsItIsAndClosed() {
        assertThat(eased(board(1, 0.1, 0.05), 0.002).full()).isEqualTo(1);
        EasedEdges.Outcome rod = eased(rod(0.02, 0.5), 0.001);
        assertThat(rod.full()).isEqualTo(1);
        assertThat(rod.mesh().triangleCount())
                .as("a strip on either side of both rims")
                .isEqualTo(48 * 2 + 2 * 46 + 48 * 8);
        eased(angle(), 0.005);
        EasedEdges.Outcome thin = eased(board(1, 0.1, 0.003), 0.002);
        assertThat(thin.full()).as("narrower than wanted on the thin sides").isCloseTo(0.5, within(0.01));
        eased(board(1, 1, 1), 5);
    }

    /** Inner edges stay sharp, and strips end in a point there. */
    @Test
    void innerEdgesStaySharp() {
        Mesh mesh = eased(angle(), 0.005).mesh();
        Vec3 right = Vec3.axis(0);
        assertThat(normalAt(mesh, new Vec3(0, 0, -0.15), right).dot(right)).isCloseTo(1, within(1e-6));
        assertThat(normalAt(mesh, new Vec3(0, 0.5, -0.15), right).dot(right)).isLessThan(0.8);
    }

    /** A strip's texture coordinates go on as the surface's do. */
    @Test
    void textureCoordinatesStayInPlace() {
        Mesh plain = board(0.4, 0.3, 0.2);
        float[] uv = new float[2 * plain.vertexCount()];
        for (int v = 0; v < plain.vertexCount(); v++) {
            uv[2 * v] = (float) (plain.position(v).x() * 3 + plain.position(v).z());
            uv[2 * v + 1] =
                    (float) (plain.position(v).y() * 2 - plain.position(v).z());
        }
        Mesh mesh = eased(
                        new Mesh(
                                plain.positions(),
                                plain.normals(),
                                uv,
                                null,
                                plain.indices(),
                                plain.spanStarts(),
                                plain.faces()),
                        0.01)
                .mesh();
        for (int v = 0; v < mesh.vertexCount(); v++) {
            Vec3 p = mesh.position(v);
            assertThat((double) mesh.uv()[2 * v]).isCloseTo(p.x() * 3 + p.z(), within(1e-5));
            assertThat((double) mesh.uv()[2 * v + 1]).isCloseTo(p.y() * 2 - p.z(), within(1e-5));
        }
    }

    @Test
    void whatIsRoundOrFlatHasNoEdges() {
        List<Mesh> none = new ArrayList<>();
        none.add(new TriangleSoup()
                .quad(Vec3.ZERO, Vec3.axis(0), new Vec3(1, 1, 0), Vec3.axis(1))
                .toMesh(CREASE));
        none.add(board(1, 1, 1)); // drawn round, whatever its triangles say
        Mesh cube = none.get(1);
        float[] round = new float[cube.normals().length];
        for (int v = 0; v < cube.vertexCount(); v++) {
            Vec3 n = cube.position(v).minus(new Vec3(0.5, 0.5, -0.5)).normalised();
            for (int k = 0; k < 3; k++) {
                round[3 * v + k] = (float) n.get(k);
            }
        }
        none.set(1, new Mesh(cube.positions(), round, null, null, cube.indices(), cube.spanStarts(), cube.faces()));
        none.forEach(m -> assertThat(EasedEdges.of(m, 0.01)).isEmpty());
    }

    /** Every point of a box that is rounded off lies as far from the box within as the rounding's radius, or on its faces. */
    @Test
    void aBoxIsRoundedOffToCylindersAndBalls() {
        double r = 0.02;
        Mesh box = board(0.4, 0.3, 0.2);
        Mesh round = EasedEdges.rounded(box, r).orElseThrow().mesh();
        MeshMeasure after = MeshMeasure.of(round, Topology.of(round), Transform.IDENTITY);
        assertThat(after.closed()).isTrue();
        Vec3 half = new Vec3(0.2 - r, 0.15 - r, 0.1 - r);
        for (int v = 0; v < round.vertexCount(); v++) {
            Vec3 p = round.position(v).minus(new Vec3(0.2, 0.15, -0.1));
            double square = 0;
            for (int k = 0; k < 3; k++) {
                square += Math.pow(Math.max(0, Math.abs(p.get(k)) - half.get(k)), 2);
            }
            assertThat(Math.sqrt(square)).isCloseTo(r, within(1e-6));
        }
        double cut = 0; // in two facets a quarter of a circle has r² sin 45°
        for (double length : new double[] {0.4, 0.3, 0.2}) {
            cut += 4 * (length - 2 * r) * r * r * (1 - Math.sin(Math.PI / 4));
        }
        double corners = 8 * r * r * r; // all of them, and what of a ball they keep at least and at most
        assertThat(after.volume())
                .isLessThan(0.4 * 0.3 * 0.2 - cut - (1 - Math.PI / 6) * corners)
                .isGreaterThan(0.4 * 0.3 * 0.2 - cut - 0.75 * corners);
    }

    /** An edge of 120° is drawn in by w (1/cos 60° − tan 60°); where an edge has to stay sharp, the rounding runs out. */
    @Test
    void obtuseEdgesAndInnerCornersKeepAClosedBody() {
        double[][] six = new double[6][];
        for (int i = 0; i < 6; i++) {
            six[i] = new double[] {0.1 * Math.cos(i * Math.PI / 3), 0.1 * Math.sin(i * Math.PI / 3)};
        }
        Mesh nut = EasedEdges.rounded(prism(0.2, six), 0.01).orElseThrow().mesh();
        double farthest = 0;
        for (int v = 0; v < nut.vertexCount(); v++) {
            Vec3 p = nut.position(v);
            farthest = Math.max(farthest, Math.hypot(p.x(), p.y()));
        }
        assertThat(farthest).isCloseTo(0.1 - 0.01 * (2 - Math.sqrt(3)), within(1e-6));
        for (Mesh m : List.of(
                nut,
                EasedEdges.rounded(angle(), 0.01).orElseThrow().mesh(),
                EasedEdges.rounded(rod(0.05, 0.2), 0.005).orElseThrow().mesh())) {
            assertThat(Topology.of(m).isClosed()).isTrue();
            assertThat(MeshMeasure.of(m, Topology.of(m), Transform.IDENTITY).volume())
                    .isPositive();
        }
    }

    /** Where there is no room for as much as was asked for, that is said; where there is no edge, too. */
    @Test
    void aRoundingThatIsLessIsTold() throws Repair.RefusedException {
        Vec3 one = new Vec3(1, 1, 1);
        Repair.Extent full = Repair.BEVEL
                .apply(board(0.4, 0.3, 0.2), one, 0.005)
                .orElseThrow()
                .extent();
        Repair.Extent thin = Repair.BEVEL
                .apply(board(0.4, 0.3, 0.006), one, 0.005)
                .orElseThrow()
                .extent();
        assertThat(Repair.BEVEL.sentence(List.of(full))).isEqualTo("Round off the edges of 1 part");
        assertThat(Repair.BEVEL.sentence(List.of(full, thin, Repair.Extent.NONE)))
                .isEqualTo("Round off the edges of 2 parts, in 1 of them partly by less for want of room");
        assertThat(Repair.BEVEL.sentence(List.of(Repair.Extent.NONE)))
                .isEqualTo("There is no sharp outer edge with room for it.");
        assertThatThrownBy(() -> Repair.BEVEL.apply(board(1, 1, 1), new Vec3(1, 2, 1), 0.005))
                .isInstanceOf(Repair.RefusedException.class);
        assertThat(Repair.BEVEL.requireAmount(0.021).orElseThrow()).contains("up to 20 mm");
    }
}

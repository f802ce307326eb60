package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshMeasure;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;

class RepairTest {
    private static final Vec3 ONE = new Vec3(1, 1, 1);

    private static Mesh repaired(Repair repair, Mesh mesh, double amount) throws Exception {
        return repair.apply(mesh, ONE, amount).orElseThrow().mesh();
    }

    private static double volume(Mesh mesh) {
        return MeshMeasure.of(mesh, Topology.of(mesh), Transform.IDENTITY).volume();
    }

    /** A ball of so many rings, all of whose corners lie on the radius. */
    private static TriangleSoup ball(int rings, double radius, Integer... without) {
        TriangleSoup soup = new TriangleSoup();
        for (int i = 0; i < rings; i++) {
            for (int j = 0; j < 2 * rings && !List.of(without).contains(i); j++) {
                Vec3 a = on(rings, radius, i, j);
                Vec3 b = on(rings, radius, i, j + 1);
                Vec3 c = on(rings, radius, i + 1, j + 1);
                Vec3 d = on(rings, radius, i + 1, j);
                if (i > 0 && i + 1 < rings) {
                    soup.quad(a, d, c, b);
                } else if (i == 0) {
                    soup.triangle(a, d, c);
                } else {
                    soup.triangle(a, c, b);
                }
            }
        }
        return soup;
    }

    private static Vec3 on(int rings, double radius, int i, int j) {
        double down = Math.PI * i / rings;
        double around = Math.PI * (j % (2 * rings)) / rings;
        return new Vec3(
                radius * Math.sin(down) * Math.cos(around),
                radius * Math.cos(down),
                -radius * Math.sin(down) * Math.sin(around));
    }

    /** needs.md P21: a box grows by 2d along each side; and back. */
    @Test
    void aBoxGrowsAndShrinksByJustTheDistanceOnEverySide() throws Exception {
        Mesh box = Cubes.box(0.3, 0.2, 0.1);
        Mesh grown = repaired(Repair.OFFSET, box, 0.005);
        Vec3 size = grown.bounds().size();
        assertThat(size.minus(new Vec3(0.31, 0.21, 0.11)).length()).isLessThan(1e-7);
        assertThat(volume(grown)).isCloseTo(0.31 * 0.21 * 0.11, within(1e-8));
        assertThat(volume(repaired(Repair.OFFSET, grown, -0.005))).isCloseTo(volume(box), within(1e-8));
        Mesh insideOut = Sides.flip(box);
        assertThat(volume(repaired(Repair.OFFSET, insideOut, 0.005)))
                .as("outward all the same")
                .isCloseTo(volume(grown), within(1e-8));
        assertThatThrownBy(() -> Repair.OFFSET.apply(box, new Vec3(1, 1, 1.01), 0.005))
                .hasMessageContaining("stretched more along one axis");
        assertThat(Repair.OFFSET
                        .apply(box, new Vec3(0.001, 0.001, 0.001), 0.005)
                        .orElseThrow()
                        .mesh()
                        .bounds()
                        .size()
                        .x())
                .as("5 mm are 5 units of a mesh in millimetres")
                .isCloseTo(10.3, within(1e-5));
        Mesh ball = ball(24, 1).toMesh(0.1);
        assertThat(Topology.of(ball).isClosed()).isTrue();
        Mesh larger = repaired(Repair.OFFSET, ball, 0.1);
        double ratio = Math.cbrt(volume(larger) / volume(ball));
        assertThat(ratio)
                .as("a ball grows by the distance, less or more by how coarsely it is cut")
                .isCloseTo(1.1, within(1e-3));
    }

    @Test
    void aSurfaceThatWouldPassThroughItselfOrHasHolesIsRefusedWithASentence() {
        assertThatThrownBy(() -> repaired(Repair.OFFSET, Cubes.box(0.3, 0.2, 0.1), -0.06))
                .isInstanceOf(Repair.RefusedException.class)
                .hasMessageContaining("pass through itself");
        TriangleSoup hollow = new TriangleSoup();
        Cubes.addTo(hollow, 1, 1, 1, false);
        Cubes.addTo(hollow, 0.9, 0.9, 0.9, true);
        assertThatThrownBy(() -> repaired(Repair.OFFSET, hollow.toMesh(0.1), -0.03))
                .as("walls of 50 mm have no 30 mm to give on both sides")
                .hasMessageContaining("pass through itself");
        assertThatThrownBy(() -> repaired(Repair.OFFSET, ball(8, 1, 3).toMesh(0.1), 0.01))
                .hasMessageContaining("open edges");
    }

    /** Corners strewn by less than the distance come together, and the body closes; farther ones stay. */
    @Test
    void strewnCornersAreJoinedAndTheBodyCloses() throws Exception {
        Random random = new Random(7);
        Mesh ball = ball(12, 1).toMesh(0.1);
        TriangleSoup strewn = new TriangleSoup();
        for (int t = 0; t < ball.triangleCount(); t++) {
            Vec3[] c = new Vec3[3];
            for (int k = 0; k < 3; k++) {
                Vec3 off = new Vec3(random.nextDouble(), random.nextDouble(), random.nextDouble());
                c[k] = ball.position(ball.indices()[3 * t + k]).plus(off.times(2e-4));
            }
            strewn.triangle(c[0], c[1], c[2]);
        }
        Mesh open = strewn.toMesh(0.1);
        assertThat(Topology.of(open).isClosed()).isFalse();
        Mesh closed = repaired(Repair.WELD, open, 1e-3);
        assertThat(Topology.of(closed).isClosed()).isTrue();
        assertThat(volume(closed)).isCloseTo(volume(ball), within(2e-3));
        assertThat(Repair.WELD.apply(closed, ONE, 1e-3))
                .as("nothing is left to join")
                .isEmpty();
    }

    /** A ball without its caps has two flat holes; the narrower is filled first, and with both it is closed. */
    @Test
    void flatHolesAreFilledUpToAWidth() throws Exception {
        Mesh whole = ball(12, 1).toMesh(0.1);
        Mesh open = ball(12, 1, 0, 10, 11).toMesh(0.1);
        double narrow = 2 * Math.sin(Math.PI / 12);
        assertThat(Repair.FILL.apply(open, ONE, narrow - 1e-3)).as("too wide").isEmpty();
        assertThat(Repair.FILL
                        .apply(open, ONE, narrow + 1e-3)
                        .orElseThrow()
                        .extent()
                        .count())
                .isEqualTo(1);
        Mesh both = repaired(Repair.FILL, open, 2);
        assertThat(Topology.of(both).isClosed()).isTrue();
        double cut = cone(1) + frustum(1, 2) + cone(1);
        assertThat(volume(both))
                .as("the ball less the cones and the frustum of its caps")
                .isCloseTo(volume(whole) - cut, within(1e-6));
        assertThat(Repair.FILL.apply(both, ONE, 2)).isEmpty();
        Mesh sheet = new TriangleSoup()
                .quad(Vec3.ZERO, Vec3.axis(0), new Vec3(1, 1, 0), Vec3.axis(1))
                .toMesh(0.1);
        assertThat(Repair.FILL.apply(sheet, ONE, 9))
                .as("the rim of a sheet is no hole")
                .isEmpty();
    }

    /** The area of the polygon of 24 corners at a ring of the ball. */
    private static double ring(int i) {
        double radius = Math.sin(Math.PI * i / 12);
        return 12 * radius * radius * Math.sin(Math.PI / 12);
    }

    private static double cone(int i) {
        return ring(i) * (1 - Math.cos(Math.PI * i / 12)) / 3;
    }

    private static double frustum(int i, int j) {
        double height = Math.cos(Math.PI * i / 12) - Math.cos(Math.PI * j / 12);
        return height / 3 * (ring(i) + ring(j) + Math.sqrt(ring(i) * ring(j)));
    }

    /** A corner lying on a longer side, bridged by a triangle without area: the body stays closed without it. */
    @Test
    void doublesAndSliversGoAndWhatLayAlongThemStillMeets() throws Exception {
        float[] places = {0, 0, 0, 2, 0, 0, 0, 0, 2, 0.4f, 1, 0.4f, 1, 0, 0}; // a, b, c, top, middle of a and b
        int[] triangles = {
            0,
            1,
            2, // below
            0,
            3,
            4,
            4,
            3,
            1,
            1,
            3,
            2,
            2,
            3,
            0, // around
            0,
            4,
            1, // the sliver
            1,
            3,
            2 // twice
        };
        Mesh mesh = new Mesh(places, new float[15], null, null, triangles, new int[] {0, 7}, null);
        assertThat(Topology.of(mesh).isClosed()).isFalse();
        Mesh clean = repaired(Repair.DROP, mesh, 0);
        assertThat(clean.triangleCount()).isEqualTo(6);
        assertThat(Topology.of(clean).isClosed()).isTrue();
        assertThat(volume(clean)).isCloseTo(2 * 1.0 / 3, within(1e-7));
        assertThat(Repair.DROP.apply(clean, ONE, 0)).isEmpty();
    }

    /** A cube smoothed beyond its right angles has three-way normals; sharp again, its sides' own. */
    @Test
    void normalsFollowTheCreaseAngle() throws Exception {
        Mesh cube = Cubes.box(1, 1, 1);
        assertThat(Repair.NORMALS.apply(cube, ONE, 30)).isEmpty();
        Mesh round = repaired(Repair.NORMALS, cube, 100);
        for (int v = 0; v < round.vertexCount(); v++) {
            Vec3 outward = round.position(v).normalised();
            assertThat(round.normal(v).minus(outward).length()).isLessThan(1e-6);
        }
        Mesh sharp = repaired(Repair.NORMALS, round, 30);
        for (int v = 0; v < sharp.vertexCount(); v++) {
            Vec3 n = sharp.normal(v);
            assertThat(n.dot(sharp.position(v))).as("along one of the axes").isCloseTo(0.5, within(1e-6));
        }
        assertThat(sharp.triangleCount()).isEqualTo(12);
    }
}

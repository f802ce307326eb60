package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.geometry.EdgePairs;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class EdgeLoopTest {
    private static Mesh faced(Mesh mesh) {
        return mesh.withFaces(Topology.of(mesh).smoothFaces(Math.toRadians(30)));
    }

    /** A ring of {@code around} × {@code across} quads, flat at z = 0 for a sheet, bent to a torus otherwise. */
    private static Mesh grid(int nx, int ny, boolean torus) {
        TriangleSoup soup = new TriangleSoup();
        Vec3[][] p = new Vec3[nx + 1][ny + 1];
        for (int i = 0; i <= nx; i++) {
            for (int k = 0; k <= ny; k++) {
                double u = 2 * Math.PI * (i % nx) / nx;
                double v = 2 * Math.PI * (k % ny) / ny;
                double r = 3 + Math.cos(v);
                p[i][k] = torus ? new Vec3(r * Math.cos(u), r * Math.sin(u), Math.sin(v)) : new Vec3(i, k, 0);
            }
        }
        for (int i = 0; i < nx; i++) {
            for (int k = 0; k < ny; k++) {
                soup.quad(p[i][k], p[i + 1][k], p[i + 1][k + 1], p[i][k + 1]);
            }
        }
        return faced(soup.toMesh(0.1));
    }

    private static int vertexAt(Mesh mesh, Vec3 at) {
        for (int v = 0; v < mesh.vertexCount(); v++) {
            if (mesh.position(v).minus(at).length() < 1e-5) {
                return v;
            }
        }
        throw new AssertionError("no vertex at " + at);
    }

    @Test
    void aLoopAroundTheTopOfABoxPartsTheTopFromTheRest() {
        Mesh box = faced(Cubes.box(2, 1, 4));
        EdgeLoop loop = new EdgeLoop(box, Transform.IDENTITY);
        List<Integer> corners = List.of(
                vertexAt(box, new Vec3(-1, 0.5, -2)),
                vertexAt(box, new Vec3(1, 0.5, -2)),
                vertexAt(box, new Vec3(1, 0.5, 2)),
                vertexAt(box, new Vec3(-1, 0.5, 2)));

        List<EdgeLoop.Piece> pieces = loop.pieces(loop.through(corners, true));

        assertThat(pieces).hasSize(2);
        assertThat(pieces.get(0).area()).isCloseTo(8, within(1e-6));
        assertThat(pieces.get(0).triangles()).hasSize(2);
        assertThat(pieces.get(1).area()).isCloseTo(8 + 2 * 2 + 2 * 4, within(1e-6));
    }

    @Test
    void aWayPrefersTheEdgesOfABoxToTheDiagonalsOfItsSides() {
        Mesh box = faced(Cubes.box(1, 1, 1));
        EdgeLoop loop = new EdgeLoop(box, Transform.IDENTITY);

        for (int a = 0; a < box.vertexCount(); a++) {
            for (int b = 0; b < box.vertexCount(); b++) {
                List<Integer> way = loop.way(a, b);
                for (int i = 1; i < way.size(); i++) {
                    double step = box.position(way.get(i))
                            .minus(box.position(way.get(i - 1)))
                            .length();
                    assertThat(step).isCloseTo(1, within(1e-6));
                }
            }
        }
    }

    @Test
    void aLoopThroughTheHoleOfARingDoesNotPartIt() {
        Mesh torus = grid(24, 12, true);
        EdgeLoop loop = new EdgeLoop(torus, Transform.IDENTITY);
        List<Integer> meridian = new ArrayList<>();
        for (int k = 0; k < 12; k += 3) {
            double v = 2 * Math.PI * k / 12;
            meridian.add(vertexAt(torus, new Vec3(3 + Math.cos(v), 0, Math.sin(v))));
        }

        assertThat(loop.pieces(loop.through(meridian, true))).hasSize(1);
    }

    /** Against the slow, obviously right way: each edge relaxed until nothing gets shorter (Bellman–Ford). */
    @Property(tries = 40)
    void noWayIsCheaper(@ForAll @IntRange(min = 0, max = 287) int from, @ForAll @IntRange(min = 0, max = 287) int to) {
        Mesh torus = grid(48, 24, true);
        EdgeLoop loop = new EdgeLoop(torus, Transform.IDENTITY);
        int[] place = VertexWeld.exact(torus.positions(), torus.vertexCount());
        double[] cost = new double[torus.vertexCount()];
        Arrays.fill(cost, Double.POSITIVE_INFINITY);
        cost[place[from]] = 0;
        for (boolean changed = true; changed; ) {
            changed = false;
            for (int e = 0; e < torus.indices().length; e++) {
                int a = place[torus.indices()[e]];
                int b = place[torus.indices()[EdgePairs.next(e)]];
                double length = torus.position(a).minus(torus.position(b)).length();
                double least = Math.min(cost[a], cost[b]) + EdgeLoop.UNSEEN * length; // the ring is one smooth region
                for (int end : new int[] {a, b}) {
                    if (least < cost[end] - 1e-12) {
                        cost[end] = least;
                        changed = true;
                    }
                }
            }
        }
        List<Integer> way = loop.way(from, to);
        double found = 0;
        for (int i = 1; i < way.size(); i++) {
            found += EdgeLoop.UNSEEN
                    * torus.position(way.get(i))
                            .minus(torus.position(way.get(i - 1)))
                            .length();
        }
        assertThat(way.get(0)).isEqualTo(place[from]);
        assertThat(way.get(way.size() - 1)).isEqualTo(place[to]);
        assertThat(found).isCloseTo(cost[place[to]], within(1e-9));
    }

    @Test
    void thereIsNoWayBetweenTwoBodies() {
        TriangleSoup soup = new TriangleSoup();
        soup.quad(Vec3.ZERO, new Vec3(1, 0, 0), new Vec3(1, 1, 0), new Vec3(0, 1, 0));
        soup.quad(new Vec3(0, 0, 5), new Vec3(1, 0, 5), new Vec3(1, 1, 5), new Vec3(0, 1, 5));
        Mesh mesh = faced(soup.toMesh(0.1));
        int far = vertexAt(mesh, new Vec3(0, 0, 5));

        assertThat(new EdgeLoop(mesh, Transform.IDENTITY).way(vertexAt(mesh, Vec3.ZERO), far))
                .isEmpty();
    }

    /** Whatever rectangle is gone around on a sheet: its area is that of what lies within, and nothing is lost. */
    @Property(tries = 60)
    void aRectangleOnASheetIsCutOutAsItIs(
            @ForAll @IntRange(min = 0, max = 5) int x,
            @ForAll @IntRange(min = 0, max = 5) int y,
            @ForAll @IntRange(min = 1, max = 4) int width,
            @ForAll @IntRange(min = 1, max = 4) int height) {
        Mesh sheet = grid(12, 12, false);
        Transform twice = Transform.scale(2, 2, 2);
        EdgeLoop loop = new EdgeLoop(sheet, twice);
        List<Integer> corners = new ArrayList<>();
        for (int i = 0; i < width; i++) {
            corners.add(vertexAt(sheet, new Vec3(1 + x + i, 1 + y, 0)));
        }
        for (int k = 0; k < height; k++) {
            corners.add(vertexAt(sheet, new Vec3(1 + x + width, 1 + y + k, 0)));
        }
        for (int i = width; i > 0; i--) {
            corners.add(vertexAt(sheet, new Vec3(1 + x + i, 1 + y + height, 0)));
        }
        for (int k = height; k > 0; k--) {
            corners.add(vertexAt(sheet, new Vec3(1 + x, 1 + y + k, 0)));
        }

        List<EdgeLoop.Piece> pieces = loop.pieces(loop.through(corners, true));

        double inside = 4.0 * width * height;
        assertThat(pieces).hasSize(2);
        assertThat(pieces.get(0).area()).as("the smaller first").isCloseTo(inside, within(1e-3));
        assertThat(pieces.get(1).area()).isCloseTo(4 * 144 - inside, within(1e-3));
        Set<Integer> all = new HashSet<>();
        pieces.forEach(p -> {
            for (int t : p.triangles()) {
                assertThat(all.add(t)).isTrue();
            }
        });
        assertThat(all).hasSize(sheet.triangleCount());
    }
}

package app.zolvan.core.mapping;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;
import java.util.function.BiFunction;
import org.junit.jupiter.api.Test;

class EvenCoordinatesTest {
    private static final Vec3 MILLIMETRES = new Vec3(1e-3, 1e-3, 1e-3);
    private static final Vec3 METRES = new Vec3(1, 1, 1);
    private static final int STEPS = 48;

    /** A curtain of 2 m × 3 m of cloth in folds lies flat at that size. */
    @Test
    void aFoldedSheetReadsItsClothInMetres() {
        double width = 2000;
        double height = 3000;
        // half circles of 100 mm radius, one after the other
        Mesh curtain = sheet((u, v) -> {
            double arc = u * width / 100;
            double fold = Math.floor(arc / Math.PI);
            double angle = arc - fold * Math.PI;
            double side = fold % 2 == 0 ? 1 : -1;
            return new Vec3(200 * fold + 100 * (1 - Math.cos(angle)), height * (1 - v), side * 100 * Math.sin(angle));
        });
        Mesh laid = RealSize.apply(curtain, MILLIMETRES);
        assertThat(laid.vertexCount()).as("nothing is cut").isEqualTo(curtain.vertexCount());
        for (int t = 0; t < laid.triangleCount(); t++) {
            for (int k = 0; k < 3; k++) {
                int a = laid.indices()[3 * t + k];
                int b = laid.indices()[3 * t + (k + 1) % 3];
                double flat = Math.hypot(
                        laid.metricUv()[2 * a] - laid.metricUv()[2 * b],
                        laid.metricUv()[2 * a + 1] - laid.metricUv()[2 * b + 1]);
                double bent = laid.position(a).minus(laid.position(b)).length() / 1000;
                assertThat(flat).isCloseTo(bent, within(0.1 * bent));
            }
        }
        assertThat(EvenCoordinates.lieOn(laid, MILLIMETRES)).isTrue();
        assertThat(EvenCoordinates.lieOn(BoxProjection.apply(curtain, MILLIMETRES), MILLIMETRES))
                .as("laid from six sides before")
                .isFalse();
        int last = 2 * (laid.vertexCount() - 1);
        assertThat(laid.metricUv()[last] - laid.metricUv()[0]).isCloseTo(2, within(0.03f));
        assertThat(laid.metricUv()[last + 1] - laid.metricUv()[1]).isCloseTo(3, within(1e-4f));
    }

    @Test
    void anImageOnASheetLaidTheOtherWayRoundIsReadableFromItsFront() {
        Mesh rug = sheet((u, v) -> new Vec3(1.4 * (1 - u), 2 * (1 - v), 0));
        Mesh turned = sheet((u, v) -> new Vec3(1.4 * u, 2 * (1 - v), 0));
        for (Mesh m : new Mesh[] {rug, turned}) {
            float[] uv = EvenCoordinates.inMetres(m, METRES).orElseThrow();
            int a = m.indices()[0];
            int b = m.indices()[1];
            int c = m.indices()[2];
            double inPicture = (uv[2 * b] - uv[2 * a]) * (uv[2 * c + 1] - uv[2 * a + 1])
                    - (uv[2 * c] - uv[2 * a]) * (uv[2 * b + 1] - uv[2 * a + 1]);
            // v grows downwards: anticlockwise corners run clockwise in u, v
            assertThat(inPicture).isCloseTo(-1.4 * 2 / STEPS / STEPS, within(1e-6));
        }
    }

    @Test
    void whatIsCutStretchedSlantedOrClosedIsLaidFromSixSides() {
        assertThat(EvenCoordinates.inMetres(sheet((u, v) -> new Vec3(u, v, 0)), METRES))
                .as("as it is")
                .isPresent();
        assertThat(EvenCoordinates.inMetres(sheet((u, v) -> new Vec3(u * (1 + u), v, 0)), METRES))
                .as("wider towards one side")
                .isEmpty();
        assertThat(EvenCoordinates.inMetres(sheet((u, v) -> new Vec3(u + 0.3 * v, v, 0)), METRES))
                .as("slanted")
                .isEmpty();
        assertThat(EvenCoordinates.inMetres(sheet(EvenCoordinatesTest::ball), METRES))
                .as("narrower towards the poles")
                .isEmpty();
        Mesh whole = sheet((u, v) -> new Vec3(u, v, 0));
        assertThat(EvenCoordinates.inMetres(halvesApart(whole), METRES))
                .as("in two pieces")
                .isEmpty();
        Mesh box = BoxProjection.apply(Cubes.box(1, 2, 3), METRES);
        assertThat(EvenCoordinates.inMetres(withUv(box, box.metricUv()), METRES))
                .as("a closed body")
                .isEmpty();
        assertThat(EvenCoordinates.inMetres(box, METRES)).as("none").isEmpty();
    }

    private static Vec3 ball(double u, double v) {
        double polar = Math.PI * (0.05 + 0.9 * v);
        double round = 2 * Math.PI * u;
        return new Vec3(Math.sin(polar) * Math.cos(round), Math.cos(polar), Math.sin(polar) * Math.sin(round));
    }

    /** The right half's triangles get corners of their own, whose u is elsewhere. */
    private static Mesh halvesApart(Mesh m) {
        int n = m.vertexCount();
        int[] source = new int[2 * n];
        int[] corners = m.indices().clone();
        for (int v = 0; v < 2 * n; v++) {
            source[v] = v % n;
        }
        for (int t = 0; t < m.triangleCount(); t++) {
            boolean right =
                    m.uv()[2 * corners[3 * t]] + m.uv()[2 * corners[3 * t + 1]] + m.uv()[2 * corners[3 * t + 2]] > 1.5;
            for (int k = 0; right && k < 3; k++) {
                corners[3 * t + k] += n;
            }
        }
        Mesh apart = m.onCopies(source, 2 * n, corners, null);
        float[] uv = apart.uv().clone();
        for (int v = n; v < 2 * n; v++) {
            uv[2 * v] += 0.25f;
        }
        return withUv(apart, uv);
    }

    /** Vertices in rows of u from 0 to 1, rows from v = 0 to 1; the front where u runs right and v down. */
    private static Mesh sheet(BiFunction<Double, Double, Vec3> at) {
        int side = STEPS + 1;
        float[] positions = new float[3 * side * side];
        float[] uv = new float[2 * side * side];
        for (int i = 0; i < side * side; i++) {
            double u = (double) (i % side) / STEPS;
            double v = (double) (i - i % side) / side / STEPS;
            Vec3 p = at.apply(u, v);
            for (int k = 0; k < 3; k++) {
                positions[3 * i + k] = (float) p.get(k);
            }
            uv[2 * i] = (float) u;
            uv[2 * i + 1] = (float) v;
        }
        int[] indices = new int[6 * STEPS * STEPS];
        for (int q = 0; q < STEPS * STEPS; q++) {
            int a = q / STEPS * side + q % STEPS;
            int[] corners = {a, a + side, a + side + 1, a, a + side + 1, a + 1};
            System.arraycopy(corners, 0, indices, 6 * q, 6);
        }
        int[] spans = {0, indices.length / 3};
        return new Mesh(positions, new float[positions.length], uv, null, indices, spans, null, null, null);
    }

    private static Mesh withUv(Mesh m, float[] uv) {
        return new Mesh(
                m.positions(), m.normals(), uv, null, m.indices(), m.spanStarts(), m.faces(), m.uv2(), m.colours());
    }
}

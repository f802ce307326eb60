package app.zolvan.core.render.scene;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import app.zolvan.core.mapping.Atlas;
import app.zolvan.core.mapping.BoxProjection;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.render.texture.Textures;
import app.zolvan.core.render.trace.Kernel;
import app.zolvan.core.render.trace.Ray;
import app.zolvan.core.texture.Png;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntUnaryOperator;
import org.junit.jupiter.api.Test;

/** needs.md J42: a relief that is a shape. */
class DisplacementTest {
    private static final double DEPTH = 0.05;
    private static final int PIXELS = 32;
    private static final int MOST = 60_000;

    /** A picture of heights as a relief, one repeat of a metre. */
    private static Surface relief(double depth) {
        return Surface.STANDARD
                .with(Parameter.GEOMETRY_HEIGHT, depth)
                .with(Parameter.GEOMETRY_DISPLACED, true)
                .withTexture(Parameter.GEOMETRY_HEIGHT, TextureUse.repeating("heights", Channel.R, new RealSize(1, 1)));
    }

    private static Textures textures(IntUnaryOperator code) {
        byte[] samples = new byte[3 * PIXELS * PIXELS];
        for (int i = 0; i < samples.length; i++) {
            samples[i] = (byte) code.applyAsInt(i / 3);
        }
        byte[] png = Png.encode(PIXELS, PIXELS, samples, 72);
        return new Textures(d -> png, Textures.BUDGET);
    }

    private static Displacement.Relief of(Surface s, Textures textures) {
        return Displacement.Relief.of(s, true, textures.of(s));
    }

    /** A cube of a metre with corners of their own for each face; the upper one is the second span. */
    private static Mesh cube() {
        int[][] faces = {{0, 4, 6, 2}, {1, 3, 7, 5}, {0, 1, 5, 4}, {0, 2, 3, 1}, {4, 5, 7, 6}, {2, 6, 7, 3}};
        float[] p = new float[72];
        float[] n = new float[72];
        int[] indices = new int[36];
        for (int f = 0; f < 6; f++) {
            for (int k = 0; k < 4; k++) {
                for (int axis = 0; axis < 3; axis++) {
                    p[12 * f + 3 * k + axis] = faces[f][k] >> axis & 1;
                }
            }
            Vec3 out =
                    at(p, 4 * f + 1).minus(at(p, 4 * f)).cross(at(p, 4 * f + 2).minus(at(p, 4 * f)));
            for (int k = 0; k < 4; k++) {
                n[12 * f + 3 * k] = (float) out.x();
                n[12 * f + 3 * k + 1] = (float) out.y();
                n[12 * f + 3 * k + 2] = (float) out.z();
            }
            int[] two = {0, 1, 2, 0, 2, 3};
            for (int i = 0; i < 6; i++) {
                indices[6 * f + i] = 4 * f + two[i];
            }
        }
        Mesh mesh = new Mesh(p, n, null, null, indices, new int[] {0, 10, 12}, null);
        return BoxProjection.apply(mesh, new Vec3(1, 1, 1));
    }

    private static Mesh raised(double size, List<Displacement.Relief> reliefs) {
        return Displacement.of(cube(), new Vec3(size, size, size), reliefs, null, MOST);
    }

    private static Vec3 at(float[] p, int v) {
        return new Vec3(p[3 * v], p[3 * v + 1], p[3 * v + 2]);
    }

    private static List<Displacement.Relief> both(Displacement.Relief one, Displacement.Relief other) {
        List<Displacement.Relief> spans = new ArrayList<>();
        spans.add(one);
        spans.add(other);
        return spans;
    }

    /** Whether each edge is run along once either way, places compared by what they are. */
    private static boolean isClosed(Mesh m) {
        int[] place = VertexWeld.exact(m.positions(), m.vertexCount());
        Map<Long, Integer> edges = new HashMap<>();
        int[] i = m.indices();
        for (int c = 0; c < i.length; c++) {
            int a = place[i[c]];
            int b = place[i[c % 3 == 2 ? c - 2 : c + 1]];
            edges.merge((long) Math.min(a, b) << 32 | Math.max(a, b), a < b ? 1 : -1, Integer::sum);
        }
        return edges.values().stream().allMatch(sum -> sum == 0);
    }

    @Test
    void aWhiteReliefMakesABodyBiggerByItsDepthAllRound() {
        Displacement.Relief white = of(relief(DEPTH), textures(i -> 255));
        for (double size : new double[] {1, 0.4}) { // depth is in metres of the world
            Mesh raised = raised(size, both(white, white));
            assertThat(raised.signedVolume() * size * size * size)
                    .isCloseTo(Math.pow(size + 2 * DEPTH, 3), within(1e-5));
            assertThat(isClosed(raised)).isTrue();
            assertThat(raised.triangleCount()).isBetween(1000, MOST);
        }
    }

    @Test
    void aReliefRunsOutWhereASmoothSurfaceAdjoins() {
        Displacement.Relief rough = of(relief(DEPTH), textures(i -> i * 37 % 256));
        Mesh raised = raised(1, both(null, rough));
        assertThat(isClosed(raised)).isTrue();
        assertThat(raised.bounds().max().y()).isGreaterThan(1.03);
        assertThat(raised.bounds().max().x()).isEqualTo(1);
        assertThat(raised.spanStarts()[1]).as("the sides' triangles").isGreaterThan(10);
        double sides = raised.area(0, raised.spanStarts()[1], Transform.IDENTITY);
        assertThat(sides).isCloseTo(5, within(1e-6));
    }

    /** A ramp of one metre: every vertex lies as high as the picture says, and is seen to lean as far. */
    @Test
    void heightsAreThoseOfThePicture() {
        Displacement.Relief ramp = of(relief(0.1), textures(i -> 255 * (i % PIXELS) / (PIXELS - 1)));
        Mesh raised = raised(1, both(null, ramp));
        int seen = 0;
        for (int t = raised.spanStarts()[1]; t < raised.triangleCount(); t++) {
            for (int k = 0; k < 3; k++) {
                int v = raised.indices()[3 * t + k];
                double u = raised.metricUv()[2 * v] - Math.floor(raised.metricUv()[2 * v]);
                Vec3 p = raised.position(v);
                boolean inside = Math.min(p.x(), 1 - p.x()) > 0.1 && Math.min(p.z(), 1 - p.z()) > 0.1;
                if (inside && u > 0.1 && u < 0.9) {
                    double expected = 0.1 * (u * PIXELS - 0.5) / (PIXELS - 1);
                    assertThat(p.y() - 1).isCloseTo(expected, within(0.0015));
                    assertThat(raised.normal(v).y()).isCloseTo(1 / Math.sqrt(1.01), within(0.01));
                    seen++;
                }
            }
        }
        assertThat(seen).isGreaterThan(1000);
    }

    /** A part may stand mirrored: its fronts stay outside, and its relief goes out from them. */
    @Test
    void aMirroredPartHasItsReliefOutside() {
        Dress dress = Dress.of(relief(DEPTH)).metric(true);
        RenderScene scene = new RenderScene.Builder(Kernel.Kind.SCALAR, textures(i -> 255))
                .addDressed(cube(), Transform.scale(1, 1, -1), List.of(dress, dress))
                .build();
        assertThat(scene.bounds().min().z()).isCloseTo(-1 - DEPTH, within(1e-6));
        Ray ray = new Ray();
        ray.ox = 0.4f;
        ray.oy = 3;
        ray.oz = -0.55f;
        ray.dy = -1;
        ray.tMax = Float.MAX_VALUE;
        Hit hit = new Hit();
        assertThat(scene.closest(ray, hit)).isTrue();
        assertThat(hit.y).isCloseTo(1 + DEPTH, within(1e-6));
        assertThat(hit.ny).isCloseTo(1, within(1e-6));
    }

    /** Where in the atlas of ages a place lies stays what it was, however finely it is cut. */
    @Test
    void agesStayWhereTheyAre() {
        Mesh flat = BoxProjection.apply(
                new Mesh(
                        new float[] {0, 0, 0, 0, 0, 1, 1, 0, 1, 1, 0, 0},
                        new float[] {0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 1, 0},
                        null,
                        null,
                        new int[] {0, 1, 2, 0, 2, 3},
                        new int[] {0, 2},
                        null),
                new Vec3(1, 1, 1));
        float[] corners = {0, 0, 0, 1, 1, 1, 0, 0, 1, 1, 1, 0}; // u is x, v is z
        AgeFields age = new AgeFields(new Atlas(corners, 4, 4, 0.25), new byte[64]);
        Displacement.Relief bumps = of(relief(DEPTH), textures(i -> i * 37 % 256));
        Mesh raised = Displacement.of(flat, new Vec3(1, 1, 1), List.of(bumps), age, MOST);
        float[] uv = age.over(raised).atlas().uv();
        assertThat(raised.triangleCount()).isGreaterThan(1000);
        for (int c = 0; c < raised.indices().length; c++) {
            Vec3 p = raised.position(raised.indices()[c]);
            assertThat((double) uv[2 * c]).isCloseTo(p.x(), within(1e-5));
            assertThat((double) uv[2 * c + 1]).isCloseTo(p.z(), within(1e-5));
        }
    }

    @Test
    void noMoreTrianglesThanAllowed() {
        Displacement.Relief white = of(relief(DEPTH), textures(i -> 255));
        for (int most : new int[] {12, 100, 5_000}) {
            Mesh raised = Displacement.of(cube(), new Vec3(1, 1, 1), both(white, white), null, most);
            assertThat(raised.triangleCount()).isLessThanOrEqualTo(most);
            assertThat(isClosed(raised)).isTrue();
        }
    }

    @Test
    void raysMeetTheShape() {
        for (boolean shape : new boolean[] {true, false}) {
            Surface s = relief(DEPTH).with(Parameter.GEOMETRY_DISPLACED, shape);
            Dress dress = Dress.of(s).metric(true);
            RenderScene scene = new RenderScene.Builder(Kernel.Kind.SCALAR, textures(i -> 255))
                    .addDressed(cube(), Transform.IDENTITY, List.of(dress, dress))
                    .build();
            Ray ray = new Ray();
            ray.ox = -2;
            ray.oy = (float) (1 + DEPTH / 2);
            ray.oz = 0.5f;
            ray.dx = 1;
            ray.tMax = Float.MAX_VALUE;
            assertThat(scene.closest(ray, new Hit())).isEqualTo(shape);
        }
    }
}

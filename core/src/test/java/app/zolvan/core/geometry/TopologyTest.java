package app.zolvan.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.mapping.BoxProjection;
import java.util.Arrays;
import org.junit.jupiter.api.Test;

class TopologyTest {

    @Test
    void aCubeIsClosedHasSixFacesAndItsKnownVolumeAndArea() {
        Mesh cube = Cubes.box(1, 2, 3);
        Topology topology = Topology.of(cube);
        assertThat(topology.isClosed()).isTrue();
        assertThat(topology.smoothFaces(Math.toRadians(30))).containsExactly(0, 0, 1, 1, 2, 2, 3, 3, 4, 4, 5, 5);
        MeshMeasure measure = MeshMeasure.of(cube, topology, Transform.scale(2, 1, 1));
        assertThat(measure.volume()).isCloseTo(12, within(1e-9));
        assertThat(measure.area()).isCloseTo(2 * (2 * 2 + 2 * 3 + 2 * 3), within(1e-9));
    }

    @Test
    void aCubeWithoutALidIsOpenAndHasNoVolume() {
        Mesh cube = Cubes.box(1, 1, 1);
        int[] without = Arrays.copyOf(cube.indices(), 30);
        Mesh open = new Mesh(cube.positions(), cube.normals(), null, null, without, new int[] {0, 10}, null);
        Topology topology = Topology.of(open);
        assertThat(topology.isClosed()).isFalse();
        assertThat(MeshMeasure.of(open, topology, Transform.IDENTITY).volume()).isZero();
        assertThat(MeshMeasure.of(open, topology, Transform.IDENTITY).meanThickness())
                .isZero();
    }

    @Test
    void anEdgeSharedByThreeTrianglesIsNonManifold() {
        float[] p = {0, 0, 0, 1, 0, 0, 0, 1, 0, 0, -1, 0, 0, 0, 1};
        Mesh fan =
                new Mesh(p, new float[15], null, null, new int[] {0, 1, 2, 1, 0, 3, 0, 1, 4}, new int[] {0, 3}, null);
        Topology topology = Topology.of(fan);
        assertThat(topology.opposite(0)).isEqualTo(Topology.NON_MANIFOLD);
        assertThat(topology.opposite(3)).isEqualTo(Topology.NON_MANIFOLD);
        assertThat(topology.opposite(6)).isEqualTo(Topology.NON_MANIFOLD);
        assertThat(topology.opposite(1)).isEqualTo(Topology.BOUNDARY);
    }

    @Test
    void theMeanThicknessOfAThinShellIsItsWall() {
        TriangleSoup soup = new TriangleSoup();
        Cubes.addTo(soup, 1, 1, 1, false);
        Cubes.addTo(soup, 0.98, 0.98, 0.98, true); // 10 mm wall
        Mesh shell = soup.toMesh(0.1);
        MeshMeasure measure = MeshMeasure.of(shell, Topology.of(shell), Transform.IDENTITY);
        assertThat(measure.closed()).isTrue();
        assertThat(measure.meanThickness()).isCloseTo(0.01, within(1e-4));
    }

    @Test
    void aMeshRefusesPositionsThatAreNoNumbersAndIndicesOutOfRange() {
        float[] bad = {0, 0, Float.NaN, 1, 0, 0, 0, 1, 0};
        assertThatThrownBy(() -> new Mesh(bad, new float[9], null, null, new int[] {0, 1, 2}, new int[] {0, 1}, null))
                .hasMessageContaining("finite");
        assertThatThrownBy(() ->
                        new Mesh(new float[9], new float[9], null, null, new int[] {0, 1, 3}, new int[] {0, 1}, null))
                .hasMessageContaining("index");
    }

    @Test
    void aStoredMeshIsReadBackBitByBit() {
        Mesh cube = BoxProjection.apply(Cubes.box(1, 2, 3).withFaces(new int[12]), new Vec3(1, 1, 1));
        Mesh back = MeshCodec.decode(MeshCodec.encode(cube));
        assertThat(back.positions()).isEqualTo(cube.positions());
        assertThat(back.metricUv()).isEqualTo(cube.metricUv());
        assertThat(back.indices()).isEqualTo(cube.indices());
        assertThat(back.uv()).isNull();
        assertThatThrownBy(() -> MeshCodec.decode(new byte[40])).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    void everyPaintedColourComesBackFromStorageAsItWas() {
        byte[] colours = new byte[4 * 258];
        float[] p = new float[3 * 258];
        for (int i = 0; i < colours.length; i++) {
            colours[i] = (byte) (i / 4); // each code in each channel
            p[3 * (i / 4)] = i;
        }
        Mesh painted = new Mesh(
                p, new float[p.length], null, null, new int[] {0, 1, 2}, new int[] {0, 1}, new int[1], null, colours);
        assertThat(MeshCodec.decode(MeshCodec.encode(painted)).colours()).isEqualTo(colours);
    }
}

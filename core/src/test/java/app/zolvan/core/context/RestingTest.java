package app.zolvan.core.context;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.context.Resting.Body;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class RestingTest {
    /** Positions are single precision. */
    private static final double TOLERANCE = 1e-6;

    private static final Mesh CUBE = box(1, 1, 1);

    /** A closed box from the origin. */
    private static Mesh box(double x, double y, double z) {
        Vec3[] c = new Vec3[8];
        for (int i = 0; i < 8; i++) {
            c[i] = new Vec3((i & 1) * x, (i >> 1 & 1) * y, (i >> 2) * z);
        }
        return new TriangleSoup()
                .quad(c[0], c[2], c[3], c[1])
                .quad(c[4], c[5], c[7], c[6])
                .quad(c[0], c[4], c[6], c[2])
                .quad(c[1], c[3], c[7], c[5])
                .quad(c[2], c[6], c[7], c[3])
                .quad(c[0], c[1], c[5], c[4])
                .toMesh(0.5);
    }

    private static Body at(Mesh mesh, double x, double y, double z) {
        return new Body(mesh, Transform.translation(x, y, z));
    }

    private static double drop(Body moving, Body... still) {
        return Resting.drop(List.of(moving), List.of(still)).orElse(Double.NaN);
    }

    @Test
    void aThingFallsOntoTheHighestThatIsBelowIt() {
        assertThat(drop(at(CUBE, 0, 5, 0), at(box(10, 1, 10), -5, 0, -5))).isCloseTo(4, within(TOLERANCE));
        assertThat(drop(at(CUBE, 0, 5, 0), at(box(10, 1, 10), -5, 0, -5), at(CUBE, 0.9, 2, 0.9)))
                .isCloseTo(2, within(TOLERANCE));
        assertThat(drop(at(CUBE, 0, 5, 0), at(CUBE, 3, 0, 0))).isNaN();
    }

    @Test
    void aCeilingIsNoSupportAndWhatIsSunkALittleIsLifted() {
        Body floor = at(box(10, 1, 10), -5, -1, -5);
        assertThat(drop(at(CUBE, 0, 1, 0), floor, at(box(10, 1, 10), -5, 3, -5)))
                .isCloseTo(1, within(TOLERANCE));
        assertThat(drop(at(CUBE, 0, -0.1, 0), floor)).isCloseTo(-0.1, within(TOLERANCE));
    }

    /** A ridge along x under an edge along z: they meet where they cross, and no corner of either touches the other. */
    @Test
    void edgesMeetWhereTheyCross() {
        Mesh ridge = new TriangleSoup()
                .quad(new Vec3(-5, 0, 1), new Vec3(5, 0, 1), new Vec3(5, 1, 0), new Vec3(-5, 1, 0))
                .quad(new Vec3(-5, 1, 0), new Vec3(5, 1, 0), new Vec3(5, 0, -1), new Vec3(-5, 0, -1))
                .toMesh(0.1);
        Mesh keel = new TriangleSoup()
                .quad(new Vec3(0, 0, -5), new Vec3(0, 0, 5), new Vec3(1, 1, 5), new Vec3(1, 1, -5))
                .quad(new Vec3(-1, 1, -5), new Vec3(-1, 1, 5), new Vec3(0, 0, 5), new Vec3(0, 0, -5))
                .toMesh(0.1);
        assertThat(drop(at(keel, 0, 3, 0), at(ridge, 0, 0, 0))).isCloseTo(2, within(TOLERANCE));
    }

    /** An upright sheet has no area from above, and stands all the same. */
    @Test
    void anUprightSheetStandsOnASlope() {
        Mesh sheet = new TriangleSoup()
                .quad(new Vec3(0, 0, 0), new Vec3(1, 0, 0), new Vec3(1, 1, 0), new Vec3(0, 1, 0))
                .toMesh(0.1);
        Mesh slope = new TriangleSoup()
                .quad(new Vec3(-4, -2, 4), new Vec3(4, 2, 4), new Vec3(4, 2, -4), new Vec3(-4, -2, -4))
                .toMesh(0.1);
        assertThat(drop(at(sheet, 0, 3, 0), at(slope, 0, 0, 0))).isCloseTo(2.5, within(TOLERANCE));
    }

    /** Turned boxes on a heap: let down, nothing is left to fall, and a second time from higher finds the same place. */
    @Test
    void whateverHasBeenSetDownStands() {
        SplittableRandom random = new SplittableRandom(5);
        for (int n = 0; n < 40; n++) {
            Body[] heap = new Body[6];
            for (int i = 0; i < heap.length; i++) {
                heap[i] = new Body(
                        box(1, 0.4, 0.7),
                        Transform.translation(random.nextDouble(-1, 1), 0, random.nextDouble(-1, 1))
                                .after(turned(random)));
            }
            Transform turned = turned(random);
            double first = drop(new Body(CUBE, Transform.translation(0, 5, 0).after(turned)), heap);
            Body down = new Body(CUBE, Transform.translation(0, 5 - first, 0).after(turned));
            assertThat(drop(down, heap)).as("case %d", n).isCloseTo(0, within(TOLERANCE));
            assertThat(drop(new Body(CUBE, Transform.translation(0, 9, 0).after(turned)), heap))
                    .isCloseTo(first + 4, within(TOLERANCE));
        }
    }

    private static Transform turned(SplittableRandom random) {
        return Transform.rotation(
                new Vec3(random.nextDouble(-1, 1), random.nextDouble(-1, 1), 1).normalised(), random.nextDouble(0, 6));
    }
}

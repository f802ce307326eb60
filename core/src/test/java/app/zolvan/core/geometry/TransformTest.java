package app.zolvan.core.geometry;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class TransformTest {

    @Test
    void aQuarterTurnAboutZTakesXToY() {
        Vec3 p = Transform.rotation(Vec3.axis(2), Math.PI / 2).point(Vec3.axis(0));
        assertThat(p.minus(Vec3.axis(1)).length()).isLessThan(1e-12);
    }

    @Test
    void scaleThenTurnThenMoveAsGltfCombinesThem() {
        double h = Math.sqrt(0.5);
        Transform t = Transform.ofTrs(new double[] {10, 0, 0}, new double[] {0, 0, h, h}, new double[] {2, 3, 4});
        assertThat(t.point(Vec3.axis(0)).minus(new Vec3(10, 2, 0)).length()).isLessThan(1e-12);
        assertThat(t.determinant()).isCloseTo(24, within(1e-9));
        assertThat(t.stretch().minus(new Vec3(2, 3, 4)).length()).isLessThan(1e-12);
    }

    @Property(tries = 200)
    void applyingOneAfterTheOtherIsTheProduct(
            @ForAll @DoubleRange(min = -3, max = 3) double a,
            @ForAll @DoubleRange(min = -3, max = 3) double b,
            @ForAll @DoubleRange(min = 0.1, max = 3) double s) {
        Transform first = Transform.rotation(new Vec3(1, 2, 2).normalised(), a).after(Transform.scale(s, 1, 2));
        Transform second = Transform.translation(b, 1, -a).after(Transform.rotation(Vec3.axis(0), b));
        Vec3 p = new Vec3(a, b, s);
        assertThat(second.after(first)
                        .point(p)
                        .minus(second.point(first.point(p)))
                        .length())
                .isLessThan(1e-9);
        assertThat(second.after(first).meanScale()).isCloseTo(Math.cbrt(2 * s), within(1e-9));
    }

    @Test
    void aTurnedBoxIsBoundedByItsCorners() {
        Box3 unit = Box3.EMPTY.with(Vec3.ZERO).with(new Vec3(1, 1, 1));
        Box3 turned = unit.transformed(Transform.rotation(Vec3.axis(2), Math.PI / 4));
        assertThat(turned.size().x()).isCloseTo(Math.sqrt(2), within(1e-12));
        assertThat(turned.size().z()).isCloseTo(1, within(1e-12));
        assertThat(Box3.EMPTY.transformed(Transform.IDENTITY).isEmpty()).isTrue();
        assertThat(new Box3(Vec3.ZERO, new Vec3(1, 3, 2)).longestAxis()).isEqualTo(1);
    }
}

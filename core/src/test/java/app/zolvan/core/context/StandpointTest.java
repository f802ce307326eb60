package app.zolvan.core.context;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.geometry.Sight;
import app.zolvan.core.geometry.Vec3;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.assertj.core.data.Offset;
import org.junit.jupiter.api.Test;

class StandpointTest {
    private static final Offset<Double> EXACT = within(1e-9);

    /** The inside of a box from (−w/2, 0, −d/2) to (w/2, h, d/2): a ray leaves it at the first of its six planes. */
    private static Sight room(double w, double h, double d) {
        return (from, way, most) -> {
            double t = Math.min(
                    Math.min(plane(from.x(), way.x(), w / 2), plane(from.z(), way.z(), d / 2)),
                    way.y() > 0
                            ? (h - from.y()) / way.y()
                            : way.y() < 0 ? -from.y() / way.y() : Double.POSITIVE_INFINITY);
            return t <= most ? t : Double.POSITIVE_INFINITY;
        };
    }

    private static double plane(double at, double way, double half) {
        return way > 0 ? (half - at) / way : way < 0 ? (-half - at) / way : Double.POSITIVE_INFINITY;
    }

    private static final Sight OPEN_GROUND = (from, way, most) -> {
        double t = way.y() < 0 ? -from.y() / way.y() : Double.POSITIVE_INFINITY;
        return t <= most ? t : Double.POSITIVE_INFINITY;
    };

    @Property
    void oneStandsAtEyeHeightAndKeepsOffTheWalls(
            @ForAll @DoubleRange(min = -1.99, max = 1.99) double x,
            @ForAll @DoubleRange(min = -2.99, max = 2.99) double z) {
        Standpoint s = Standpoint.at(room(4, 2.5, 6), new Vec3(x, 0, z), new Vec3(0, 2, 0), new Vec3(1, -1, 0))
                .orElseThrow();
        assertThat(s.eye().y()).isCloseTo(1.6, EXACT);
        assertThat(s.height()).isCloseTo(1.6, EXACT);
        assertThat(2 - Math.abs(s.eye().x())).isGreaterThanOrEqualTo(Standpoint.CLEARANCE - 0.011);
        assertThat(3 - Math.abs(s.eye().z())).isGreaterThanOrEqualTo(Standpoint.CLEARANCE - 0.011);
        assertThat(s.towards().y()).isZero();
        assertThat(s.towards().length()).isCloseTo(1, EXACT);
        double free = room(4, 2.5, 6).distance(s.eye(), s.towards(), 100);
        assertThat(free).as("something to see").isGreaterThanOrEqualTo(Standpoint.FREE);
        assertThat(s.enclosed()).isTrue();
    }

    @Test
    void whateverWasPickedOneStandsOnTheFloorBelowIt() {
        Sight room = room(4, 2.5, 6);
        Vec3 wall = new Vec3(2, 1.9, 0);
        Standpoint s = Standpoint.at(room, wall, new Vec3(0, 1.5, 0), new Vec3(-1, 0, 0))
                .orElseThrow();
        assertThat(s.eye().y()).isCloseTo(1.6, EXACT);
        Vec3 ceiling = new Vec3(0.5, 2.5, 1);
        assertThat(Standpoint.at(room, ceiling, new Vec3(0, 1.5, 0), new Vec3(1, 0, 0))
                        .orElseThrow()
                        .eye()
                        .y())
                .isCloseTo(1.6, EXACT);
    }

    @Test
    void underALowCeilingOneStoopsAndBelowThatThereIsNoRoom() {
        Standpoint low = Standpoint.at(room(4, 1.2, 6), Vec3.ZERO, new Vec3(0, 1, 0), new Vec3(1, 0, 0))
                .orElseThrow();
        assertThat(low.height()).isCloseTo(1.2 - Standpoint.HEADROOM, EXACT);
        assertThat(Standpoint.at(room(4, 0.7, 6), Vec3.ZERO, new Vec3(0, 0.5, 0), new Vec3(1, 0, 0)))
                .isEmpty();
    }

    @Test
    void betweenTwoWallsOneStandsInTheMiddle() {
        Standpoint s = Standpoint.at(room(0.5, 2.5, 6), new Vec3(0.2, 0, 0), new Vec3(0, 1, 0), new Vec3(0, 0, 1))
                .orElseThrow();
        assertThat(s.eye().x()).isCloseTo(0, within(0.02));
        assertThat(s.towards()).isEqualTo(new Vec3(0, 0, 1));
    }

    @Test
    void underTheOpenSkyOneIsOutside() {
        Standpoint s = Standpoint.at(OPEN_GROUND, new Vec3(3, 0, 3), new Vec3(0, 5, 0), new Vec3(0.6, -0.5, 0.8))
                .orElseThrow();
        assertThat(s.enclosed()).isFalse();
        assertThat(s.eye().minus(new Vec3(3, 1.6, 3)).length()).isLessThan(0.05);
        assertThat(s.towards().x()).isCloseTo(0.6, EXACT);
        assertThat(Standpoint.isEnclosed(Sight.CLEAR, Vec3.ZERO)).isFalse();
        Sight porch = (from, way, most) -> way.y() > 0 ? 1 : OPEN_GROUND.distance(from, way, most);
        assertThat(Standpoint.isEnclosed(porch, new Vec3(0, 1, 0)))
                .as("a roof without walls")
                .isFalse();
    }
}

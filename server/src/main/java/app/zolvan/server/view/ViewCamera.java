package app.zolvan.server.view;

import app.zolvan.server.problem.Problem;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Optional;
import java.util.stream.DoubleStream;

/**
 * Where a model is looked at from.
 *
 * @param eye     x, y, z in metres
 * @param target  what it looks at and turns about
 * @param degrees of the height that it takes in
 */
public record ViewCamera(
        @NotNull @Size(min = 3, max = 3) List<@NotNull Double> eye,
        @NotNull @Size(min = 3, max = 3) List<@NotNull Double> target,
        double degrees) {
    private static final double FARTHEST = 1e6;
    private static final double NARROWEST = 2;
    private static final double WIDEST = 110;

    public double[] eyes() {
        return numbers(eye);
    }

    public double[] aim() {
        return numbers(target);
    }

    private static double[] numbers(List<Double> of) {
        return of.stream().mapToDouble(Double::doubleValue).toArray();
    }

    /** A sentence where that is no view; empty where it is one. */
    public Optional<String> fault() {
        boolean there = eye.size() == 3
                && target.size() == 3
                && DoubleStream.concat(DoubleStream.of(eyes()), DoubleStream.of(aim()))
                        .allMatch(v -> Math.abs(v) <= FARTHEST);
        return there && !eye.equals(target) && degrees >= NARROWEST && degrees <= WIDEST
                ? Optional.empty()
                : Optional.of("That is no view: it needs a place, something to look at, and 2 to 110 degrees.");
    }

    /** @throws Problem where that is no view */
    public void require() {
        fault().ifPresent(sentence -> {
            throw Problem.ofField("eye", sentence);
        });
    }
}

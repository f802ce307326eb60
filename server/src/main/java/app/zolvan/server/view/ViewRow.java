package app.zolvan.server.view;

import java.util.Arrays;
import java.util.UUID;

/**
 * A named view of a project's model.
 *
 * @param eye       where it is seen from, in metres
 * @param target    what it looks at and turns about
 * @param degrees   how much of the height it takes in
 * @param lookedInto parts that one sees through in it from outside, besides those that one always does
 * @param enclosed  whether it is from inside something
 * @param position  its place among all
 */
public record ViewRow(
        UUID id,
        UUID projectId,
        String name,
        double[] eye,
        double[] target,
        double degrees,
        int[] lookedInto,
        boolean enclosed,
        int position) {

    public ViewCamera camera() {
        return new ViewCamera(
                Arrays.stream(eye).boxed().toList(),
                Arrays.stream(target).boxed().toList(),
                degrees);
    }

    public ViewRow named(String other) {
        return new ViewRow(id, projectId, other, eye, target, degrees, lookedInto, enclosed, position);
    }

    public ViewRow lookingInto(int[] parts) {
        return new ViewRow(id, projectId, name, eye, target, degrees, parts, enclosed, position);
    }

    @Override
    public boolean equals(Object o) {
        return o instanceof ViewRow v
                && id.equals(v.id)
                && projectId.equals(v.projectId)
                && name.equals(v.name)
                && Arrays.equals(eye, v.eye)
                && Arrays.equals(target, v.target)
                && degrees == v.degrees
                && Arrays.equals(lookedInto, v.lookedInto)
                && enclosed == v.enclosed
                && position == v.position;
    }

    @Override
    public int hashCode() {
        return id.hashCode();
    }
}

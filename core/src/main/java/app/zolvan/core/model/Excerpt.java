package app.zolvan.core.model;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * A model without what some of its groups hold.
 *
 * @param parts for each part its index in the whole model
 */
public record Excerpt(Model model, List<Integer> parts) {

    /** @param groups indices of groups that go, with all in them */
    public static Excerpt without(Model whole, Set<Integer> groups) {
        int[] number = new int[whole.groups().size()];
        List<Model.Group> kept = new ArrayList<>();
        for (int g = 0; g < number.length; g++) {
            Model.Group group = whole.groups().get(g);
            boolean gone = groups.contains(g) || (group.parent() != Model.NONE && number[group.parent()] == Model.NONE);
            number[g] = gone ? Model.NONE : kept.size();
            if (!gone) {
                int parent = group.parent() == Model.NONE ? Model.NONE : number[group.parent()];
                kept.add(new Model.Group(parent, group.name(), group.local()));
            }
        }
        List<Model.Part> parts = new ArrayList<>();
        List<Integer> origin = new ArrayList<>();
        for (int p = 0; p < whole.parts().size(); p++) {
            Model.Part part = whole.parts().get(p);
            if (part.group() == Model.NONE || number[part.group()] != Model.NONE) {
                int group = part.group() == Model.NONE ? Model.NONE : number[part.group()];
                parts.add(new Model.Part(group, part.name(), part.local(), part.mesh(), part.sourceOfSpan()));
                origin.add(p);
            }
        }
        Model model = new Model(kept, parts, whole.meshes(), whole.sources(), whole.images(), whole.notes());
        return new Excerpt(model, List.copyOf(origin));
    }
}

package app.zolvan.server.model;

import app.zolvan.server.model.ModelMapper.GroupRow;
import app.zolvan.server.model.ModelMapper.ModelRow;
import app.zolvan.server.model.ModelMapper.PartRow;
import app.zolvan.server.model.ModelMapper.PlacedRow;
import app.zolvan.server.model.ModelMapper.SetRow;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;

/**
 * A model as it is stored: what one state of it is, to be put back as a whole. Groups and parts of the model that the
 * project was made of stand before those of the models that were added, each of which has one group around all it holds.
 */
record ModelRows(
        ModelRow model, List<PlacedRow> placed, List<GroupRow> groups, List<SetRow> sets, List<PartRow> parts) {

    static ModelRows of(UUID project, ModelMapper mapper, ModelRow model) {
        return new ModelRows(
                model, mapper.placed(project), mapper.groups(project), mapper.sets(project), mapper.parts(project));
    }

    /** How many groups the first model has. */
    int firstGroups() {
        return placed.stream()
                .mapToInt(PlacedRow::groupIdx)
                .filter(g -> g >= 0)
                .min()
                .orElse(groups.size());
    }

    /** How many parts the first model has. */
    int firstParts() {
        int[] models = modelOfGroup();
        int n = 0;
        while (n < parts.size() && modelOf(parts.get(n), models) == 0) {
            n++;
        }
        return n;
    }

    /** The parts of the first model. */
    List<PartRow> ownParts() {
        return parts.subList(0, firstParts());
    }

    /** The faces of designers' that parts have. */
    Set<Integer> ownFaces() {
        return parts.stream()
                .flatMapToInt(p -> Arrays.stream(p.ownFaces()))
                .filter(f -> f != Scene.NO_FACE)
                .boxed()
                .collect(Collectors.toSet());
    }

    /** For each group the model that it is in. */
    int[] modelOfGroup() {
        int[] out = new int[groups.size()];
        for (int g = 0; g < out.length; g++) {
            int at = g;
            int parent = groups.get(g).parent();
            out[g] = placed.stream()
                    .filter(m -> m.groupIdx() == at)
                    .mapToInt(PlacedRow::idx)
                    .findFirst()
                    .orElse(parent >= 0 ? out[parent] : 0);
        }
        return out;
    }

    static int modelOf(PartRow part, int[] modelOfGroup) {
        return part.groupIdx() >= 0 ? modelOfGroup[part.groupIdx()] : 0;
    }

    /** These with other rows for the first model; the sets are the others'. */
    ModelRows withFirst(ModelRows first) {
        int moreGroups = first.groups.size() - firstGroups();
        int moreParts = first.parts.size() - firstParts();
        List<GroupRow> allGroups = new ArrayList<>(first.groups);
        groups.stream()
                .skip(firstGroups())
                .forEach(g -> allGroups.add(new GroupRow(
                        g.projectId(),
                        g.idx() + moreGroups,
                        g.parent() < 0 ? g.parent() : g.parent() + moreGroups,
                        g.name(),
                        g.local())));
        List<PartRow> allParts = new ArrayList<>(first.parts);
        parts.stream()
                .skip(firstParts())
                .forEach(p -> allParts.add(p.as(p.idx() + moreParts, p.groupIdx() + moreGroups, p.world(), p.size())));
        List<PlacedRow> all = placed.stream()
                .map(m -> m.groupIdx() < 0 ? m : m.inGroup(m.groupIdx() + moreGroups))
                .toList();
        return new ModelRows(first.model, all, allGroups, first.sets, allParts);
    }
}

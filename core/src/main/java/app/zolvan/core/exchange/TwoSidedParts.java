package app.zolvan.core.exchange;

import app.zolvan.core.assign.Look;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.List;

/**
 * Makes the backs of surfaces that show something else than their fronts parts of their own, since files know surfaces of one
 * look. What has aged looks new there.
 */
final class TwoSidedParts {
    private TwoSidedParts() {}

    static DressedModel split(DressedModel dressed) {
        Model m = dressed.model();
        int own = m.parts().size();
        List<Model.Part> parts = new ArrayList<>(m.parts());
        List<Mesh> meshes = new ArrayList<>(m.meshes());
        List<List<Look>> backs = new ArrayList<>();
        for (int p = 0; p < own; p++) {
            Model.Part part = m.parts().get(p);
            Mesh mesh = m.meshOf(part);
            List<Integer> spans = new ArrayList<>();
            List<Look> looks = new ArrayList<>();
            for (int s = 0; s < mesh.spanCount(); s++) {
                Look back = dressed.back().apply(p, s);
                if (back != null) {
                    spans.add(s);
                    looks.add(back.onOneSide());
                }
            }
            if (!spans.isEmpty()) {
                parts.add(new Model.Part(
                        part.group(),
                        part.name() + ", back",
                        part.local(),
                        meshes.size(),
                        spans.stream().map(part.sourceOfSpan()::get).toList()));
                meshes.add(mesh.ofSpans(spans).turnedOver());
                backs.add(looks);
            }
        }
        if (backs.isEmpty()) {
            return dressed;
        }
        return new DressedModel(
                dressed.name(),
                new Model(m.groups(), parts, meshes, m.sources(), m.images(), m.notes()),
                (part, span) -> {
                    if (part >= own) {
                        return backs.get(part - own).get(span);
                    }
                    Look front = dressed.look().apply(part, span);
                    return front == null || dressed.back().apply(part, span) == null ? front : front.onOneSide();
                },
                dressed.image(),
                (part, corrodes) -> part < own ? dressed.ages().apply(part, corrodes) : null);
    }
}

package app.zolvan.core.exchange;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.assign.Look;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Material;
import app.zolvan.core.model.Model;
import app.zolvan.core.render.scene.Displacement;
import app.zolvan.core.render.texture.Textures;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Makes reliefs that are shapes part of a model's meshes, so that any format carries them. */
final class RaisedParts {
    private RaisedParts() {}

    static DressedModel raised(DressedModel dressed) {
        Model m = dressed.model();
        Textures textures = new Textures(dressed.image(), Textures.BUDGET);
        List<Model.Part> parts = new ArrayList<>(m.parts());
        List<Mesh> meshes = new ArrayList<>(m.meshes());
        Map<Integer, Mesh> aged = new HashMap<>();
        for (int p = 0; p < parts.size(); p++) {
            Model.Part part = parts.get(p);
            Mesh mesh = m.meshOf(part);
            List<Displacement.Relief> reliefs = new ArrayList<>();
            for (int s = 0; s < mesh.spanCount(); s++) {
                reliefs.add(relief(dressed.look().apply(p, s), textures));
            }
            if (reliefs.stream().allMatch(r -> r == null)) {
                continue;
            }
            AgeFields age = age(dressed, p, mesh.spanCount());
            Mesh plain = age == null ? mesh : mesh.parted(age.atlas().uv());
            Mesh raised = Displacement.of(plain, m.partToWorld(part), reliefs, Displacement.MOST);
            if (age != null) {
                aged.put(p, raised);
            }
            parts.set(p, new Model.Part(part.group(), part.name(), part.local(), meshes.size(), part.sourceOfSpan()));
            meshes.add(raised);
        }
        if (meshes.size() == m.meshes().size()) {
            return dressed;
        }
        return new DressedModel(
                dressed.name(),
                new Model(m.groups(), parts, meshes, m.sources(), m.images(), m.notes()),
                (part, span) -> done(dressed.look().apply(part, span)),
                dressed.image(),
                (part, corrodes) -> {
                    AgeFields fields = dressed.ages().apply(part, corrodes);
                    return fields == null || !aged.containsKey(part) ? fields : fields.over(aged.get(part));
                });
    }

    /** How readily a part ages, where a look of it has aged. */
    private static AgeFields age(DressedModel dressed, int part, int spans) {
        for (int s = 0; s < spans; s++) {
            Look look = dressed.look().apply(part, s);
            var ageing = look == null ? null : look.physical().beyond().ageing();
            if (ageing != null) {
                return dressed.ages().apply(part, ageing.corrodes());
            }
        }
        return null;
    }

    /** What a look asks for; null for none. */
    static Displacement.Relief relief(Look look, Textures textures) {
        return look == null
                ? null
                : Displacement.Relief.of(
                        look.material().surface(),
                        look.mapping() instanceof Mapping.Box,
                        textures.of(look.material().surface()));
    }

    private static Look done(Look look) {
        if (look == null || !Displacement.isAsked(look.material().surface())) {
            return look;
        }
        Material m = look.material();
        return new Look(
                new Material(m.code(), m.name(), m.kind(), Displacement.done(m.surface())),
                look.mapping(),
                look.physical(),
                look.from());
    }
}

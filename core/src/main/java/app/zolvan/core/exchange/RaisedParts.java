package app.zolvan.core.exchange;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.assign.Look;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.ShapedRelief;
import app.zolvan.core.model.Model;
import app.zolvan.core.render.scene.Displacement;
import app.zolvan.core.render.texture.Textures;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Function;

/** Makes reliefs that are shapes part of meshes, so that any format and any screen shows them. */
public final class RaisedParts {
    private RaisedParts() {}

    /**
     * @param stretch how much the mesh's own axes are stretched on their way to the world
     * @param looks of each span
     * @param ages  how readily the mesh ages, by whether it weathers as metal does; null where nobody worked it out
     * @param most  how many triangles it may become
     * @return the mesh with its reliefs as shapes; where a look has aged, its second coordinates say where in the atlas of
     *     ages a corner lies. Null where no look asks for a shape
     */
    public static Mesh shape(
            Mesh mesh, Vec3 stretch, List<Look> looks, Textures textures, Function<Boolean, AgeFields> ages, int most) {
        List<Displacement.Relief> reliefs = new ArrayList<>();
        for (Look look : looks) {
            reliefs.add(
                    look == null
                            ? null
                            : Displacement.Relief.of(
                                    look.material().surface(),
                                    look.mapping() instanceof Mapping.Box,
                                    textures.of(look.material().surface())));
        }
        if (reliefs.stream().allMatch(Objects::isNull)) {
            return null;
        }
        AgeFields age = looks.stream()
                .filter(Objects::nonNull)
                .map(l -> Ageing.of(l.material().surface()))
                .filter(a -> !a.isNone())
                .findFirst()
                .map(a -> ages.apply(a.corrodes()))
                .orElse(null);
        return Displacement.of(mesh, stretch, reliefs, age, most);
    }

    static DressedModel raised(DressedModel dressed) {
        Model m = dressed.model();
        Textures textures = new Textures(dressed.image(), Textures.BUDGET);
        List<Model.Part> parts = new ArrayList<>(m.parts());
        List<Mesh> meshes = new ArrayList<>(m.meshes());
        Map<Integer, Mesh> raised = new HashMap<>();
        for (int p = 0; p < parts.size(); p++) {
            int index = p;
            Model.Part part = parts.get(p);
            Mesh mesh = m.meshOf(part);
            List<Look> looks = new ArrayList<>();
            for (int s = 0; s < mesh.spanCount(); s++) {
                looks.add(dressed.look().apply(p, s));
            }
            Mesh shape = shape(
                    mesh,
                    m.partToWorld(part).stretch(),
                    looks,
                    textures,
                    corrodes -> dressed.ages().apply(index, corrodes),
                    Displacement.MOST);
            if (shape != null) {
                raised.put(p, shape);
                parts.set(
                        p, new Model.Part(part.group(), part.name(), part.local(), meshes.size(), part.sourceOfSpan()));
                meshes.add(shape);
            }
        }
        if (raised.isEmpty()) {
            return dressed;
        }
        return new DressedModel(
                dressed.name(),
                new Model(m.groups(), parts, meshes, m.sources(), m.images(), m.notes()),
                (part, span) -> done(dressed.look().apply(part, span)),
                dressed.image(),
                (part, corrodes) -> {
                    AgeFields fields = dressed.ages().apply(part, corrodes);
                    return fields == null || !raised.containsKey(part) ? fields : fields.over(raised.get(part));
                });
    }

    private static Look done(Look look) {
        return look == null
                ? null
                : look.showing(ShapedRelief.done(look.material().surface()));
    }
}

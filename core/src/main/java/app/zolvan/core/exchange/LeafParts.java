package app.zolvan.core.exchange;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.ageing.Leaves;
import app.zolvan.core.assign.Look;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Foliage;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Makes leaves parts of a model: those of a part's span are one part more, beside it. */
final class LeafParts {
    /** So many leaves may be in one file. */
    static final int MOST = 200_000;

    private final DressedModel dressed;
    private final List<Model.Part> parts;
    private final List<Mesh> meshes;
    private final Map<Integer, Look> looks = new HashMap<>();
    private int count;

    private LeafParts(DressedModel dressed) {
        this.dressed = dressed;
        this.parts = new ArrayList<>(dressed.model().parts());
        this.meshes = new ArrayList<>(dressed.model().meshes());
    }

    static DressedModel grown(DressedModel dressed) throws TooManyLeaves {
        LeafParts all = new LeafParts(dressed);
        Model m = dressed.model();
        for (int p = 0; p < m.parts().size(); p++) {
            for (int s = 0; s < m.meshOf(m.parts().get(p)).spanCount(); s++) {
                all.grow(p, s);
            }
        }
        if (all.looks.isEmpty()) {
            return dressed;
        }
        int own = m.parts().size();
        return new DressedModel(
                dressed.name(),
                new Model(m.groups(), all.parts, all.meshes, m.sources(), m.images(), m.notes()),
                (part, span) ->
                        part < own ? withoutWish(dressed.look().apply(part, span), dressed, part) : all.looks.get(part),
                dressed.image(),
                (part, corrodes) -> part < own ? dressed.ages().apply(part, corrodes) : null);
    }

    private void grow(int index, int span) throws TooManyLeaves {
        Model.Part part = parts.get(index);
        Foliage foliage = foliage(dressed.look().apply(index, span));
        AgeFields fields = foliage == null ? null : dressed.ages().apply(index, false);
        if (fields == null) {
            return;
        }
        Transform toWorld = dressed.model().partToWorld(part);
        Leaves leaves = Leaves.on(dressed.model().meshOf(part), toWorld, span, fields, foliage.size());
        List<Leaves.Leaf> there = leaves.covering(foliage.cover());
        count += there.size();
        if (count > MOST) {
            throw new TooManyLeaves();
        }
        if (!there.isEmpty()) {
            Material material = new Material("", "Leaves", null, foliage.surface());
            looks.put(parts.size(), Look.of(material, null, 0, null));
            parts.add(new Model.Part(
                    part.group(),
                    part.name() + " leaves",
                    part.local(),
                    meshes.size(),
                    List.of(part.sourceOfSpan().get(span))));
            meshes.add(merged(there, toWorld.inverse()));
        }
    }

    private static Foliage foliage(Look look) {
        return look == null ? null : Foliage.of(look.material().surface());
    }

    /** A look whose leaves have become parts does not ask for them any more. */
    private static Look withoutWish(Look look, DressedModel dressed, int part) {
        if (foliage(look) == null || dressed.ages().apply(part, false) == null) {
            return look;
        }
        return look.showing(look.material().surface().with(Parameter.LEAF_COVER, 0));
    }

    /** One mesh of all, in the space of the part they grow on. */
    private static Mesh merged(List<Leaves.Leaf> leaves, Transform toPart) {
        Mesh blade = Leaves.BLADE;
        int vertices = blade.vertexCount();
        int corners = blade.indices().length;
        float[] positions = new float[3 * vertices * leaves.size()];
        float[] normals = new float[positions.length];
        int[] indices = new int[corners * leaves.size()];
        int last = toPart.determinant() < 0 ? 1 : 2; // a mirrored part turns its triangles round once more
        for (int i = 0; i < leaves.size(); i++) {
            Transform place = toPart.after(leaves.get(i).toWorld());
            for (int v = 0; v < vertices; v++) {
                put(place.point(vector(blade.positions(), v)), positions, i * vertices + v);
                put(place.normal(vector(blade.normals(), v)), normals, i * vertices + v);
            }
            for (int c = 0; c < corners; c += 3) {
                indices[i * corners + c] = i * vertices + blade.indices()[c];
                indices[i * corners + c + 1] = i * vertices + blade.indices()[c + 3 - last];
                indices[i * corners + c + 2] = i * vertices + blade.indices()[c + last];
            }
        }
        return new Mesh(positions, normals, null, null, indices, new int[] {0, indices.length / 3}, null);
    }

    private static Vec3 vector(float[] from, int at) {
        return new Vec3(from[3 * at], from[3 * at + 1], from[3 * at + 2]);
    }

    private static void put(Vec3 v, float[] to, int at) {
        to[3 * at] = (float) v.x();
        to[3 * at + 1] = (float) v.y();
        to[3 * at + 2] = (float) v.z();
    }
}

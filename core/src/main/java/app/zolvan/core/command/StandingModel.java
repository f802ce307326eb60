package app.zolvan.core.command;

import app.zolvan.core.assign.Look;
import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Lamp;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Digest;
import app.zolvan.core.model.Model;
import app.zolvan.core.render.scene.Dress;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.texture.Textures;
import app.zolvan.core.render.trace.Kernel;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;

/** A model with the looks it arrived with, standing on a neutral floor. */
public final class StandingModel {
    private StandingModel() {}

    /** Names all that a model shows: where its parts stand, their shapes, and what they wear. */
    public static String identity(Model model) {
        StringBuilder all = new StringBuilder();
        for (Model.Part part : model.parts()) {
            all.append(Arrays.toString(model.partToWorld(part).columns())).append(part.sourceOfSpan());
        }
        for (Mesh m : model.meshes()) {
            all.append(Arrays.hashCode(m.positions())).append(' ').append(Arrays.hashCode(m.normals()));
            all.append(' ').append(Arrays.hashCode(m.indices())).append(' ').append(Arrays.hashCode(m.spanStarts()));
            all.append(' ')
                    .append(Arrays.hashCode(m.uv()))
                    .append(' ')
                    .append(Arrays.hashCode(m.colours()))
                    .append(' ');
        }
        model.sources().forEach(s -> all.append(s.material().surface()));
        return Digest.of(all.toString().getBytes(StandardCharsets.UTF_8));
    }

    /** @param sun null for none */
    public static RenderScene scene(Model model, Kernel.Kind kind, Textures textures, Lamp.Sun sun) {
        RenderScene.Builder builder = new RenderScene.Builder(kind, textures);
        if (sun != null) {
            builder.lamp(sun);
        }
        for (Model.Part part : model.parts()) {
            boolean open = !Topology.of(model.meshOf(part)).isClosed();
            List<Dress> dresses = part.sourceOfSpan().stream()
                    .map(s -> s == Model.NONE
                            ? Look.NEUTRAL
                            : model.sources().get(s).material())
                    .map(m -> Dress.of(Look.of(m, null, 0, null)))
                    .map(d -> open ? d.open() : d)
                    .toList();
            builder.addDressed(model.meshOf(part), model.partToWorld(part), dresses);
        }
        Box3 box = model.bounds();
        double reach = 20 * box.size().length();
        Vec3 centre = box.min().plus(box.max()).times(0.5);
        float y = (float) (box.min().y() - 1e-4 * box.size().length());
        float[] p = {
            (float) (centre.x() - reach),
            y,
            (float) (centre.z() - reach),
            (float) (centre.x() + reach),
            y,
            (float) (centre.z() - reach),
            (float) (centre.x() + reach),
            y,
            (float) (centre.z() + reach),
            (float) (centre.x() - reach),
            y,
            (float) (centre.z() + reach)
        };
        float[] n = {0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 1, 0};
        Mesh floor = new Mesh(p, n, null, null, new int[] {0, 2, 1, 0, 3, 2}, new int[] {0, 2}, null);
        Surface grey =
                Surface.STANDARD.with(Parameter.BASE_COLOR, 0.55, 0.55, 0.55).with(Parameter.SPECULAR_WEIGHT, 0);
        return builder.add(floor, Transform.IDENTITY, List.of(grey)).build();
    }
}

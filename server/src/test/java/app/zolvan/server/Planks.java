package app.zolvan.server;

import app.zolvan.core.assign.Look;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.gltf.GltfWriter;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Model;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/** Made-up models of planks: level strips a tenth of a metre wide, along x from the origin. */
final class Planks {
    private Planks() {}

    /** A part: its length and at which height it lies. */
    record Plank(String name, double length, double height, int source) {}

    /** A GLB of planks of two materials, oak and one of the given name. */
    static byte[] file(List<Plank> planks, String paint) throws IOException {
        List<Material> sources = List.of(
                new Material("", "oak", null, Surface.STANDARD.with(Parameter.BASE_COLOR, 0.3, 0.2, 0.1)),
                new Material("", paint, null, Surface.STANDARD.with(Parameter.BASE_COLOR, 0.1, 0.1, 0.5)));
        List<Model.Part> parts = new ArrayList<>();
        List<Mesh> meshes = new ArrayList<>();
        for (Plank p : planks) {
            TriangleSoup soup = new TriangleSoup();
            Vec3 x = Vec3.axis(0).times(p.length);
            Vec3 z = Vec3.axis(2).times(0.1);
            soup.quad(Vec3.ZERO, z, z.plus(x), x);
            meshes.add(soup.toMesh(0.1));
            parts.add(
                    new Model.Part(0, p.name, Transform.translation(0, p.height, 0), parts.size(), List.of(p.source)));
        }
        Model model = new Model(
                List.of(new Model.Group(Model.NONE, "Table", Transform.IDENTITY)),
                parts,
                meshes,
                List.of(),
                Map.of(),
                List.of());
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        GltfWriter.write(
                new DressedModel(
                        "Table",
                        model,
                        (p, s) -> Look.of(sources.get(planks.get(p).source), null, 0, null),
                        image -> new byte[0]),
                out);
        return out.toByteArray();
    }
}

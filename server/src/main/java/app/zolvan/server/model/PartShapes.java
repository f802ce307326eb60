package app.zolvan.server.model;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshCodec;
import app.zolvan.core.geometry.MeshMeasure;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.prepare.Sides;
import app.zolvan.server.asset.AssetService;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** Makes other shapes of parts' shapes, as commands ask for them. */
@Component
public class PartShapes {
    private final AssetService assets;

    PartShapes(AssetService assets) {
        this.assets = assets;
    }

    /** Which way a part's triangles are to face. */
    public enum Turn {
        /** The other way. */
        FLIP,
        /** Alike, and outward. */
        OUTWARD
    }

    /** A part with its triangles turned; its own state where none had to be. */
    public PartState turned(UUID project, Scene.Part part, Turn how) {
        PartState before = PartState.of(part);
        Transform toWorld = Transform.ofColumns(
                part.world().stream().mapToDouble(Double::doubleValue).toArray());
        Mesh mesh = MeshCodec.decode(assets.bytes(part.mesh()));
        Optional<Mesh> changed = switch (how) {
            case FLIP -> Optional.of(Sides.flip(mesh));
            case OUTWARD -> Sides.unify(mesh, toWorld.meanScale());
        };
        if (changed.isEmpty()) {
            return before;
        }
        Preparation.Shape shape = Preparation.again(changed.get(), toWorld);
        String digest = assets.store(MeshCodec.encode(shape.mesh()), AssetService.BINARY);
        assets.addToProject(project, digest);
        MeshMeasure m = shape.measure();
        return before.shaped(new PartState.Shape(
                digest, shape.mesh().triangleCount(), m.area(), m.volume(), m.closed(), m.meanThickness()));
    }
}

package app.zolvan.server.model;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshCodec;
import app.zolvan.core.geometry.MeshMeasure;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.prepare.EasedEdges;
import app.zolvan.core.prepare.Repair;
import app.zolvan.core.prepare.Sides;
import app.zolvan.core.prepare.Splitting;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.problem.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.HttpStatus;
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
        Transform toWorld = part.toWorld();
        Mesh mesh = plain(part);
        Optional<Mesh> changed = switch (how) {
            case FLIP -> Optional.of(Sides.flip(mesh));
            case OUTWARD -> Sides.unify(mesh, toWorld.meanScale());
        };
        return changed.isEmpty() ? before : before.shaped(stored(project, part, changed.get(), toWorld));
    }

    /** A part with some of its faces turned over. */
    public PartState flipped(UUID project, Scene.Part part, Set<Integer> faces) {
        Transform toWorld = part.toWorld();
        Mesh mesh = plain(part);
        return PartState.of(part).shaped(stored(project, part, Sides.flip(mesh, faces), toWorld));
    }

    /**
     * A part with its mesh mended; its own state where there was nothing to mend.
     *
     * @throws Problem with the part's name where it can't be mended so
     */
    public Repaired repaired(UUID project, Scene.Part part, Repair repair, double amount) {
        PartState before = PartState.of(part);
        return repairing(part, repair, amount)
                .map(o -> new Repaired(before.shaped(stored(project, part, o.mesh(), part.toWorld())), o.extent()))
                .orElse(new Repaired(before, Repair.Extent.NONE));
    }

    /**
     * What a repair would make of a part; nothing where there is nothing to mend. Keeps nothing.
     *
     * @throws Problem with the part's name where it can't be mended so
     */
    public Optional<Repair.Outcome> repairing(Scene.Part part, Repair repair, double amount) {
        try {
            return repair.apply(plain(part), part.toWorld().stretch(), amount);
        } catch (Repair.RefusedException e) {
            throw Problem.of(HttpStatus.UNPROCESSABLE_CONTENT, "no-repair", part.name() + ": " + e.getMessage());
        }
    }

    /** A part in another place, where it may have another size: its coordinates laid anew, and measured. */
    public PartState resized(UUID project, Scene.Part part, Transform toWorld) {
        return PartState.of(part).shaped(stored(project, part, plain(part), toWorld));
    }

    /** A part as it is mended, and how much that was. */
    public record Repaired(PartState state, Repair.Extent extent) {}

    /** Says what a piece of a span is in. */
    public interface PieceOf {
        /**
         * @param span the span that it is of
         * @param kind its kind; 0 or one that says nothing for what stays as it is
         */
        Piece of(int span, int kind);
    }

    /**
     * @param set     a matching set
     * @param ownFace a face of a designer's; {@link Scene#NO_FACE} for none
     */
    public record Piece(int set, int ownFace) {}

    /** A part with the kinds of surface in its spans in spans of their own. */
    public PartState split(UUID project, Scene.Part part, Splitting splitting, PieceOf to) {
        List<Integer> sets = new ArrayList<>();
        List<Integer> homes = new ArrayList<>();
        List<Integer> faces = new ArrayList<>();
        for (int span = 0; span < part.sets().size(); span++) {
            for (int kind : splitting.kindsIn(new Model.Region(part.index(), span))) {
                Piece piece = to.of(span, kind);
                sets.add(piece.set);
                homes.add(part.homes().get(span));
                faces.add(piece.ownFace);
            }
        }
        PartState state = PartState.of(part).in(new PartState.Spans(sets, homes, faces));
        if (sets.size() == part.sets().size()) {
            return state;
        }
        Mesh mesh = splitting.apply(plain(part), part.index());
        PartState.Shape plain = state.shape().plain(put(project, mesh), mesh.triangleCount());
        return state.shaped(eased(project, plain, mesh, part.toWorld(), part.eased()));
    }

    /** A part's geometry without eased edges. */
    public Mesh plain(Scene.Part part) {
        return MeshCodec.decode(assets.bytes(part.plain()));
    }

    private PartState.Shape stored(UUID project, Scene.Part part, Mesh changed, Transform toWorld) {
        Preparation.Shape shape = Preparation.again(changed, toWorld);
        MeshMeasure m = shape.measure();
        PartState.Shape plain = new PartState.Shape(
                put(project, shape.mesh()),
                shape.mesh().triangleCount(),
                m.area(),
                m.volume(),
                m.closed(),
                m.meanThickness(),
                null,
                0);
        return eased(project, plain, shape.mesh(), toWorld, part.eased());
    }

    private String put(UUID project, Mesh mesh) {
        String digest = assets.store(MeshCodec.encode(mesh), AssetService.BINARY);
        assets.addToProject(project, digest);
        return digest;
    }

    /** What easing a part's edges would make of them; nothing where there are none to ease. Keeps nothing. */
    public Optional<EasedEdges.Outcome> easing(Scene.Part part, double width) {
        return EasedEdges.of(plain(part), width / part.toWorld().meanScale());
    }

    /** A part with its edges eased, or, for a width of 0, as they are. */
    public PartState.Shape eased(UUID project, Scene.Part part, double width) {
        Mesh mesh = plain(part);
        PartState.Shape plain = PartState.of(part).shape().plain(part.plain(), mesh.triangleCount());
        return eased(project, plain, mesh, part.toWorld(), width);
    }

    /** @param width in metres; 0 for none. It is kept where there is nothing to ease now: the shape may change again */
    PartState.Shape eased(UUID project, PartState.Shape plain, Mesh mesh, Transform toWorld, double width) {
        Optional<Mesh> eased = width > 0
                ? EasedEdges.of(mesh, width / toWorld.meanScale()).map(EasedEdges.Outcome::mesh)
                : Optional.empty();
        return eased.map(e -> plain.drawn(put(project, e), e.triangleCount(), width))
                .orElse(plain.drawn(plain.mesh(), plain.triangles(), width));
    }
}

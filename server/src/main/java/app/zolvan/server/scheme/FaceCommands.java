package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.prepare.EdgeLoop;
import app.zolvan.core.prepare.Splitting;
import app.zolvan.server.account.Account;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.model.PartShapes;
import app.zolvan.server.model.PartState;
import app.zolvan.server.model.PartState.Spans;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Faces that designers cut into parts, so that these can be given looks by themselves. Applied as {@link CommandService} does. */
@Service
class FaceCommands {
    private static final int COORDINATES = 3;

    private final CommandService commands;
    private final ProjectService projects;
    private final ModelStore models;
    private final PartShapes shapes;
    private final EntryMoves moves;

    FaceCommands(
            CommandService commands, ProjectService projects, ModelStore models, PartShapes shapes, EntryMoves moves) {
        this.commands = commands;
        this.projects = projects;
        this.models = models;
        this.shapes = shapes;
        this.moves = moves;
    }

    /**
     * Something picked on a part.
     *
     * @param part    index of the part
     * @param mesh    SHA-256 of the geometry that it was picked on, see {@link Scene.Part#plain}
     * @param numbers of its triangles or vertices
     */
    record Picked(int part, String mesh, List<Integer> numbers) {}

    /**
     * A way along edges.
     *
     * @param points   x, y, z of each of its vertices, in the part's space
     * @param pieces   into which it parts the surface, where it is closed; least area first
     * @param sentence what is wrong with it; null for nothing
     */
    record Way(
            List<Float> points,
            List<EdgeLoop.Piece> pieces,
            @Nullable String sentence) {}

    /**
     * The way along edges through vertices, one after the other.
     *
     * @param closed whether it goes back to the first
     */
    Way way(Account account, UUID projectId, Picked vertices, boolean closed) {
        projects.require(account, projectId);
        Scene.Part part = require(models.scene(projectId), vertices);
        Mesh mesh = shapes.plain(part);
        requireBelow(mesh.vertexCount(), vertices.numbers());
        EdgeLoop loop = new EdgeLoop(mesh, part.toWorld());
        List<Integer> way = loop.through(vertices.numbers(), closed);
        if (way.isEmpty()) {
            return new Way(List.of(), List.of(), "No edges lead there: it is another body of this part.");
        }
        List<Float> points = new ArrayList<>();
        for (int v : way) {
            for (int k = 0; k < COORDINATES; k++) {
                points.add(mesh.positions()[COORDINATES * v + k]);
            }
        }
        List<EdgeLoop.Piece> pieces = closed ? loop.pieces(way) : List.of();
        return new Way(
                points,
                pieces,
                closed && pieces.size() < 2
                        ? "This loop does not part the surface. Go all around what is to be a face."
                        : null);
    }

    /** Makes a face of some triangles of a part; those that were in another one leave it. */
    @Transactional
    ProjectState cut(Edit edit, Picked triangles, String name) {
        String wanted = GivenName.require(name);
        Project project = commands.begin(edit);
        Scene.Part part = require(models.scene(edit.project()), triangles);
        Mesh mesh = shapes.plain(part);
        requireBelow(mesh.triangleCount(), triangles.numbers());
        BitSet picked = new BitSet();
        triangles.numbers().forEach(picked::set);
        if (picked.cardinality() == mesh.triangleCount()) {
            throw Problem.ofField("triangles", "That is all of " + part.name() + ": give looks to the part itself.");
        }
        Splitting splitting = Splitting.ofTriangles(mesh, part.index(), picked::get);
        int face = models.addOwnFace(edit.project(), wanted);
        PartState after = shapes.split(
                edit.project(),
                part,
                splitting,
                (span, kind) -> new PartShapes.Piece(
                        part.sets().get(span), kind == 0 ? part.ownFaces().get(span) : face));
        return commands.commit(
                edit,
                project,
                "Cut face “" + wanted + "” out of " + part.name(),
                List.of(new Change.OfPart(part.index(), PartState.of(part), after)));
    }

    /** What was a face is nothing but its part again; the looks that it had by itself go. */
    @Transactional
    ProjectState join(Edit edit, int face) {
        Project project = commands.begin(edit);
        Scene scene = models.scene(edit.project());
        scene.requireTarget(Level.FACE, face);
        List<Change> changes = new ArrayList<>();
        moves.move(edit.project(), Level.FACE, f -> f == face ? null : (Integer) f, changes);
        for (Scene.Part p : scene.parts()) {
            if (p.ownFaces().contains(face)) {
                List<Integer> faces = p.ownFaces().stream()
                        .map(f -> f == face ? Scene.NO_FACE : f)
                        .toList();
                PartState before = PartState.of(p);
                changes.add(new Change.OfPart(p.index(), before, before.in(new Spans(p.sets(), p.homes(), faces))));
            }
        }
        return commands.commit(edit, project, "Join " + scene.told(Level.FACE, face) + " again", changes);
    }

    @Transactional
    ProjectState rename(Edit edit, int face, String name) {
        Project project = commands.begin(edit);
        Scene scene = models.scene(edit.project());
        scene.requireTarget(Level.FACE, face);
        String old = scene.ownFaces().get(face).name();
        return commands.commit(
                edit, project, "Rename face " + old, List.of(new Change.OfFace(face, old, GivenName.require(name))));
    }

    private static Scene.Part require(Scene scene, Picked picked) {
        Scene.Part part = scene.requireRegion(picked.part(), 0);
        scene.model(part.model()).requireUnlocked();
        if (!part.plain().equals(picked.mesh())) {
            throw Problem.conflict(
                    "other-shape", part.name() + " has another shape by now. Begin its face anew.", null);
        }
        return part;
    }

    private static void requireBelow(int count, List<Integer> numbers) {
        if (numbers.stream().anyMatch(n -> n < 0 || n >= count)) {
            throw Problem.of(HttpStatus.BAD_REQUEST, "not-there", "The part has no such triangles or corners.");
        }
    }
}

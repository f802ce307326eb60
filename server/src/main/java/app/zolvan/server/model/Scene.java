package app.zolvan.server.model;

import app.zolvan.core.assign.Level;
import app.zolvan.core.context.Belonging;
import app.zolvan.core.context.HelperForm;
import app.zolvan.core.context.Placement;
import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.prepare.Role;
import app.zolvan.server.problem.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * A project's model as the stage and the ledger need it. Changes when parts are renamed or mended and when its surfaces
 * are cut anew. Lengths in metres, matrices of 16 numbers in column-major order.
 *
 * @param revision another one after each change of what is in here; later ones are larger
 * @param bounds of the design without its surroundings: min x, y, z, max x, y, z
 * @param notes  what the file held that is not used, as sentences
 * @param lacking files that it refers to and that did not come along
 * @param pictures of the project, listed where the page asks; else empty
 */
public record Scene(
        UUID projectId,
        long revision,
        String fileName,
        List<Double> bounds,
        int triangles,
        int faces,
        Origin origin,
        List<String> notes,
        List<String> lacking,
        List<Picture> pictures,
        List<PlacedModel> models,
        List<Group> groups,
        List<MatchingSet> sets,
        List<OwnFace> ownFaces,
        List<Part> parts) {
    /** Of spans that lie in no face of a designer's. */
    public static final int NO_FACE = -1;

    /** A copy with the project's pictures. */
    Scene with(List<Picture> some) {
        return new Scene(
                projectId, revision, fileName, bounds, triangles, faces, origin, notes, lacking, some, models, groups,
                sets, ownFaces, parts);
    }

    /**
     * How the file came to its size and stance.
     *
     * @param unit what one unit of the file's numbers is, such as mm
     * @param cut   how finely round surfaces were cut, where they are kept and can be cut again: the share of the model's
     *              size that the tessellation was asked for; null elsewhere
     * @param stray how far the triangles may stray from them, in metres; null likewise
     */
    public record Origin(
            String format,
            String unit,
            String unitReason,
            String upAxis,
            String upReason,
            @Nullable Double cut,
            @Nullable Double stray) {}

    /**
     * A picture that came with the model.
     *
     * @param fileBytes what it weighs as a file
     * @param memory    bytes it takes on the stage
     */
    public record Picture(String sha256, String mediaType, int width, int height, long fileBytes, long memory) {}

    /**
     * One of the project's models.
     *
     * @param index   0 for the one that the project was made of; numbers of removed ones are not used again
     * @param form    what it is, where it is a helper form; null elsewhere
     * @param floor   whether all else stands on it
     * @param group   the group around all it holds; −1 for the first
     * @param foot    the point of its own space that is put on {@code at}
     * @param degrees turns about x, y and z
     * @param parts   how many it has
     */
    public record PlacedModel(
            int index,
            String name,
            String fileName,
            Belonging belonging,
            @Nullable HelperForm form,
            boolean floor,
            int group,
            boolean hidden,
            boolean locked,
            List<Double> foot,
            List<Double> at,
            List<Double> degrees,
            double scale,
            int parts) {
        public PlacedState state() {
            return new PlacedState(
                    name,
                    belonging,
                    hidden,
                    locked,
                    new Placement(
                            new Vec3(at.get(0), at.get(1), at.get(2)),
                            new Vec3(degrees.get(0), degrees.get(1), degrees.get(2)),
                            scale));
        }

        /** @throws Problem where nothing of it is to be changed */
        public void requireUnlocked() {
            if (locked) {
                throw Problem.conflict(
                        "model-locked", "“" + name + "” is locked. Unlock it under Models to change it.", null);
            }
        }

        public Vec3 footPoint() {
            return new Vec3(foot.get(0), foot.get(1), foot.get(2));
        }
    }

    /** The box around the design without its surroundings. */
    public Box3 box() {
        return new Box3(
                new Vec3(bounds.get(0), bounds.get(1), bounds.get(2)),
                new Vec3(bounds.get(3), bounds.get(4), bounds.get(5)));
    }

    /** One of the models. */
    public PlacedModel model(int index) {
        return models.stream().filter(m -> m.index() == index).findFirst().orElseThrow(() -> Problem.notFound("model"));
    }

    /**
     * A part.
     *
     * @throws Problem where there is none, or it has no such span
     */
    public Part requireRegion(int part, int span) {
        if (part < 0 || part >= parts.size()) {
            throw Problem.notFound("part");
        }
        Part p = parts.get(part);
        if (span < 0 || span >= p.sets().size()) {
            throw Problem.notFound("part");
        }
        return p;
    }

    /** The groups that hold a part, outer to inner. */
    public List<Integer> groupsAround(Part part) {
        List<Integer> out = new ArrayList<>();
        for (int g = part.group(); g >= 0; g = groups.get(g).parent()) {
            out.add(0, g);
        }
        return out;
    }

    /** Whether what is put on a target reaches a span of a part. */
    public boolean covers(Level level, int target, Part part, int span) {
        return switch (level) {
            case MODEL -> part.model() == target;
            case SET -> part.sets().get(span) == target;
            case GROUP -> groupsAround(part).contains(target);
            case PART -> part.index() == target;
            case FACE -> part.ownFaces().get(span) == target;
        };
    }

    /** Whether it reaches any of its spans. */
    public boolean covers(Level level, int target, Part part) {
        return switch (level) {
            case SET -> part.sets().contains(target);
            case FACE -> part.ownFaces().contains(target);
            default -> covers(level, target, part, 0);
        };
    }

    /** @throws Problem where a model has no such target */
    public void requireTarget(Level level, int target) {
        boolean there = switch (level) {
            case MODEL -> models.stream().anyMatch(m -> m.index() == target);
            case SET -> target >= 0 && target < sets.size();
            case GROUP -> target >= 0 && target < groups.size();
            case PART -> target >= 0 && target < parts.size();
            case FACE ->
                target >= 0 && parts.stream().anyMatch(p -> p.ownFaces().contains(target));
        };
        if (!there) {
            throw Problem.notFound(level.word());
        }
    }

    /** A target in words, such as "set “Brass”". */
    public String told(Level level, int target) {
        return switch (level) {
            case SET -> "set “" + sets.get(target).name() + "”";
            case GROUP -> "group “" + groups.get(target).name() + "”";
            case PART -> parts.get(target).name();
            case FACE -> "face “" + ownFaces.get(target).name() + "”";
            default ->
                models.size() == 1
                        ? "the whole model"
                        : "all of “" + model(target).name() + "”";
        };
    }

    /** Whether a part is seen with the design, and none of it. */
    public boolean isAround(Part part) {
        return model(part.model()).belonging() == Belonging.SURROUNDINGS;
    }

    /** The parts of all models that are not hidden. */
    public List<Part> shownParts() {
        Set<Integer> hidden = models.stream()
                .filter(PlacedModel::hidden)
                .map(PlacedModel::index)
                .collect(Collectors.toSet());
        return parts.stream().filter(p -> !hidden.contains(p.model())).toList();
    }

    /** The groups around models that are no part of the design. */
    public Set<Integer> surroundings() {
        return models.stream()
                .filter(m -> m.belonging() == Belonging.SURROUNDINGS)
                .map(PlacedModel::group)
                .collect(Collectors.toSet());
    }

    /** @param parent index of the group that holds it, or −1 */
    public record Group(int index, int parent, String name, List<Double> local) {}

    /**
     * @param source the material it arrived with
     * @param parts  how many parts are in it; 0 where all have left
     */
    public record MatchingSet(
            int index, String name, @Nullable UUID source, int parts) {}

    /** A piece of a part's surface that a designer cut; its number is not used again. */
    public record OwnFace(int index, String name) {}

    /**
     * @param model         the model that it is in
     * @param role          what it is in the design; null while nobody has said
     * @param mesh          SHA-256 of its geometry
     * @param size          extents along the world's axes
     * @param volume        m³; 0 where the part is not closed
     * @param meanThickness m; 0 where the part is not closed
     * @param ownThickness  the same in the units of its mesh
     * @param geometryBytes what its mesh takes; parts with the same mesh share it
     * @param plainMesh     SHA-256 of its geometry without eased edges; null where that is the same
     * @param eased         how wide its eased edges are, in metres; 0 for none
     * @param sets          the matching set of each of its spans
     * @param homes         the matching set that each of its spans came from
     * @param locked        whether it keeps what it shows whatever is given around it
     * @param lookedInto    whether one sees through it from outside
     * @param ownFaces      the face of a designer's that each of its spans is in; {@link Scene#NO_FACE} for none
     */
    public record Part(
            int index,
            int model,
            int group,
            String name,
            @Nullable Role role,
            List<Double> world,
            List<Double> local,
            String mesh,
            int triangles,
            List<Double> size,
            double area,
            double volume,
            boolean closed,
            double meanThickness,
            double ownThickness,
            long geometryBytes,
            @Nullable String plainMesh,
            double eased,
            List<Integer> sets,
            List<Integer> homes,
            boolean locked,
            boolean lookedInto,
            List<Integer> ownFaces) {

        /** The narrowest thing that holds a span. */
        public Level narrowest(int span) {
            return ownFaces.get(span) == NO_FACE ? Level.PART : Level.FACE;
        }

        /** Its number. */
        public int narrowestIndex(int span) {
            return ownFaces.get(span) == NO_FACE ? index : ownFaces.get(span);
        }

        public Transform toWorld() {
            return Transform.ofColumns(
                    world.stream().mapToDouble(Double::doubleValue).toArray());
        }

        /** SHA-256 of its geometry without eased edges: what all is worked out on that is not a picture. */
        public String plain() {
            return plainMesh == null ? mesh : plainMesh;
        }
    }
}

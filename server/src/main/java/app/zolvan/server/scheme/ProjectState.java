package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.SchemeState;
import app.zolvan.server.library.MaterialWire;
import app.zolvan.server.library.PhysicalWire;
import app.zolvan.server.light.LightRow;
import app.zolvan.server.model.Scene;
import app.zolvan.server.view.ViewRow;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * Everything about a project that changes: what each region shows, the materials in use, what can be undone.
 *
 * @param version  to send back in If-Match
 * @param revision of the model: the scene is to be fetched again where it has another
 * @param unit     mm, cm, m, in or ft
 * @param unitMetres   one unit in metres
 * @param unitDecimals how many decimals are worth showing
 * @param scheme   the one whose looks these are
 * @param schemes  all, in the order of their dividers
 * @param candidates what is kept to choose from
 * @param notes    decisions left open, and those that are settled since, oldest first
 * @param views    named views of the model, the same in all schemes
 * @param lights   light set-ups, never none, the one in view until another is chosen first
 * @param palette  the project's own materials
 * @param arrived  the materials the file brought
 * @param origins  the libraries' materials that the palette's were made from
 * @param undo     what undo would take back, or null
 * @param redo     what redo would do again, or null
 */
public record ProjectState(
        UUID id,
        long version,
        long revision,
        String name,
        String client,
        String unit,
        double unitMetres,
        int unitDecimals,
        UUID scheme,
        List<SchemeWire> schemes,
        List<CandidatesWire> candidates,
        List<NoteWire> notes,
        List<ViewWire> views,
        List<LightWire> lights,
        List<LookWire> looks,
        List<RegionWire> regions,
        List<UsedMaterial> palette,
        List<UsedMaterial> arrived,
        List<MaterialWire> origins,
        @Nullable String undo,
        @Nullable String redo) {

    /**
     * @param material the material shown; null for neutral grey
     * @param from     the level that decided; null for the look that arrived
     * @param undressed nobody has chosen it, and it is plain grey or nothing
     * @param mapping  metric (real size, projected) or model (the file's coordinates)
     * @param mapped   whether that was put there, and is not just the material's natural way
     */
    public record LookWire(
            @Nullable UUID material,
            @Nullable String from,
            String mapping,
            boolean mapped,
            boolean undressed,
            PhysicalWire physical) {}

    /**
     * @param look index in {@link #looks}
     * @param back the same for its back; null where that shows the same
     */
    public record RegionWire(
            int part, int span, int look, @Nullable Integer back) {}

    /**
     * A named view.
     *
     * @param eye        x, y, z in metres
     * @param target     what it looks at and turns about
     * @param degrees    of the height that it takes in
     * @param lookedInto parts that one sees through in it, besides those that one always does
     * @param enclosed   whether it is from inside something
     * @param pictured   whether there is a small picture of it
     */
    public record ViewWire(
            UUID id,
            String name,
            List<Double> eye,
            List<Double> target,
            double degrees,
            List<Integer> lookedInto,
            boolean enclosed,
            boolean pictured) {
        static ViewWire of(ViewRow v, boolean pictured) {
            return new ViewWire(
                    v.id(),
                    v.name(),
                    Arrays.stream(v.eye()).boxed().toList(),
                    Arrays.stream(v.target()).boxed().toList(),
                    v.degrees(),
                    Arrays.stream(v.lookedInto()).boxed().toList(),
                    v.enclosed(),
                    pictured);
        }
    }

    /**
     * A light set-up, in relative units.
     *
     * @param turn  in degrees
     * @param stops of exposure
     */
    public record LightWire(UUID id, String name, String surroundings, double strength, double turn, double stops) {
        static LightWire of(LightRow l) {
            return new LightWire(l.id(), l.name(), l.surroundings(), l.strength(), l.turn(), l.stops());
        }
    }

    /**
     * @param parts how many parts show it
     * @param in    letters of the other schemes that have it on something
     */
    public record UsedMaterial(MaterialWire material, long parts, List<String> in) {}

    /**
     * Materials that are kept on something to choose from.
     *
     * @param target    index of the model, set, group or part
     * @param about     that thing in words
     * @param materials in the order in which they were kept
     */
    public record CandidatesWire(String level, int target, String about, List<UUID> materials) {}

    /**
     * What was left open about a thing.
     *
     * @param target index of the model, set, group, part or face
     * @param about  that thing in words
     * @param by     who wrote it
     */
    public record NoteWire(
            UUID id, String level, int target, String about, String text, boolean settled, String by, Instant at) {
        static NoteWire of(NoteMapper.NoteRow n, Scene scene) {
            Level level = Level.valueOf(n.level());
            return new NoteWire(
                    n.id(),
                    level.word(),
                    n.target(),
                    scene.told(level, n.target()),
                    n.text(),
                    n.settled(),
                    n.by(),
                    n.at());
        }
    }

    /**
     * @param letter on its divider
     * @param state  how far it has got
     * @param reason why it was rejected; empty elsewhere
     * @param bases  the scheme that it stores differences from, that one's own, and so on
     * @param own    how many slots it has something in by itself
     * @param sign   the material that covers most of what it dresses by itself; null where it dresses nothing
     */
    public record SchemeWire(
            UUID id,
            String letter,
            String name,
            String description,
            SchemeState state,
            String reason,
            List<UUID> bases,
            int own,
            @Nullable UUID sign) {}
}

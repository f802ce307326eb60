package app.zolvan.server.scheme;

import app.zolvan.core.adjust.Adjustment;
import app.zolvan.core.adjust.EdgesMet;
import app.zolvan.core.adjust.Following;
import app.zolvan.core.adjust.Variation;
import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.assign.LookTrace.Aspect;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Shade;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.material.MainColour;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.texture.ImageHeader;
import app.zolvan.server.account.Account;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.library.MaterialWire;
import app.zolvan.server.library.PhysicalWire;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Query;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;
import tools.jackson.databind.json.JsonMapper;

/** What designers change about a project's materials themselves. */
@Service
class MaterialCommands {
    /** What a look is called that was begun from nothing. */
    private static final String OWN = "Own colour";
    /** The surface that a light's flux is spread over where it is on no part yet. */
    private static final double A_SQUARE_METRE = 1;

    private final CommandService commands;
    private final SchemeService schemes;
    private final MaterialService materials;
    private final ProjectService projects;
    private final AssetService assets;
    private final JsonMapper json;
    private final PictureEdges edges;
    private final TransactionTemplate transaction;
    private final OwnPlaces places;

    MaterialCommands(
            CommandService commands,
            SchemeService schemes,
            MaterialService materials,
            ProjectService projects,
            AssetService assets,
            JsonMapper json,
            PictureEdges edges,
            TransactionTemplate transaction,
            OwnPlaces places) {
        this.places = places;
        this.commands = commands;
        this.schemes = schemes;
        this.materials = materials;
        this.projects = projects;
        this.assets = assets;
        this.json = json;
        this.edges = edges;
        this.transaction = transaction;
    }

    /**
     * Changes values of what a region shows: for all parts that show the same material, or for some parts only, which then
     * get a material of their own. Variations of the material follow, and colours that are shades of its own. {@code follow}
     * among the values has its colour follow another's: {@code of} which, null for none, as which {@code shade}, without one
     * as that which it comes nearest to.
     *
     * @param only parts; null for all
     * @param here whether other schemes keep what they show
     */
    @Transactional
    ProjectState adjust(
            Edit edit, int part, int span, @Nullable List<Integer> only, boolean here, Map<String, Object> values) {
        Project project = commands.begin(edit);
        LookTable looks = schemes.looks(project, edit);
        Scene.Part target = looks.scene().requireRegion(part, span);
        MaterialRow shown = looks.shown(part, span).material();
        Changed changed = adjusted(edit.account(), edit.project(), shown, target.area(), values);
        if (here && only == null && isOwn(shown)) {
            return changeHere(edit, project, shown, changed, CommandLabel.of(values));
        }
        return change(edit, project, looks, part, span, only, changed, CommandLabel.of(values));
    }

    /** Changes values of one of the palette's materials, wherever it is shown, or nowhere yet. */
    @Transactional
    ProjectState adjustOwn(Edit edit, UUID material, Map<String, Object> values) {
        Project project = commands.begin(edit);
        MaterialRow row = requirePalette(edit.account(), edit.project(), material);
        Changed changed = adjusted(edit.account(), edit.project(), row, A_SQUARE_METRE, values);
        return commands.commit(edit, project, CommandLabel.of(values) + " of " + row.name(), edit(row, changed));
    }

    /** What {@link #adjustOwn} would make of it, as a thin pane where it is clear. */
    Preview previewOwn(Account account, UUID projectId, UUID material, Map<String, Object> values) {
        projects.require(account, projectId);
        MaterialRow row = requirePalette(account, projectId, material);
        Changed a = adjusted(account, projectId, row, A_SQUARE_METRE, values);
        Look look = Look.of(a.material(), null, 0, null);
        return new Preview(MaterialWire.of(row.with(a.material()), null), PhysicalWire.of(look.physical()), a.limit());
    }

    private MaterialRow requirePalette(Account account, UUID projectId, UUID material) {
        MaterialRow row = requireOwn(account, projectId, material);
        if (row.arrived()) {
            throw Problem.ofField(
                    "material", "What arrived with the model stays as it is. Select a part with it and change that.");
        }
        return row;
    }

    private static boolean isOwn(@Nullable MaterialRow m) {
        return m != null && m.projectId() != null && !m.arrived();
    }

    /** The scheme in view gets a material of its own wherever it has one that other schemes have, too. */
    private ProjectState changeHere(Edit edit, Project project, MaterialRow shown, Changed changed, String what) {
        SchemeEntries entries = schemes.entries(project.id(), schemes.current(edit));
        String name = shown.name() + " · " + entries.row().letter();
        MaterialRow copy = newRow(project, shown, changed, name);
        List<Change> changes = new ArrayList<>();
        changes.add(new Change.OfMaterial(copy.id(), null, copy));
        everywhere(entries, shown, copy, changes);
        if (changes.size() == 1) {
            throw Problem.conflict("nothing", "Nothing of this scheme has “" + shown.name() + "” any more.", null);
        }
        return commands.commit(edit, project, what + " of " + name, changes);
    }

    /** Every slot that has one material gets another. */
    private static void everywhere(
            SchemeEntries entries, @Nullable MaterialRow one, MaterialRow other, List<Change> changes) {
        entries.scheme().effective().forEach((slot, entry) -> {
            if (one != null && one.id().toString().equals(entry.material())) {
                changes.add(entries.put(slot, other.id(), null));
            }
        });
    }

    /** What a region shows looks otherwise: for all that show the same, or for some parts. */
    private ProjectState change(
            Edit edit,
            Project project,
            LookTable looks,
            int part,
            int span,
            @Nullable List<Integer> only,
            Changed changed,
            String what) {
        Scene.Part target = looks.scene().requireRegion(part, span);
        MaterialRow shown = looks.shown(part, span).material();
        boolean own = isOwn(shown);
        if (own && (only == null || coversAll(looks, shown, only))) {
            return commands.commit(edit, project, what + " of " + shown.name(), edit(shown, changed));
        }
        Set<Integer> few = only == null ? Set.of() : wearing(looks, shown, only);
        String name = own
                ? shown.name() + " · " + told(looks.scene(), few, target)
                : changed.material().name();
        MaterialRow copy = newRow(project, shown, changed, name);
        List<Change> changes = new ArrayList<>();
        changes.add(new Change.OfMaterial(copy.id(), null, copy));
        SchemeEntries entries = schemes.entries(project.id(), schemes.current(edit));
        if (only == null) {
            everywhere(entries, shown, copy, changes);
            if (looks.trace(part, span, Aspect.MATERIAL).winner() < 0) {
                Set<Integer> sets = shown == null ? Set.of(target.sets().get(span)) : looks.setsAsArrived(shown.id());
                sets.forEach(s -> changes.add(entries.put(LookTable.slot(Level.SET, s), copy.id(), null)));
            }
        }
        for (int p : few) {
            Scene.Part each = looks.scene().parts().get(p);
            places.put(looks, entries, each, shown == null ? null : shown.id(), copy.id(), changes);
        }
        return commands.commit(edit, project, what + " of " + name, changes);
    }

    /**
     * Has the pictures of what a region shows meet at their edges, without a seam where they repeat.
     *
     * @param only parts; null for all
     */
    ProjectState meetEdges(Edit edit, int part, int span, @Nullable List<Integer> only) {
        Project before = projects.require(edit.account(), edit.project());
        LookTable standing = schemes.looks(before, edit);
        standing.scene().requireRegion(part, span);
        MaterialRow row = standing.shown(part, span).material();
        if (row == null) {
            throw Problem.notFound("material");
        }
        EdgesMet met = edges.met(row.toSurface()); // before the transaction: it takes its time
        return transaction.execute(status -> {
            Project project = commands.begin(edit);
            met.pictures().forEach((digest, bytes) -> {
                assets.store(
                        bytes,
                        ImageHeader.read(ByteBuffer.wrap(bytes)).orElseThrow().mediaType());
                assets.addToProject(edit.project(), digest);
            });
            Changed changed = new Changed(row.toMaterial().with(met.surface()), "", null);
            return change(
                    edit, project, schemes.looks(project, edit), part, span, only, changed, "Edges of the pictures");
        });
    }

    private MaterialRow newRow(Project project, @Nullable MaterialRow from, Changed changed, String name) {
        int position = materials.ofProject(project.id()).size();
        Material m = changed.material();
        if (from == null) {
            return bound(MaterialService.own(project.id(), OWN, m, position), null, changed.followed());
        }
        MaterialRow copy = MaterialService.copy(from, project.id(), name, m.surface(), position);
        return bound(copy.with(m), from, changed.followed());
    }

    /** A changed material follows the colour that was wished, or goes on following until its own colour is changed. */
    private MaterialRow bound(MaterialRow after, @Nullable MaterialRow before, @Nullable Followed wished) {
        if (wished != null) {
            return after.colouredBy(wished.of(), wished.as());
        }
        boolean goesOn = before != null
                && before.colourOf() != null
                && Following.keepsColour(before.toSurface(), after.toSurface(), materials::meanOfPicture);
        return goesOn ? after.colouredBy(before.colourOf(), new Shade(before.shade())) : after.colouredBy(null, null);
    }

    private static String told(Scene scene, Set<Integer> parts, Scene.Part target) {
        return parts.size() > 1
                ? parts.size() + " parts"
                : scene.parts()
                        .get(parts.isEmpty() ? target.index() : parts.iterator().next())
                        .name();
    }

    /** Those of some parts that show a material. */
    private static Set<Integer> wearing(LookTable looks, @Nullable MaterialRow m, List<Integer> parts) {
        Set<Integer> few = new TreeSet<>();
        for (int p : parts) {
            Scene.Part part = looks.scene().requireRegion(p, 0);
            if (looks.shows(part, m == null ? null : m.id())) {
                few.add(p);
            }
        }
        if (few.isEmpty()) {
            throw Problem.conflict("nothing", "None of these parts shows this material any more.", null);
        }
        return few;
    }

    private static boolean coversAll(LookTable looks, MaterialRow m, List<Integer> parts) {
        return looks.partsShowing(m.id()) <= wearing(looks, m, parts).size();
    }

    /** The changes of a material and of all that follow it, near and far. */
    private List<Change> edit(MaterialRow before, Changed changed) {
        MaterialRow after = bound(before.with(changed.material()), before, changed.followed());
        MaterialRow parent = before.parent() == null ? null : materials.find(before.parent());
        if (parent != null) {
            after = after.variationOf(
                    parent.id(),
                    Variation.owned(before.ownParameters(), parent.toSurface(), before.toSurface(), after.toSurface()));
        }
        Map<UUID, Change> changes = new LinkedHashMap<>();
        changes.put(before.id(), new Change.OfMaterial(before.id(), before, after));
        follow(
                Map.of(after.id(), after.toSurface()),
                materials.ofProject(before.projectId()),
                materials::meanOfPicture,
                changes);
        return List.copyOf(changes.values());
    }

    /** Adds what changes with materials that have changed. */
    static void follow(
            Map<UUID, Surface> changed,
            List<MaterialRow> all,
            Function<String, LinearRgb> means,
            Map<UUID, Change> changes) {
        Map<UUID, Surface> after = following(all, means).after(changed);
        for (MaterialRow m : all) {
            if (after.containsKey(m.id())) {
                changes.put(m.id(), new Change.OfMaterial(m.id(), m, m.with(m.name(), after.get(m.id()))));
            }
        }
    }

    private static Following<UUID> following(List<MaterialRow> all, Function<String, LinearRgb> means) {
        return new Following<>(all.stream().map(MaterialRow::following).toList(), means);
    }

    /**
     * @param limit    why a wish was met in part only; empty where it was met
     * @param followed null where nothing was wished of that
     */
    private record Changed(
            Material material, String limit, @Nullable Followed followed) {}

    /** Whose colour is followed, as which shade; nobody's where both are null. */
    private record Followed(@Nullable UUID of, @Nullable Shade as) {}

    private Changed adjusted(
            Account account, UUID projectId, @Nullable MaterialRow shown, double area, Map<String, Object> values) {
        Material base = shown == null ? Look.NEUTRAL : shown.toMaterial();
        Map<String, Object> wishes = new LinkedHashMap<>(values);
        Object follow = wishes.remove("follow");
        wishes.put("area", area);
        try {
            Adjustment a =
                    Adjustment.of(base, JsonValue.parse(json.writeValueAsBytes(wishes)), materials::meanOfPicture);
            Material m = a.material();
            requireOwnImages(account, projectId, base.surface(), m.surface());
            if (follow == null) {
                return new Changed(m, a.limit(), null);
            }
            return followed(projectId, shown, m, a.limit(), JsonValue.parse(json.writeValueAsBytes(follow)));
        } catch (ImportException e) {
            throw Problem.ofField("values", "A value is not of the kind its parameter takes.");
        }
    }

    private Changed followed(UUID projectId, @Nullable MaterialRow shown, Material m, String limit, JsonValue wish)
            throws ImportException {
        if (!wish.isObject()) {
            throw Problem.ofField("follow", "Say which material’s colour it follows, or none.");
        }
        if (!wish.has("of")) {
            return new Changed(m, limit, new Followed(null, null));
        }
        MaterialRow main = requireLeader(projectId, shown, wish.get("of").text());
        LinearRgb colour = MainColour.seen(main.toSurface(), materials::meanOfPicture);
        Shade shade = wish.has("shade")
                ? new Shade(Math.max(-1, Math.min(1, wish.get("shade").number())))
                : Shade.nearest(colour, MainColour.seen(m.surface(), materials::meanOfPicture));
        Surface s = MainColour.with(m.surface(), shade.of(colour), materials::meanOfPicture);
        return new Changed(m.with(s), limit, new Followed(main.id(), shade));
    }

    /** One of the project's materials whose colour another may follow. */
    private MaterialRow requireLeader(UUID projectId, @Nullable MaterialRow follower, String id) {
        List<MaterialRow> all = materials.ofProject(projectId);
        MaterialRow main = all.stream()
                .filter(m -> m.id().toString().equals(id))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("material"));
        if (follower != null && following(all, materials::meanOfPicture).decides(follower.id(), main.id())) {
            throw Problem.ofField(
                    "follow",
                    main.id().equals(follower.id())
                            ? "A colour can’t follow itself."
                            : "The colour of " + main.name() + " follows " + follower.name() + " already.");
        }
        return main;
    }

    private void requireOwnImages(Account account, UUID projectId, Surface before, Surface after) {
        Set<TextureUse> known = Set.copyOf(before.textures().values());
        for (TextureUse t : after.textures().values()) {
            if (!known.contains(t) && !assets.isReadable(account.id(), projectId, t.image())) {
                throw Problem.notFound("image");
            }
        }
    }

    /** What the region would show with changed values: the same numbers that {@link #adjust} would store. */
    Preview preview(Query query, int part, int span, Map<String, Object> values) {
        Project project = projects.require(query.account(), query.project());
        LookTable looks = schemes.looks(project, query);
        Scene.Part target = looks.scene().requireRegion(part, span);
        MaterialRow shown = looks.shown(part, span).material();
        Changed a = adjusted(query.account(), query.project(), shown, target.area(), values);
        MaterialRow row =
                shown != null ? shown.with(a.material()) : MaterialService.own(query.project(), OWN, a.material(), 0);
        Look changed = Look.of(a.material(), null, target.ownThickness(), null);
        return new Preview(MaterialWire.of(row, null), PhysicalWire.of(changed.physical()), a.limit());
    }

    /**
     * @param physical for the thickness of the part at hand
     * @param limit    why a wish was met in part only; empty where it was met
     */
    record Preview(MaterialWire material, PhysicalWire physical, String limit) {}

    /** Gives one of the project's materials another name. */
    @Transactional
    ProjectState rename(Edit edit, UUID material, String name) {
        Project project = commands.begin(edit);
        MaterialRow row = requireOwn(edit.account(), edit.project(), material);
        MaterialRow renamed = row.with(GivenName.require(name), row.toSurface());
        return commands.commit(
                edit, project, "Rename " + row.name(), List.of(new Change.OfMaterial(row.id(), row, renamed)));
    }

    private MaterialRow requireOwn(Account account, UUID projectId, UUID material) {
        MaterialRow row = materials.requireUsable(account, projectId, material);
        if (row.projectId() == null) {
            throw Problem.ofField("name", "Library materials stay as they are. Put it on a part and change the copy.");
        }
        return row;
    }

    /** Makes another material of one: independent of it, or a variation that follows it. */
    @Transactional
    ProjectState copy(Edit edit, UUID material, MaterialController.NewCopy wanted) {
        boolean variation = wanted.variation();
        Project project = commands.begin(edit);
        MaterialRow from = materials.requireUsable(edit.account(), edit.project(), material);
        if (variation && (from.projectId() == null || from.arrived())) {
            throw Problem.ofField(
                    "variation",
                    "A variation follows one of the project’s own materials. Put this one on a part first.");
        }
        LookTable looks = schemes.looks(project, edit);
        Surface surface = from.toSurface();
        Set<Parameter> own = Set.of();
        if (wanted.colour() != null) {
            own = Set.of(MainColour.of(surface));
            List<Double> c = wanted.colour();
            surface = MainColour.with(surface, new LinearRgb(c.get(0), c.get(1), c.get(2)), materials::meanOfPicture);
        }
        MaterialRow copy = MaterialService.copy(
                from,
                edit.project(),
                GivenName.require(wanted.name()),
                surface,
                materials.ofProject(edit.project()).size());
        if (variation) {
            copy = copy.variationOf(from.id(), own);
        }
        List<Change> changes = new ArrayList<>();
        changes.add(new Change.OfMaterial(copy.id(), null, copy));
        SchemeEntries entries = schemes.entries(edit.project(), schemes.current(edit));
        for (int p : new TreeSet<>(wanted.parts())) {
            places.put(looks, entries, looks.scene().requireRegion(p, 0), from.id(), copy.id(), changes);
        }
        String label = (variation ? "Variation of " : "Copy of ") + from.name();
        return commands.commit(edit, project, label, changes);
    }

    /** A variation no longer follows; it stays as it looks. */
    @Transactional
    ProjectState makeIndependent(Edit edit, UUID material) {
        Project project = commands.begin(edit);
        MaterialRow row = requireOwn(edit.account(), edit.project(), material);
        if (row.parent() == null) {
            throw Problem.conflict("nothing", row.name() + " follows no other material.", null);
        }
        return commands.commit(
                edit,
                project,
                row.name() + " made independent",
                List.of(new Change.OfMaterial(row.id(), row, row.variationOf(null, Set.of()))));
    }
}

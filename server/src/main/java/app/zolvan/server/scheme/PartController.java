package app.zolvan.server.scheme;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.prepare.Renaming;
import app.zolvan.core.prepare.Repair;
import app.zolvan.core.prepare.Role;
import app.zolvan.core.prepare.Similar;
import app.zolvan.core.prepare.TidyNames;
import app.zolvan.server.account.Account;
import app.zolvan.server.model.ExposureService;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.model.ModelSurvey;
import app.zolvan.server.model.PartShapes;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Query;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** The parts of a project's model and the commands that change them. */
@RestController
@RequestMapping("/api/projects/{id}/parts")
class PartController {
    private static final double FARTHEST = 10_000;

    private final PartCommands commands;
    private final ProjectService projects;
    private final ModelStore models;
    private final ModelSurvey survey;
    private final ExposureService exposure;
    private final SchemeService schemes;

    PartController(
            PartCommands commands,
            ProjectService projects,
            ModelStore models,
            ModelSurvey survey,
            ExposureService exposure,
            SchemeService schemes) {
        this.exposure = exposure;
        this.schemes = schemes;
        this.commands = commands;
        this.projects = projects;
        this.models = models;
        this.survey = survey;
    }

    /** @param part which part, by its index */
    record PartName(int part, @NotNull @Size(max = 200) String name) {}

    record PartNames(@NotEmpty @Size(max = 100_000) List<PartName> names) {}

    /**
     * New names asked for: by a pattern, numbered from {@code first}, or by replacing a text.
     *
     * @param parts in the order in which they are numbered
     */
    record NamesWanted(
            @NotEmpty @Size(max = 100_000) List<Integer> parts,
            @Nullable @Size(max = 200) String pattern,
            int first,
            @Nullable @Size(max = 200) String find,
            @Nullable @Size(max = 200) String replacement) {}

    /** @param role null for nothing in particular */
    record PartRole(int part, @Nullable Role role) {}

    record PartRoles(@NotEmpty @Size(max = 100_000) List<PartRole> roles) {}

    @PostMapping("/roles")
    ProjectState giveRoles(Edit edit, @Validated @RequestBody PartRoles r) {
        Map<Integer, Role> roles = new LinkedHashMap<>();
        r.roles().forEach(p -> roles.put(p.part(), p.role()));
        return commands.giveRoles(edit, roles);
    }

    /** @param on false to take it back */
    record Switched(@NotEmpty @Size(max = 100_000) List<Integer> parts, boolean on) {}

    @PostMapping("/locked")
    ProjectState lock(Edit edit, @Validated @RequestBody Switched s) {
        return commands.lock(edit, s.parts(), s.on());
    }

    @PostMapping("/looked-into")
    ProjectState lookInto(Edit edit, @Validated @RequestBody Switched s) {
        return commands.lookInto(edit, s.parts(), s.on());
    }

    /** @param turn flip or outward */
    record Turning(
            @NotEmpty @Size(max = 100_000) List<Integer> parts,
            @NotNull String turn) {}

    /** @param act flip, or split to put them into a set of their own */
    record OfFaces(
            @NotEmpty @Size(max = 100_000) Set<Integer> faces,
            @NotNull String act) {}

    @PostMapping("/{part}/faces")
    ProjectState changeFaces(Edit edit, @PathVariable int part, @Validated @RequestBody OfFaces f) {
        return switch (f.act()) {
            case "flip" -> commands.flipFaces(edit, part, f.faces());
            case "split" -> commands.splitFaces(edit, part, f.faces());
            default -> throw Problem.ofField("act", "Faces can be flipped or split off.");
        };
    }

    /** What the parts would be called; changes nothing. */
    @PostMapping("/names/preview")
    List<PartName> previewNames(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody NamesWanted w) {
        List<String> before = commands.names(account, id, w.parts());
        List<String> after = new Renaming.Wish(w.pattern(), w.first(), w.find(), w.replacement()).of(before);
        List<PartName> out = new ArrayList<>();
        for (int i = 0; i < after.size(); i++) {
            out.add(new PartName(w.parts().get(i), after.get(i)));
        }
        return out;
    }

    @PostMapping("/names")
    ProjectState rename(Edit edit, @Validated @RequestBody PartNames n) {
        Map<Integer, String> names = new LinkedHashMap<>();
        n.names().forEach(p -> names.put(p.part(), p.name()));
        return commands.rename(edit, names);
    }

    @PostMapping("/sides")
    ProjectState turn(Edit edit, @Validated @RequestBody Turning t) {
        PartShapes.Turn turn = switch (t.turn()) {
            case "flip" -> PartShapes.Turn.FLIP;
            case "outward" -> PartShapes.Turn.OUTWARD;
            default -> throw Problem.ofField("turn", "Faces can be flipped or turned outward.");
        };
        return commands.turn(edit, t.parts(), turn);
    }

    /** @param to own (a set of their own) or home (where they came from) */
    record Moving(
            @NotEmpty @Size(max = 100_000) List<Integer> parts,
            @NotNull String to) {}

    @PostMapping("/sets")
    ProjectState changeSets(Edit edit, @Validated @RequestBody Moving m) {
        return switch (m.to()) {
            case "own" -> commands.takeOut(edit, m.parts());
            case "home" -> commands.putBack(edit, m.parts());
            default -> throw Problem.ofField("to", "Parts can go to a set of their own or back home.");
        };
    }

    /** @param amount metres; degrees for normals; not used for doubles and slivers */
    record Repairing(
            @NotEmpty @Size(max = 100_000) List<Integer> parts,
            @NotNull Repair repair,
            double amount) {}

    /** What a repair would do; changes nothing. */
    @PostMapping("/repairs/preview")
    PartCommands.RepairPreview previewRepair(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody Repairing r) {
        return commands.repairing(account, id, r.parts(), r.repair(), r.amount());
    }

    @PostMapping("/repairs")
    ProjectState repair(Edit edit, @Validated @RequestBody Repairing r) {
        return commands.repair(edit, r.parts(), r.repair(), r.amount());
    }

    /** How two parts meet: a liquid and its glass, say. */
    @GetMapping("/contact")
    ModelSurvey.ContactWire contact(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @RequestParam int one,
            @RequestParam int other) {
        return survey.contact(id, one, other, projects.require(account, id).unit());
    }

    /** @param width in metres; 0 for sharp edges */
    record Easing(@NotEmpty @Size(max = 100_000) List<Integer> parts, double width) {}

    /** What easing edges would do; changes nothing. */
    @PostMapping("/edges/preview")
    PartCommands.RepairPreview previewEasing(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody Easing e) {
        return commands.easing(account, id, e.parts(), e.width());
    }

    @PostMapping("/edges")
    ProjectState ease(Edit edit, @Validated @RequestBody Easing e) {
        return commands.ease(edit, e.parts(), e.width());
    }

    /**
     * @param way     x, y, z in metres
     * @param axis    0 for x, 1 for y (up), 2 for z
     * @param degrees anticlockwise as seen from where the axis points
     */
    record Motion(
            @NotEmpty @Size(max = 100_000) List<Integer> parts,
            @NotNull @Size(min = 3, max = 3) List<Double> way,
            @Min(0) @Max(2) int axis,
            double degrees) {}

    @PostMapping("/places")
    ProjectState move(Edit edit, @Validated @RequestBody Motion m) {
        Vec3 way = new Vec3(m.way().get(0), m.way().get(1), m.way().get(2));
        if (!(way.length() <= FARTHEST) || !(Math.abs(m.degrees()) <= 360)) {
            throw Problem.ofField("way", "A part can be moved by up to 10 km and turned by up to 360°.");
        }
        return commands.move(edit, m.parts(), way, m.axis(), m.degrees());
    }

    record PartsAsked(@NotEmpty @Size(max = 10_000) List<Integer> parts) {}

    /** Those surfaces of some parts that one can come to see in the scheme in view: a build-up's finish, not what is behind it. */
    @PostMapping("/seen")
    List<ExposureService.SeenSurface> seen(Query query, @Validated @RequestBody PartsAsked asked) {
        Project project = projects.require(query.account(), query.project());
        return exposure.seen(
                query.project(), asked.parts(), schemes.looks(project, query).seenThrough());
    }

    /** @param parts all that are alike in this way, the one asked about among them */
    record Alike(Similar.By by, List<Integer> parts) {}

    @GetMapping("/{part}/similar")
    List<Alike> similar(@AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable int part) {
        projects.require(account, id);
        models.scene(id).requireRegion(part, 0);
        List<Alike> out = new ArrayList<>();
        survey.similar(id, part).forEach((by, parts) -> out.add(new Alike(by, parts)));
        return out;
    }

    /** Names for parts whose names say nothing. */
    @GetMapping("/names/tidy")
    List<TidyNames.Proposal> tidyNames(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.require(account, id);
        return survey.tidyNames(id);
    }

    /** A plain colour for each part as sRGB codes, such as #a9bac6: one a set, or one a shape. */
    @GetMapping("/colours")
    List<String> colours(@AuthenticationPrincipal Account account, @PathVariable UUID id, @RequestParam String by) {
        projects.require(account, id);
        return survey.plainColours(id, by.equals("set"));
    }
}

package app.zolvan.server.scheme;

import app.zolvan.core.assign.Combinations;
import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Scheme;
import app.zolvan.core.assign.SchemeLetter;
import app.zolvan.core.assign.SchemeState;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.scheme.AssignCommands.Spot;
import app.zolvan.server.scheme.SchemeMapper.CandidateRow;
import app.zolvan.server.scheme.SchemeMapper.SchemeRow;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Looks that are kept on something to choose from, and schemes made of all their combinations. */
@Service
class CandidateCommands {
    private static final int MOST = 50;

    private final CommandService commands;
    private final SchemeService schemes;
    private final SchemeMapper mapper;
    private final MaterialService materials;
    private final SceneSource scenes;

    CandidateCommands(
            CommandService commands,
            SchemeService schemes,
            SchemeMapper mapper,
            MaterialService materials,
            SceneSource scenes) {
        this.commands = commands;
        this.schemes = schemes;
        this.mapper = mapper;
        this.materials = materials;
        this.scenes = scenes;
    }

    /** Keeps a material as one to choose from, after those that are kept; what shows stays. */
    @Transactional
    ProjectState keep(Edit edit, Spot spot, UUID material) {
        Project project = commands.begin(edit);
        Scene scene = scenes.scene(edit.project());
        scene.requireTarget(spot.level(), spot.target());
        List<CandidateRow> kept = keptOn(edit.project(), spot);
        if (kept.size() >= MOST) {
            throw Problem.conflict("too-much", "Up to " + MOST + " candidates are kept on one thing.", null);
        }
        List<Change> changes = new ArrayList<>();
        MaterialRow row = commands.usableCopy(edit.account(), project, material, null, changes);
        if (kept.stream().anyMatch(c -> c.materialId().equals(row.id()))) {
            throw Problem.conflict("nothing", "“" + row.name() + "” is a candidate there already.", null);
        }
        int position = 1 + kept.stream().mapToInt(CandidateRow::position).max().orElse(0);
        changes.add(new Change.OfCandidate(spot.level().name(), spot.target(), row.id(), null, position));
        return commands.commit(
                edit,
                project,
                "Keep " + row.name() + " as a candidate for " + scene.told(spot.level(), spot.target()),
                changes);
    }

    /** Keeps a material there no longer; where it shows, it stays. */
    @Transactional
    ProjectState drop(Edit edit, Spot spot, UUID material) {
        Project project = commands.begin(edit);
        CandidateRow row = keptOn(edit.project(), spot).stream()
                .filter(c -> c.materialId().equals(material))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("candidate"));
        return commands.commit(
                edit,
                project,
                materials
                                .requireUsable(edit.account(), edit.project(), material)
                                .name() + " is no candidate any more",
                List.of(new Change.OfCandidate(row.level(), row.target(), material, row.position(), null)));
    }

    private List<CandidateRow> keptOn(UUID project, Spot spot) {
        return mapper.candidates(project).stream()
                .filter(c -> c.level().equals(spot.level().name()) && c.target() == spot.target())
                .toList();
    }

    /** Makes a scheme, based on the one in view, of every combination of the candidates on some things. */
    @Transactional
    ProjectState combine(Edit edit, List<Spot> spots) {
        Project project = commands.begin(edit);
        SchemeRow base = schemes.current(edit);
        List<SchemeRow> all = schemes.schemes(edit.project());
        List<List<CandidateRow>> kept =
                spots.stream().distinct().map(s -> keptOn(edit.project(), s)).toList();
        long count = Combinations.count(kept);
        if (count == 0) {
            throw Problem.conflict("nothing", "On one of these no candidate is kept.", null);
        }
        if (all.size() + count > SchemeCommands.MOST) {
            throw Problem.conflict(
                    "too-much",
                    String.format(
                            "That would make %,d schemes more; a project has up to %d. Choose fewer things, or fewer candidates.",
                            count, SchemeCommands.MOST),
                    null);
        }
        Set<String> letters = all.stream().map(SchemeRow::letter).collect(Collectors.toCollection(HashSet::new));
        int position = 1 + all.stream().mapToInt(SchemeRow::position).max().orElse(0);
        List<Change> changes = new ArrayList<>();
        Scheme inBase = schemes.entries(edit.project(), base).scheme();
        for (List<CandidateRow> way : Combinations.of(kept)) {
            String letter = SchemeLetter.next(letters);
            letters.add(letter);
            String name = way.stream()
                    .map(c -> Objects.requireNonNull(materials.find(c.materialId()))
                            .name())
                    .collect(Collectors.joining(" · "));
            SchemeRow row = new SchemeRow(
                    UUID.randomUUID(),
                    edit.project(),
                    base.id(),
                    letter,
                    name.length() > 120 ? name.substring(0, 119) + "…" : name,
                    "",
                    SchemeState.IDEA,
                    "",
                    position++);
            changes.add(new Change.OfScheme(row.id(), null, row));
            SchemeEntries made = new SchemeEntries(row, new Scheme(row.id().toString(), inBase, Map.of()));
            way.forEach(c ->
                    changes.add(made.put(LookTable.slot(Level.valueOf(c.level()), c.target()), c.materialId(), null)));
        }
        return commands.commit(
                edit,
                project,
                count == 1 ? "A scheme of a candidate" : count + " schemes of combined candidates",
                changes);
    }
}

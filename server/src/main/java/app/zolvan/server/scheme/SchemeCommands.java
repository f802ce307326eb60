package app.zolvan.server.scheme;

import app.zolvan.core.assign.Entry;
import app.zolvan.core.assign.Scheme;
import app.zolvan.core.assign.SchemeDifferences;
import app.zolvan.core.assign.SchemeLetter;
import app.zolvan.core.assign.SchemeState;
import app.zolvan.core.assign.Side;
import app.zolvan.core.colour.CieLab;
import app.zolvan.core.material.Material;
import app.zolvan.core.measure.MaterialMeasure;
import app.zolvan.core.measure.NearTwins;
import app.zolvan.core.model.Model;
import app.zolvan.core.prepare.Coverage;
import app.zolvan.server.account.Account;
import app.zolvan.server.library.FindingService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Query;
import app.zolvan.server.scheme.SchemeMapper.SchemeRow;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What designers do to schemes themselves, and what differs between two. */
@Service
public class SchemeCommands {
    /** So many a project may have. */
    static final int MOST = 200;

    private final CommandService commands;
    private final SchemeService schemes;
    private final ProjectService projects;
    private final FindingService finding;
    private final ModelStore models;

    SchemeCommands(
            CommandService commands,
            SchemeService schemes,
            ProjectService projects,
            FindingService finding,
            ModelStore models) {
        this.commands = commands;
        this.schemes = schemes;
        this.projects = projects;
        this.finding = finding;
        this.models = models;
    }

    /** How a scheme begins. */
    public enum Beginning {
        /** As the model arrived. */
        EMPTY,
        /** With all that another one has by then. */
        COPY,
        /** With what another one has at any time, but for what is changed in it. */
        BASED
    }

    /**
     * Makes a scheme, after all others.
     *
     * @param id      its identity
     * @param of      the other one; null for an empty beginning
     */
    @Transactional
    public ProjectState create(Edit edit, UUID id, String name, Beginning beginning, @Nullable UUID of) {
        Project project = commands.begin(edit);
        List<SchemeRow> all = schemes.schemes(edit.project());
        if (all.size() >= MOST) {
            throw Problem.conflict("too-much", "A project has up to " + MOST + " schemes. Delete one first.", null);
        }
        SchemeRow other = beginning == Beginning.EMPTY
                ? null
                : schemes.require(edit.project(), Objects.requireNonNull(of, "a scheme to begin with"));
        UUID base = other == null ? null : beginning == Beginning.BASED ? other.id() : other.base();
        String letter = SchemeLetter.next(all.stream().map(SchemeRow::letter).toList());
        SchemeRow row = new SchemeRow(
                id,
                edit.project(),
                base,
                letter,
                GivenName.require(name),
                "",
                SchemeState.IDEA,
                "",
                1 + all.stream().mapToInt(SchemeRow::position).max().orElse(0));
        List<Change> changes = new ArrayList<>();
        changes.add(new Change.OfScheme(row.id(), null, row));
        if (beginning == Beginning.COPY) {
            SchemeEntries made = new SchemeEntries(row, new Scheme(row.id().toString(), null, Map.of()));
            schemes.entries(edit.project(), Objects.requireNonNull(other))
                    .scheme()
                    .entries()
                    .forEach((slot, entry) -> changes.add(made.put(slot, entry)));
        }
        String from =
                other == null ? "" : (beginning == Beginning.COPY ? ", a copy of " : ", based on ") + other.letter();
        return commands.commit(edit, project, "New scheme " + told(row) + from, changes);
    }

    private static String told(SchemeRow s) {
        return s.letter() + " “" + s.name() + "”";
    }

    /** What is said of a scheme. */
    public record Words(String name, String description, SchemeState state, String reason) {}

    @Transactional
    public ProjectState describe(Edit edit, UUID id, Words d) {
        Project project = commands.begin(edit);
        SchemeRow before = schemes.require(edit.project(), id);
        String reason = d.state().needsReason() ? d.reason().strip() : "";
        if (d.state().needsReason() && reason.isEmpty()) {
            throw Problem.ofField("reason", "Say why it was rejected, so that nobody draws it up again.");
        }
        SchemeRow after =
                before.described(GivenName.require(d.name()), d.description().strip(), d.state(), reason);
        if (after.equals(before)) {
            throw Problem.conflict("nothing", "That is how it is already.", null);
        }
        String what = !before.name().equals(after.name())
                ? "Rename scheme " + before.letter() + " to “" + after.name() + "”"
                : before.state() != after.state()
                        ? "Scheme " + told(after) + ": " + after.state().word()
                        : "Describe scheme " + told(after);
        return commands.commit(edit, project, what, List.of(new Change.OfScheme(id, before, after)));
    }

    /** Puts all schemes into another order. */
    @Transactional
    ProjectState order(Edit edit, List<UUID> ids) {
        Project project = commands.begin(edit);
        List<SchemeRow> all = schemes.schemes(edit.project());
        if (ids.size() != all.size() || new HashSet<>(ids).size() != all.size()) {
            throw Problem.ofField("schemes", "Name each scheme once.");
        }
        List<Change> changes = new ArrayList<>();
        for (int i = 0; i < ids.size(); i++) {
            SchemeRow s = schemes.require(edit.project(), ids.get(i));
            if (s.position() != i) {
                changes.add(new Change.OfScheme(s.id(), s, s.at(i)));
            }
        }
        if (changes.isEmpty()) {
            throw Problem.conflict("nothing", "That is their order already.", null);
        }
        return commands.commit(edit, project, "Order of the schemes", changes);
    }

    /** Deletes a scheme. Those that are based on it keep their looks: they get what they took over from it. */
    @Transactional
    ProjectState delete(Edit edit, UUID id) {
        Project project = commands.begin(edit);
        List<SchemeRow> all = schemes.schemes(edit.project());
        SchemeRow gone = schemes.require(edit.project(), id);
        if (all.size() == 1) {
            throw Problem.conflict("last", "A project has at least one scheme. Make another one first.", null);
        }
        List<Change> changes = new ArrayList<>();
        for (SchemeRow s : all) {
            if (id.equals(s.base())) {
                SchemeEntries heir = schemes.entries(edit.project(), s);
                heir.scheme().settled().entries().forEach((slot, entry) -> {
                    if (!heir.scheme().entries().containsKey(slot)) {
                        changes.add(heir.put(slot, entry));
                    }
                });
                changes.add(new Change.OfScheme(s.id(), s, s.basedOn(gone.base())));
            }
        }
        SchemeEntries old = schemes.entries(edit.project(), gone);
        old.scheme().entries().keySet().forEach(slot -> changes.add(old.put(slot, (Entry) null)));
        changes.add(new Change.OfScheme(id, gone, null));
        return commands.commit(edit, project, "Delete scheme " + told(gone), changes);
    }

    /**
     * Parts that go from one look to another between two schemes.
     *
     * @param from       the material in the first; null for plain grey
     * @param to         in the second
     * @param back       whether it is about their backs
     * @param parts      by their indices
     * @param area       of them, in m²
     * @param difference CIEDE2000 of the two mean colours
     * @param gloss      how many GU more the second has
     */
    record DifferenceWire(
            @Nullable UUID from,
            @Nullable UUID to,
            String fromName,
            String toName,
            boolean back,
            List<Integer> parts,
            double area,
            double difference,
            double gloss) {}

    List<DifferenceWire> differences(Account account, UUID projectId, UUID one, UUID other) {
        Project project = projects.require(account, projectId);
        LookTable a = schemes.looks(project, schemes.require(projectId, one).id(), Side.FRONT);
        LookTable b = schemes.looks(project, schemes.require(projectId, other).id(), Side.FRONT);
        Model model = models.model(projectId);
        int[] partOf = new int[a.regionCount()];
        double[] areas = new double[partOf.length];
        for (Scene.Part p : a.scene().parts()) {
            for (int span = 0; span < p.sets().size(); span++) {
                partOf[a.region(p.index(), span)] = p.index();
                areas[a.region(p.index(), span)] = Coverage.area(model, p.index(), span);
            }
        }
        List<DifferenceWire> all = new ArrayList<>();
        for (Side side : List.of(Side.FRONT, Side.BACK)) {
            SchemeDifferences.of(worn(a, side, b), worn(b, side, a), areas).stream()
                    .forEach(d -> all.add(wire(d, a, b, partOf, side)));
        }
        return all;
    }

    /**
     * Two materials that nearly match.
     *
     * @param parts      that show the one
     * @param otherParts that show the other
     * @param difference CIEDE2000 of their mean colours
     * @param gloss      how many GU more the other has
     * @param match      whether they can't be told apart, but change apart
     */
    record TwinsWire(
            UUID one,
            UUID other,
            List<Integer> parts,
            List<Integer> otherParts,
            double difference,
            double gloss,
            boolean match) {}

    List<TwinsWire> nearTwins(Query query) {
        LookTable looks = schemes.looks(projects.require(query.account(), query.project()), query);
        Map<UUID, List<Integer>> partsOf = new LinkedHashMap<>();
        Map<UUID, MaterialRow> rows = new HashMap<>();
        for (Scene.Part p : looks.scene().parts()) {
            for (MaterialRow m : looks.shownBy(p)) {
                rows.put(m.id(), m);
                partsOf.computeIfAbsent(m.id(), id -> new ArrayList<>()).add(p.index());
            }
        }
        List<NearTwins.Finish<UUID>> finishes = partsOf.keySet().stream()
                .map(rows::get)
                .map(m -> new NearTwins.Finish<>(m.id(), m.toMaterial().kind(), finding.measure(m)))
                .toList();
        return NearTwins.among(finishes).stream()
                .map(p -> new TwinsWire(
                        p.one(),
                        p.other(),
                        partsOf.get(p.one()),
                        partsOf.get(p.other()),
                        p.difference(),
                        p.gloss(),
                        p.matches()))
                .toList();
    }

    /** What tells the look of a region from another one. */
    private record Worn(@Nullable UUID material, String mapping) {}

    /** What each region shows on a side; backs count where fronts do not tell of them, too. */
    private static List<Worn> worn(LookTable t, Side side, LookTable other) {
        return IntStream.range(0, t.regionCount())
                .mapToObj(r -> {
                    if (side == Side.BACK && !t.isTwoSidedAt(r) && !other.isTwoSidedAt(r)) {
                        return new Worn(null, "");
                    }
                    LookTable.Shown s = t.shownAt(r, side);
                    UUID material = s.material() == null ? null : s.material().id();
                    return new Worn(material, CommandService.mapping(s.look()));
                })
                .toList();
    }

    private DifferenceWire wire(
            SchemeDifferences.Difference<Worn> d, LookTable a, LookTable b, int[] partOf, Side side) {
        int region = d.regions().get(0);
        LookTable.Shown from = a.shownAt(region, side);
        LookTable.Shown to = b.shownAt(region, side);
        MaterialMeasure before = measure(from);
        MaterialMeasure after = measure(to);
        return new DifferenceWire(
                d.from().material(),
                d.to().material(),
                name(from),
                name(to),
                side == Side.BACK,
                d.regions().stream().map(r -> partOf[r]).distinct().toList(),
                d.area(),
                CieLab.of(before.mean()).difference(CieLab.of(after.mean())),
                after.gloss() - before.gloss());
    }

    private static String name(LookTable.Shown s) {
        MaterialRow row = s.material();
        return row == null ? "Plain grey" : row.name();
    }

    private MaterialMeasure measure(LookTable.Shown s) {
        Material m = s.look().material();
        return s.material() == null
                ? MaterialMeasure.of(m.surface(), digest -> new byte[0])
                : finding.measure(s.material());
    }
}

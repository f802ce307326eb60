package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.server.view.ViewMapper;
import app.zolvan.server.view.ViewRow;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.function.IntFunction;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;

/** What things hold in any scheme, and what was noted about them, goes with them where their numbers change; what lost ones held goes. */
@Component
class EntryMoves {
    private final SchemeMapper schemes;
    private final ViewMapper views;
    private final NoteMapper notes;

    EntryMoves(SchemeMapper schemes, ViewMapper views, NoteMapper notes) {
        this.notes = notes;
        this.schemes = schemes;
        this.views = views;
    }

    /** @param newerOf gives a thing's number from then on; null where it is lost */
    void move(UUID project, Level level, IntFunction<@Nullable Integer> newerOf, List<Change> changes) {
        schemes.schemes(project).forEach(s -> moveEntries(s.id(), level, newerOf, changes));
        moveCandidates(project, level, newerOf, changes);
        moveNotes(project, level, newerOf, changes);
    }

    /** Of parts: views see through them, too. */
    void moveParts(UUID project, IntFunction<@Nullable Integer> newerOf, List<Change> changes) {
        move(project, Level.PART, newerOf, changes);
        for (ViewRow v : views.views(project)) {
            int[] parts = Arrays.stream(v.lookedInto())
                    .mapToObj(newerOf)
                    .filter(Objects::nonNull)
                    .mapToInt(Integer::intValue)
                    .sorted()
                    .toArray();
            if (!Arrays.equals(parts, v.lookedInto())) {
                changes.add(new Change.OfView(v.id(), v, v.lookingInto(parts)));
            }
        }
    }

    /** Those that stay keep their numbers. */
    void keep(UUID project, Level level, Set<Integer> staying, List<Change> changes) {
        move(project, level, i -> staying.contains(i) ? (Integer) i : null, changes);
    }

    private void moveCandidates(
            UUID project, Level level, IntFunction<@Nullable Integer> newerOf, List<Change> changes) {
        List<Change> puts = new ArrayList<>();
        for (SchemeMapper.CandidateRow c : schemes.candidates(project)) {
            Integer to = newerOf.apply(c.target());
            if (!c.level().equals(level.name()) || (to != null && to == c.target())) {
                continue;
            }
            changes.add(new Change.OfCandidate(c.level(), c.target(), c.materialId(), c.position(), null));
            if (to != null) {
                puts.add(new Change.OfCandidate(c.level(), to, c.materialId(), null, c.position()));
            }
        }
        changes.addAll(puts);
    }

    private void moveNotes(UUID project, Level level, IntFunction<@Nullable Integer> newerOf, List<Change> changes) {
        for (NoteMapper.NoteRow n : notes.notes(project)) {
            Integer to = newerOf.apply(n.target());
            if (n.level().equals(level.name()) && (to == null || to != n.target())) {
                changes.add(new Change.OfNote(n.id(), n, to == null ? null : n.on(to)));
            }
        }
    }

    private void moveEntries(UUID scheme, Level level, IntFunction<@Nullable Integer> newerOf, List<Change> changes) {
        List<Change> puts = new ArrayList<>();
        for (SchemeMapper.EntryRow e : schemes.entries(scheme)) {
            Integer to = newerOf.apply(e.target());
            if (!e.level().equals(level.name()) || (to != null && to == e.target())) {
                continue;
            }
            changes.add(new Change.OfEntry(scheme, e.level(), e.target(), e.side(), e, null));
            if (to != null) {
                puts.add(new Change.OfEntry(scheme, e.level(), to, e.side(), null, e.on(to)));
            }
        }
        changes.addAll(puts);
    }
}

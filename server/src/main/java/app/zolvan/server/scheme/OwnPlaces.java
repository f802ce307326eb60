package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Slot;
import app.zolvan.core.assign.Target;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.model.PartState;
import app.zolvan.server.model.PartState.Spans;
import app.zolvan.server.model.Scene;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/**
 * Something of a part's own in the place of what it shows, on those of its surfaces alone that show it. Where others of a
 * part show something else, these become a face of their own.
 */
@Service
class OwnPlaces {
    private final ModelStore models;

    OwnPlaces(ModelStore models) {
        this.models = models;
    }

    /**
     * Adds to a command's changes what gives a part another material on the surfaces that show one.
     *
     * @param shown   null for plain grey
     * @param changes of the command so far; faces that they make are used again
     */
    void put(
            LookTable looks,
            SchemeEntries entries,
            Scene.Part part,
            @Nullable UUID shown,
            UUID other,
            List<Change> changes) {
        boolean any = false;
        for (Map.Entry<Target, List<Integer>> holder : looks.holders(part).entrySet()) {
            List<Integer> spans = holder.getValue();
            List<Integer> front =
                    spans.stream().filter(s -> looks.frontShows(part, s, shown)).toList();
            List<Integer> back =
                    spans.stream().filter(s -> looks.backShows(part, s, shown)).toList();
            List<Integer> showing = spans.stream()
                    .filter(s -> front.contains(s) || back.contains(s))
                    .toList();
            if (showing.isEmpty()) {
                continue;
            }
            any = true;
            Target target = showing.size() == spans.size()
                    ? holder.getKey()
                    : LookTable.target(Level.FACE, face(looks.scene(), part, showing, changes));
            for (Slot slot : looks.slots(target, !front.isEmpty(), !back.isEmpty())) {
                changes.add(entries.put(slot, other, null));
            }
        }
        if (!any) {
            looks.slots(LookTable.target(Level.PART, part.index()), false, false)
                    .forEach(slot -> changes.add(entries.put(slot, other, null)));
        }
    }

    /** A face of exactly these spans: one that the command makes already, or a new one. */
    private int face(Scene scene, Scene.Part part, List<Integer> spans, List<Change> changes) {
        PartState before = PartState.of(part);
        PartState now = before;
        int known = -1;
        for (int i = 0; i < changes.size(); i++) {
            if (changes.get(i) instanceof Change.OfPart c && c.part() == part.index()) {
                before = c.before();
                now = c.after();
                known = i;
            }
        }
        List<Integer> faces = new ArrayList<>(now.spans().ownFaces());
        int there = faces.get(spans.get(0));
        boolean isOurs = there != Scene.NO_FACE && there != part.ownFaces().get(spans.get(0));
        if (isOurs && spans.stream().allMatch(s -> faces.get(s) == there)) {
            return there;
        }
        String set = scene.sets().get(part.sets().get(spans.get(0))).name();
        int made = models.addOwnFace(scene.projectId(), part.name() + " · " + set);
        spans.forEach(s -> faces.set(s, made));
        Change change = new Change.OfPart(
                part.index(),
                before,
                now.in(new Spans(now.spans().sets(), now.spans().homes(), faces)));
        if (known < 0) {
            changes.add(0, change);
        } else {
            changes.set(known, change);
        }
        return made;
    }
}

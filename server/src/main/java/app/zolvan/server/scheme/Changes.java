package app.zolvan.server.scheme;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;

/** Many changes, done one after the other, as few that come to the same. */
final class Changes {
    private Changes() {}

    /**
     * At most one change for each thing, in an order in which nothing is put where it cannot be: materials come and schemes
     * come before what is put into them, and go after it. What was done to the model is one change of it as a whole, which is
     * apart from all that designers put on it.
     *
     * @param changes in the order in which they were done
     * @param before  the model as it was kept before
     * @param after   keeps it as it is after
     */
    static List<Change> composed(List<Change> changes, String before, Supplier<String> after) {
        Map<Object, Change.OfMaterial> materials = new LinkedHashMap<>();
        Map<Object, Change.OfScheme> schemes = new LinkedHashMap<>();
        Map<Object, Change.OfEntry> entries = new LinkedHashMap<>();
        Map<Object, Change.OfCandidate> candidates = new LinkedHashMap<>();
        Map<Object, Change.OfImage> images = new LinkedHashMap<>();
        Map<Object, Change.OfProject> details = new LinkedHashMap<>();
        Map<Object, Change.OfView> views = new LinkedHashMap<>();
        Map<Object, Change.OfLight> lights = new LinkedHashMap<>();
        Map<Object, Change.OfNote> notes = new LinkedHashMap<>();
        Map<Object, Change.OfFace> faces = new LinkedHashMap<>();
        boolean model = false;
        for (Change c : changes) {
            if (c instanceof Change.OfMaterial m) {
                materials.merge(m.id(), m, (a, b) -> new Change.OfMaterial(a.id(), a.before(), b.after()));
            } else if (c instanceof Change.OfScheme s) {
                schemes.merge(s.id(), s, (a, b) -> new Change.OfScheme(a.id(), a.before(), b.after()));
            } else if (c instanceof Change.OfEntry e) {
                Object place = List.of(e.scheme(), e.level(), e.target(), e.side());
                entries.merge(
                        place,
                        e,
                        (a, b) ->
                                new Change.OfEntry(a.scheme(), a.level(), a.target(), a.side(), a.before(), b.after()));
            } else if (c instanceof Change.OfCandidate k) {
                Object place = List.of(k.level(), k.target(), k.material());
                candidates.merge(
                        place,
                        k,
                        (a, b) -> new Change.OfCandidate(a.level(), a.target(), a.material(), a.before(), b.after()));
            } else if (c instanceof Change.OfImage i) {
                images.merge(i.sha256(), i, (a, b) -> new Change.OfImage(a.sha256(), a.before(), b.after()));
            } else if (c instanceof Change.OfProject p) {
                details.merge("details", p, (a, b) -> new Change.OfProject(a.before(), b.after()));
            } else if (c instanceof Change.OfView v) {
                views.merge(v.id(), v, (a, b) -> new Change.OfView(a.id(), a.before(), b.after()));
            } else if (c instanceof Change.OfLight l) {
                lights.merge(l.id(), l, (a, b) -> new Change.OfLight(a.id(), a.before(), b.after()));
            } else if (c instanceof Change.OfNote n) {
                notes.merge(n.id(), n, (a, b) -> new Change.OfNote(a.id(), a.before(), b.after()));
            } else if (c instanceof Change.OfFace f) {
                faces.merge(f.face(), f, (a, b) -> new Change.OfFace(a.face(), a.before(), b.after()));
            } else {
                model = true;
            }
        }
        List<Change> out = new ArrayList<>(details.values());
        out.addAll(images.values());
        out.addAll(views.values());
        out.addAll(lights.values());
        out.addAll(notes.values());
        out.addAll(faces.values());
        if (model) {
            out.add(new Change.OfModel(before, after.get()));
        }
        materials.values().stream().filter(m -> m.after() != null).forEach(out::add);
        schemes.values().stream().filter(s -> s.after() != null).forEach(out::add);
        out.addAll(entries.values());
        out.addAll(candidates.values());
        schemes.values().stream().filter(s -> s.after() == null).forEach(out::add);
        materials.values().stream().filter(m -> m.after() == null).forEach(out::add);
        return out;
    }
}

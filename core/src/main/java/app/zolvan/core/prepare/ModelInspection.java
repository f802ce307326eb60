package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.MeshMeasure;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.mapping.EvenCoordinates;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.model.LengthText;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.model.SourceImage;
import app.zolvan.core.snag.Snag;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.DoubleConsumer;

/** Looks through an imported model for what would trouble a designer later. Tolerances are real lengths, not shares. */
public final class ModelInspection {
    /** Tips that come out less than this are in order, in metres. */
    private static final double SHALLOW = 2e-4;
    /** Smaller areas in common than this are not seen, in m². */
    private static final double SPECK = 1e-6;
    /** A gap is meant to be none where bodies face each other over so large a share of the smaller one. */
    private static final double MUCH = 0.15;

    /** Two opaque parts of one material in one place do not show, unless one lies in the other over so much of it. */
    private static final double MOST = 0.4;

    private static final int LARGEST_IMAGE = 4096;
    /** A model is far off when its middle lies so many times its own size from the origin. */
    private static final double FAR = 20;

    private final Model model;
    private final List<MeshMeasure> measures;
    private final DoubleConsumer progress;
    private final List<Snag> findings = new ArrayList<>();
    /** By mesh, whether it encloses something. */
    private final Map<Integer, Boolean> enclosing = new TreeMap<>();
    /** By kind, and by what the parts are called. */
    private final Map<ModelSnag, Map<String, Note>> notes = new TreeMap<>();
    /** By kind and what two parts are called. */
    private final Map<String, List<Snag>> alike = new TreeMap<>();

    private ModelInspection(Preparation prepared, DoubleConsumer progress) {
        this.model = prepared.model();
        this.measures = prepared.measures();
        this.progress = progress;
    }

    /**
     * All findings, by kind and within a kind the weightiest first.
     *
     * @param progress told the share done, in [0, 1]
     */
    public static List<Snag> of(Preparation prepared, DoubleConsumer progress) {
        ModelInspection i = new ModelInspection(prepared, progress);
        i.shapes();
        i.contacts();
        i.places();
        i.coordinates();
        i.images();
        i.groups();
        i.names();
        i.findings.sort(Comparator.comparing((Snag f) -> (ModelSnag) f.kind())
                .thenComparing(f -> -f.amount())
                .thenComparing(f -> -f.count()));
        progress.accept(1);
        return List.copyOf(i.findings);
    }

    private String name(int part) {
        return "“" + model.parts().get(part).name() + "”";
    }

    private static String counted(int n, String one, String many) {
        return n == 1 ? "one " + one : String.format(Locale.ROOT, "%,d %s", n, many);
    }

    private static String length(double metres) {
        return LengthText.kept(metres);
    }

    private static String area(double squareMetres) {
        return LengthText.keptArea(squareMetres);
    }

    // --- each part by itself ---

    /** Meshes are looked at once; parts that show the same one share what is found. */
    private void shapes() {
        Map<Integer, List<Integer>> users = new TreeMap<>();
        for (int i = 0; i < model.parts().size(); i++) {
            users.computeIfAbsent(model.parts().get(i).mesh(), m -> new ArrayList<>())
                    .add(i);
        }
        int done = 0;
        for (Map.Entry<Integer, List<Integer>> e : users.entrySet()) {
            Transform world = model.partToWorld(model.parts().get(e.getValue().get(0)));
            Vec3 stretch = world.stretch();
            double scale = Math.max(stretch.x(), Math.max(stretch.y(), stretch.z()));
            Shells s = Shells.of(model.meshes().get(e.getKey()), scale);
            enclosing.put(e.getKey(), s.encloses());
            shape(s, e.getValue(), world);
            progress.accept(0.3 * ++done / users.size());
        }
        tellNotes();
    }

    private void shape(Shells s, List<Integer> parts, Transform world) {
        if (!s.openLoops().isEmpty()) {
            int edges = 0;
            double total = 0;
            Box3 place = Box3.EMPTY;
            for (int[] loop : s.openLoops()) {
                edges += loop.length;
                for (int e : loop) {
                    Vec3 a = world.point(s.corner(e));
                    Vec3 b = world.point(s.end(e));
                    total += b.minus(a).length();
                    place = place.with(a).with(b);
                }
            }
            note(ModelSnag.OPEN, parts, edges, total, place);
        }
        if (!s.crowded().isEmpty()) {
            Box3 place = Box3.EMPTY;
            for (int e : s.crowded()) {
                place = place.with(world.point(s.corner(e))).with(world.point(s.end(e)));
            }
            note(ModelSnag.NON_MANIFOLD, parts, s.crowded().size(), 0, place);
        }
        triangles(ModelSnag.FLIPPED, s, s.flipped(), parts, world);
        triangles(ModelSnag.DUPLICATE, s, s.duplicates(), parts, world);
        triangles(ModelSnag.DEGENERATE, s, s.degenerate(), parts, world);
    }

    private void triangles(ModelSnag kind, Shells s, List<Integer> which, List<Integer> parts, Transform world) {
        if (!which.isEmpty()) {
            note(kind, parts, which.size(), 0, s.boundsOf(which).transformed(world));
        }
    }

    /** One kind of defect of parts of one name, on its way to a finding. */
    private static final class Note {
        final List<Integer> parts = new ArrayList<>();
        int count;
        double amount;
        Box3 place = Box3.EMPTY;
    }

    /** Keeps a defect; parts that are called alike, numbers aside, are told of together. */
    private void note(ModelSnag kind, List<Integer> parts, int count, double amount, Box3 place) {
        String called = plainName(parts.get(0));
        Note note = notes.computeIfAbsent(kind, k -> new TreeMap<>()).computeIfAbsent(called, c -> new Note());
        note.parts.addAll(parts);
        note.count += count * parts.size();
        note.amount += amount * parts.size();
        note.place = note.place.with(place);
        for (int p : parts.subList(1, parts.size())) { // the place is the first one's
            note.place = note.place.with(model.boundsOf(model.parts().get(p)));
        }
    }

    private void tellNotes() {
        notes.forEach((kind, byName) -> byName.values().forEach(n -> {
            String others = counted(n.parts.size() - 1, "other like it", "others like it");
            String who = name(n.parts.get(0)) + (n.parts.size() == 1 ? "" : " and " + others);
            add(kind, n.parts, n.count, n.amount, n.place, says(kind, n, who));
        }));
    }

    private static String says(ModelSnag kind, Note n, String who) {
        String triangles = counted(n.count, "triangle", "triangles");
        boolean one = n.count == 1;
        return switch (kind) {
            case OPEN ->
                who + (n.parts.size() == 1 ? " is" : " are") + " almost closed: "
                        + counted(n.count, "edge is", "edges are") + " open, " + length(n.amount) + " in all.";
            case NON_MANIFOLD ->
                "More than two triangles meet at " + counted(n.count, "edge", "edges") + " of " + who + ".";
            case FLIPPED -> triangles + " of " + who + (one ? " faces" : " face") + " the wrong way.";
            case DUPLICATE -> triangles + " of " + who + (one ? " is" : " are") + " in the file twice.";
            default -> triangles + " of " + who + (one ? " has" : " have") + " no area.";
        };
    }

    // --- parts and each other ---

    private boolean closes(int part) {
        return enclosing.get(model.parts().get(part).mesh());
    }

    private boolean isClear(int part) {
        return model.parts().get(part).sourceOfSpan().stream()
                .filter(s -> s != Model.NONE)
                .anyMatch(s -> model.sources().get(s).material().surface().number(Parameter.TRANSMISSION_WEIGHT) > 0.5);
    }

    private void contacts() {
        Bodies bodies = new Bodies(model);
        Tips tips = new Tips(model, bodies);
        Optional<List<Contacts.Pair>> pairs = Contacts.of(model, bodies, share -> progress.accept(0.3 + 0.5 * share));
        if (pairs.isEmpty()) {
            add(
                    ModelSnag.NOT_COMPARED,
                    List.of(),
                    1,
                    0,
                    Box3.EMPTY,
                    "Parts were not compared with each other: too many triangles lie near other parts.");
            return;
        }
        for (Contacts.Pair p : pairs.get()) {
            // faces that look at each other are seen by nobody, unless light passes one of the bodies
            boolean clear = isClear(p.first) || isClear(p.second);
            double common = p.alike + (clear ? p.opposed : 0);
            double least = Math.min(
                    measures.get(p.first).area(), measures.get(p.second).area());
            boolean shows = clear || common > MOST * least || !sources(p.first).equals(sources(p.second));
            if (common > SPECK && shows) {
                tell(
                        ModelSnag.COINCIDENT,
                        List.of(p.first, p.second),
                        0,
                        common,
                        clear ? p.alikeAt.with(p.opposedAt) : p.alikeAt,
                        name(p.first) + " and " + name(p.second) + " share " + area(common)
                                + " of surface in one place.");
            }
            if (p.crossings > 0) {
                poking(tips, p, p.first, p.second, p.ofFirst, p.ofSecond);
                poking(tips, p, p.second, p.first, p.ofSecond, p.ofFirst);
            }
            if (p.facing > MUCH * least && p.crossings == 0 && p.gap() > Math.max(Contacts.ONE_PLACE, 2 * p.slack)) {
                tell(
                        ModelSnag.GAP,
                        List.of(p.first, p.second),
                        0,
                        p.gap(),
                        p.between,
                        "Between " + name(p.first) + " and " + name(p.second) + " there is a gap of " + length(p.gap())
                                + " over " + area(p.facing) + ".");
            }
        }
        tellAlike();
    }

    private List<Integer> sources(int part) {
        return model.parts().get(part).sourceOfSpan();
    }

    /** Keeps what was found between two parts; pairs of the same names, numbers aside, are told of together. */
    private void tell(ModelSnag kind, List<Integer> two, int count, double amount, Box3 place, String says) {
        String called = kind + " " + plainName(two.get(0)) + " " + plainName(two.get(1));
        alike.computeIfAbsent(called, c -> new ArrayList<>())
                .add(Snag.ofParts(kind, two, count, amount, place, says, kind.fix()));
    }

    private void tellAlike() {
        for (List<Snag> same : alike.values()) {
            same.sort(Comparator.comparing(f -> -f.amount()));
            Snag first = same.get(0);
            int more = same.size() - 1;
            Box3 place = Box3.EMPTY;
            int count = 0;
            for (Snag f : same) {
                place = place.with(f.place());
                count += f.count();
            }
            add(
                    (ModelSnag) first.kind(),
                    same.stream().flatMap(f -> f.parts().stream()).distinct().toList(),
                    count,
                    first.amount(),
                    place,
                    first.says()
                            + (more == 0
                                    ? ""
                                    : " So it is with " + counted(more, "other pair", "other pairs") + " called so."));
        }
    }

    private String plainName(int part) {
        return model.parts().get(part).name().replaceAll("[\\s\\d._()#-]+$", "");
    }

    private void poking(Tips tips, Contacts.Pair p, int part, int through, Set<Integer> crossed, Set<Integer> by) {
        double out = tips.of(part, through, crossed, by, closes(through));
        if (out > Math.max(SHALLOW, 1.5 * p.slack)) {
            tell(
                    ModelSnag.POKING,
                    List.of(part, through),
                    p.crossings,
                    out,
                    p.crossing,
                    name(part) + " pokes " + length(out) + " out of " + name(through) + ".");
        }
    }

    // --- the whole ---

    private void places() {
        int n = model.parts().size();
        if (n == 0) {
            return;
        }
        Box3[] boxes = new Box3[n];
        Vec3[] middles = new Vec3[n];
        for (int i = 0; i < n; i++) {
            boxes[i] = model.boundsOf(model.parts().get(i));
            middles[i] = boxes[i].min().plus(boxes[i].max()).times(0.5);
        }
        Vec3 heart = new Vec3(median(middles, 0), median(middles, 1), median(middles, 2));
        double[] away = Arrays.stream(middles)
                .mapToDouble(m -> m.minus(heart).length())
                .sorted()
                .toArray();
        double usual = away[(int) (0.9 * (n - 1))];
        List<Integer> stray = new ArrayList<>();
        Box3 rest = Box3.EMPTY;
        for (int i = 0; i < n; i++) {
            double d = middles[i].minus(heart).length();
            if (n >= 4 && d > 10 * usual && d > 10 * boxes[i].size().length()) {
                stray.add(i);
            } else {
                rest = rest.with(boxes[i]);
            }
        }
        for (int i : stray) {
            double d = middles[i].minus(heart).length();
            add(
                    ModelSnag.STRAY,
                    List.of(i),
                    1,
                    d,
                    boxes[i],
                    name(i) + " lies " + length(d) + " away from everything else.");
        }
        double off = rest.isEmpty() ? 0 : rest.min().plus(rest.max()).times(0.5).length();
        if (off > FAR * rest.size().length()) {
            add(
                    ModelSnag.FAR_FROM_ORIGIN,
                    List.of(),
                    1,
                    off,
                    rest,
                    "The model lies " + length(off) + " from the origin.");
        }
    }

    private static double median(Vec3[] points, int axis) {
        double[] sorted =
                Arrays.stream(points).mapToDouble(p -> p.get(axis)).sorted().toArray();
        return sorted[sorted.length / 2];
    }

    private void coordinates() {
        List<Integer> without = new ArrayList<>();
        List<Integer> even = new ArrayList<>();
        Map<Integer, Boolean> areEven = new TreeMap<>();
        for (int i = 0; i < model.parts().size(); i++) {
            Model.Part part = model.parts().get(i);
            if (model.meshOf(part).uv() == null) {
                without.add(i);
            } else if (areEven.computeIfAbsent(
                    part.mesh(),
                    m -> EvenCoordinates.lieOn(
                            model.meshes().get(m), model.partToWorld(part).stretch()))) {
                even.add(i);
            }
        }
        if (!even.isEmpty()) {
            add(
                    ModelSnag.EVEN_COORDINATES,
                    even,
                    even.size(),
                    0,
                    Box3.EMPTY,
                    counted(even.size(), "part was", "parts were") + " laid out flat by the file already.");
        }
        if (!without.isEmpty()) {
            add(
                    ModelSnag.NO_COORDINATES,
                    without,
                    without.size(),
                    0,
                    Box3.EMPTY,
                    (without.size() == model.parts().size()
                                    ? "No part has"
                                    : counted(without.size(), "part has no", "parts have no"))
                            + " texture coordinates.");
        }
    }

    private void images() {
        for (SourceImage image : new TreeMap<>(model.images()).values()) {
            if (Math.max(image.width(), image.height()) > LARGEST_IMAGE) {
                add(
                        ModelSnag.OVERSIZE_IMAGE,
                        List.of(),
                        1,
                        0,
                        Box3.EMPTY,
                        String.format(
                                Locale.ROOT,
                                "The image “%s” has %,d × %,d pixels.",
                                image.name(),
                                image.width(),
                                image.height()));
            }
        }
    }

    private void groups() {
        boolean[] holds = new boolean[model.groups().size()];
        for (Model.Part p : model.parts()) {
            for (int g = p.group();
                    g != Model.NONE && !holds[g];
                    g = model.groups().get(g).parent()) {
                holds[g] = true;
            }
        }
        int empty = 0;
        String first = "";
        for (int g = 0; g < holds.length; g++) {
            if (!holds[g]) {
                first = empty++ == 0 ? model.groups().get(g).name() : first;
            }
        }
        if (empty > 0) {
            add(
                    ModelSnag.EMPTY_GROUP,
                    List.of(),
                    empty,
                    0,
                    Box3.EMPTY,
                    empty == 1
                            ? "The group “" + first + "” holds nothing."
                            : "The group “" + first + "” and " + counted(empty - 1, "other", "others")
                                    + " hold nothing.");
        }
    }

    private void names() {
        List<Integer> nameless = new ArrayList<>();
        for (int i = 0; i < model.parts().size(); i++) {
            if (Names.saysNothing(model.parts().get(i).name())) {
                nameless.add(i);
            }
        }
        if (!nameless.isEmpty()) {
            add(
                    ModelSnag.NAMELESS,
                    nameless,
                    nameless.size(),
                    0,
                    Box3.EMPTY,
                    counted(nameless.size(), "part has", "parts have") + " a name that says nothing, such as "
                            + name(nameless.get(0)) + ".");
        }
        List<String> sources = model.sources().stream()
                .map(s -> s.name())
                .filter(Names::saysNothing)
                .toList();
        if (!sources.isEmpty()) {
            add(
                    ModelSnag.NAMELESS,
                    List.of(),
                    sources.size(),
                    0,
                    Box3.EMPTY,
                    counted(sources.size(), "source material has", "source materials have")
                            + " a name that says nothing, such as “" + sources.get(0) + "”.");
        }
    }

    private void add(ModelSnag kind, List<Integer> parts, int count, double amount, Box3 place, String says) {
        String start = Character.toUpperCase(says.charAt(0)) + says.substring(1);
        findings.add(Snag.ofParts(kind, parts, count, amount, place, start, kind.fix()));
    }
}

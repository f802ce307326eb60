package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * Proposes what each part of a model is, by words in names, what its arrived material lets through or gives off, and its
 * size, stance and place. Each piece of evidence has a weight w in [0, 1); several for one role make 1 − Π(1 − w). The
 * role with most is proposed where that is enough, with its reasons.
 */
public final class Roles {
    /** Less evidence than this is not told. */
    public static final double ENOUGH = 0.4;

    private static final double OWN_NAME = 0.7;
    private static final double GROUP_NAME = 0.45;
    private static final double SOURCE_NAME = 0.5;
    private static final double MATERIAL = 0.75;
    private static final double SHAPE = 0.5;
    private static final double HINT = 0.3;

    /** A model that is as high as this may be a building. */
    private static final double ROOM_HEIGHT = 1.9;

    private static final double FLAT = 0.15;
    private static final Pattern NO_LETTERS = Pattern.compile("[^\\p{L}]+");
    private static final Pattern HUMP = Pattern.compile("(?<=\\p{Ll})(?=\\p{Lu})");

    /**
     * @param part       its index
     * @param confidence in [{@link #ENOUGH}, 1)
     * @param reason     why, in a few words
     */
    public record Proposal(int part, Role role, double confidence, String reason) {
        public boolean isLikely() {
            return Certainty.of(confidence) != Certainty.PERHAPS;
        }
    }

    /** How sure a proposal is, in a word. */
    public enum Certainty {
        SURE(0.85),
        LIKELY(0.55),
        PERHAPS(0);

        private final double from;

        Certainty(double from) {
            this.from = from;
        }

        static Certainty of(double confidence) {
            return confidence >= SURE.from ? SURE : confidence >= LIKELY.from ? LIKELY : PERHAPS;
        }
    }

    /** @param parts how many parts it holds for */
    public record Reason(String text, int parts) {}

    /**
     * All parts that are proposed one role.
     *
     * @param certainty of the least sure of them
     * @param reasons   those that hold for most parts first
     */
    public record RoleGroup(Role role, List<Integer> parts, Certainty certainty, List<Reason> reasons) {}

    /** The role that more than half of some parts have; null where none does. Parts without a role have null. */
    public static Role ofMost(List<Role> roles) {
        for (Role r : Role.values()) {
            if (2 * Collections.frequency(roles, r) > roles.size()) {
                return r;
            }
        }
        return null;
    }

    /** Proposals by role, the one of most parts first. */
    public static List<RoleGroup> grouped(List<Proposal> proposals) {
        Map<Role, List<Proposal>> byRole = new EnumMap<>(Role.class);
        proposals.forEach(
                p -> byRole.computeIfAbsent(p.role, r -> new ArrayList<>()).add(p));
        List<RoleGroup> groups = new ArrayList<>();
        byRole.forEach((role, list) -> {
            Map<String, Integer> reasons = new LinkedHashMap<>();
            list.forEach(p -> reasons.merge(p.reason, 1, Integer::sum));
            double least = list.stream().mapToDouble(Proposal::confidence).min().orElse(0);
            groups.add(new RoleGroup(
                    role,
                    list.stream().map(Proposal::part).toList(),
                    Certainty.of(least),
                    reasons.entrySet().stream()
                            .map(e -> new Reason(e.getKey(), e.getValue()))
                            .sorted(Comparator.comparingInt(Reason::parts).reversed())
                            .toList()));
        });
        groups.sort(Comparator.comparingInt((RoleGroup g) -> g.parts.size()).reversed());
        return groups;
    }

    private final Model model;
    private final Box3 all;
    private final Map<Integer, Integer> repeats = new HashMap<>();

    private Roles(Model model) {
        this.model = model;
        this.all = model.bounds();
        model.parts().forEach(p -> repeats.merge(p.mesh(), 1, Integer::sum));
    }

    /** What is proposed, by part; parts of which too little is known are left out. */
    public static List<Proposal> propose(Preparation prepared) {
        Roles roles = new Roles(prepared.model());
        List<Proposal> out = new ArrayList<>();
        for (int p = 0; p < prepared.model().parts().size(); p++) {
            Proposal proposal = roles.judge(p, prepared.measures().get(p).closed());
            if (proposal != null) {
                out.add(proposal);
            }
        }
        return out;
    }

    /** What speaks for each role. */
    private static final class Evidence {
        final Map<Role, Double> doubt = new EnumMap<>(Role.class);
        final Map<Role, List<String>> reasons = new EnumMap<>(Role.class);

        void add(Role role, double weight, String reason) {
            doubt.merge(role, 1 - weight, (a, b) -> a * b);
            reasons.computeIfAbsent(role, r -> new ArrayList<>()).add(reason);
        }
    }

    private Proposal judge(int index, boolean closed) {
        Model.Part part = model.parts().get(index);
        Evidence e = new Evidence();
        names(part, e);
        material(part, e);
        shape(part, closed, e);
        Role best = null;
        for (Role r : e.doubt.keySet()) {
            best = best == null || e.doubt.get(r) < e.doubt.get(best) ? r : best;
        }
        if (best == null || 1 - e.doubt.get(best) < ENOUGH) {
            return null;
        }
        return new Proposal(index, best, 1 - e.doubt.get(best), String.join(", ", e.reasons.get(best)));
    }

    private void names(Model.Part part, Evidence e) {
        words(part.name(), OWN_NAME, "its name has", e);
        double weight = GROUP_NAME;
        for (int g = part.group();
                g != Model.NONE && weight > 0.2;
                g = model.groups().get(g).parent()) {
            words(model.groups().get(g).name(), weight, "its group’s name has", e);
            weight *= 0.6;
        }
        part.sourceOfSpan().stream()
                .filter(s -> s != Model.NONE)
                .distinct()
                .forEach(s -> words(model.sources().get(s).name(), SOURCE_NAME, "its source material’s name has", e));
    }

    /** The last word that names something says what a thing is: a "door handle" is a handle. */
    private static void words(String name, double weight, String where, Evidence e) {
        String[] words = NO_LETTERS.split(HUMP.matcher(name).replaceAll(" ").toLowerCase(Locale.ROOT));
        double w = weight;
        for (int i = words.length - 1; i >= 0; i--) {
            String word = words[i];
            for (Role r : Role.values()) {
                if (r.isNamed(word)) {
                    e.add(r, w, where + " “" + word + "”");
                    w = weight * 0.5;
                }
            }
        }
    }

    private void material(Model.Part part, Evidence e) {
        if (part.sourceOfSpan().stream().anyMatch(s -> s == Model.NONE)) {
            return;
        }
        List<Surface> worn = part.sourceOfSpan().stream()
                .distinct()
                .map(s -> model.sources().get(s).material().surface())
                .toList();
        if (!worn.isEmpty() && worn.stream().allMatch(Roles::isClear)) {
            e.add(Role.GLASS, MATERIAL, "light passes through its material");
            e.add(Role.LIQUID, HINT, "light passes through its material");
        }
        if (worn.stream().anyMatch(s -> s.number(Parameter.EMISSION_LUMINANCE) > 0)) {
            e.add(Role.LAMP, MATERIAL, "its material gives off light");
        }
        if (worn.stream().anyMatch(s -> s.number(Parameter.FUZZ_WEIGHT) > 0.3)) {
            e.add(Role.TEXTILE, HINT, "its material has fuzz");
        }
    }

    private static boolean isClear(Surface s) {
        double opacity = s.number(Parameter.GEOMETRY_OPACITY);
        return s.number(Parameter.TRANSMISSION_WEIGHT) > 0.5 || (opacity > 0.02 && opacity < 0.75);
    }

    private void shape(Model.Part part, boolean closed, Evidence e) {
        Box3 box = model.boundsOf(part);
        if (box.isEmpty()) {
            return;
        }
        Vec3 size = box.size();
        Vec3 whole = all.size();
        double[] sides = {size.x(), size.y(), size.z()};
        Arrays.sort(sides);
        double height = (box.min().y() - all.min().y()) / Math.max(1e-9, whole.y());
        double top = (box.max().y() - all.min().y()) / Math.max(1e-9, whole.y());
        double footprint = size.x() * size.z() / Math.max(1e-9, whole.x() * whole.z());
        boolean sheet = sides[0] < FLAT * sides[1];
        boolean lying = sheet && size.y() == sides[0];
        boolean room = whole.y() > ROOM_HEIGHT;
        if (lying && room && footprint > 0.25) {
            boolean low = top < 0.25;
            e.add(
                    low ? Role.FLOOR : height > 0.7 ? Role.CEILING : Role.WORKTOP,
                    low || height > 0.7 ? SHAPE : HINT,
                    low ? "it lies flat and wide near the bottom" : "it lies flat and wide above");
        }
        if (sheet && !lying && room && size.y() > 0.5 * whole.y() && sides[1] > 0.8) {
            e.add(Role.WALL, SHAPE, "it stands upright, high and wide");
        }
        if (room && height > 0.4 && footprint > 0.15 && slopes(part)) {
            e.add(Role.ROOF, SHAPE, "it is wide, slopes, and lies high");
        }
        boolean tiny = sides[2] < 0.06 && sides[2] < 0.08 * whole.length();
        int same = repeats.get(part.mesh());
        if (tiny && same >= 4) {
            e.add(Role.FASTENER, SHAPE, "it is small, and there are " + same + " of it");
        }
        if (sides[2] > 8 * sides[1] && sides[1] < 0.2) {
            boolean standing = size.y() == sides[2];
            if (standing && height < 0.02 && top < 0.9 && !room) {
                e.add(Role.LEG, SHAPE, "it is long, thin and stands on the ground");
            } else {
                e.add(Role.FRAME, HINT, "it is long and thin");
            }
        }
        boolean soft = closed && sides[0] > 0.03 && sides[0] < 0.3 && sides[1] > 0.25 && sides[2] < 1.2;
        if (soft && roundness(part) > 0.2) {
            e.add(Role.CUSHION, HINT, "it is the size of a cushion, and rounded");
        }
    }

    /** Whether most of a part's area is neither level nor upright. */
    private boolean slopes(Model.Part part) {
        double[] shares = inclined(part, 0.25, 0.97);
        return shares[0] > 0.5 * shares[1];
    }

    /** The share of its area that looks along none of its own axes. */
    private double roundness(Model.Part part) {
        Mesh mesh = model.meshOf(part);
        double round = 0;
        double area = 0;
        for (int i = 0; i < mesh.indices().length; i += 3) {
            Vec3 n = normal(mesh, Transform.IDENTITY, i);
            double a = n.length();
            double most = Math.max(Math.abs(n.x()), Math.max(Math.abs(n.y()), Math.abs(n.z())));
            area += a;
            round += most < 0.97 * a ? a : 0;
        }
        return area > 0 ? round / area : 0;
    }

    /** Area whose normal's upright part lies between two, and all area. */
    private double[] inclined(Model.Part part, double from, double to) {
        Mesh mesh = model.meshOf(part);
        Transform t = model.partToWorld(part);
        double[] out = new double[2];
        for (int i = 0; i < mesh.indices().length; i += 3) {
            Vec3 n = normal(mesh, t, i);
            double a = n.length();
            double up = a > 0 ? Math.abs(n.y()) / a : 0;
            out[0] += up > from && up < to ? a : 0;
            out[1] += a;
        }
        return out;
    }

    private static Vec3 normal(Mesh mesh, Transform t, int corner) {
        Vec3 a = t.point(mesh.position(mesh.indices()[corner]));
        Vec3 b = t.point(mesh.position(mesh.indices()[corner + 1]));
        Vec3 c = t.point(mesh.position(mesh.indices()[corner + 2]));
        return b.minus(a).cross(c.minus(a));
    }
}

package app.zolvan.server.scheme;

import app.zolvan.core.assign.Entry;
import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.assign.LookTrace;
import app.zolvan.core.assign.LookTrace.Aspect;
import app.zolvan.core.assign.Scheme;
import app.zolvan.core.assign.Side;
import app.zolvan.core.assign.Slot;
import app.zolvan.core.assign.Target;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.model.Scene;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * The look of every region of a project's model in one scheme, as core resolves it. Made from one state of the database
 * and not changed afterwards.
 */
public final class LookTable {
    private final Scene scene;
    private final Scheme scheme;
    private final Map<UUID, MaterialRow> rows;
    private final Map<UUID, Material> materials = new HashMap<>();
    private final Map<LookKey, Integer> index = new LinkedHashMap<>();
    private final List<Shown> looks = new ArrayList<>();
    private final List<int[]> lookOfSpan = new ArrayList<>();

    /** @param material the material shown, or null for neutral grey */
    record Shown(Look look, @Nullable MaterialRow material) {}

    private record LookKey(
            @Nullable UUID material,
            @Nullable Mapping mapping,
            double thickness,
            @Nullable Level from) {}

    LookTable(Scene scene, Scheme scheme, Map<UUID, MaterialRow> rows) {
        this.scene = scene;
        this.scheme = scheme;
        this.rows = rows;
        for (Scene.Part part : scene.parts()) {
            int[] ofPart = new int[part.sets().size()];
            for (int span = 0; span < ofPart.length; span++) {
                ofPart[span] = resolve(part, span);
            }
            lookOfSpan.add(ofPart);
        }
    }

    private int resolve(Scene.Part part, int span) {
        LookTrace trace = trace(part.index(), span, Aspect.MATERIAL);
        Entry winner = trace.winningEntry();
        Entry mapped = trace(part.index(), span, Aspect.MAPPING).winningEntry();
        UUID material = winner != null
                ? UUID.fromString(winner.material())
                : scene.sets().get(part.sets().get(span)).source();
        Level from = winner == null
                ? null
                : trace.steps().get(trace.winner()).target().level();
        Material m = material == null
                ? Look.NEUTRAL
                : materials.computeIfAbsent(material, id -> rows.get(id).toMaterial());
        boolean clear = m.surface().number(Parameter.TRANSMISSION_WEIGHT) > 0;
        double thickness = clear ? part.ownThickness() : 0; // says nothing about an opaque body
        LookKey key = new LookKey(material, mapped == null ? null : mapped.mapping(), thickness, from);
        return index.computeIfAbsent(key, k -> {
            looks.add(new Shown(
                    Look.of(m, k.mapping(), k.thickness(), from), material == null ? null : rows.get(material)));
            return looks.size() - 1;
        });
    }

    /** Why a region shows what it shows. */
    LookTrace trace(int part, int span, Aspect aspect) {
        return LookTrace.of(scheme, ladder(part, span), Side.FRONT, aspect);
    }

    private List<Target> ladder(int partIndex, int span) {
        Scene.Part part = scene.parts().get(partIndex);
        List<Target> groups = new ArrayList<>();
        for (int g = part.group(); g >= 0; g = scene.groups().get(g).parent()) {
            groups.add(0, new Target(Level.GROUP, String.valueOf(g)));
        }
        List<Target> ladder = new ArrayList<>();
        ladder.add(new Target(Level.MODEL, String.valueOf(part.model())));
        ladder.add(new Target(Level.SET, String.valueOf(part.sets().get(span))));
        ladder.addAll(groups);
        ladder.add(new Target(Level.PART, String.valueOf(partIndex)));
        return ladder;
    }

    /** The look of a part's span. */
    public Look of(int part, int span) {
        return looks.get(lookOfSpan.get(part)[span]).look();
    }

    Shown shown(int part, int span) {
        return looks.get(lookOfSpan.get(part)[span]);
    }

    List<Shown> looks() {
        return looks;
    }

    int lookIndex(int part, int span) {
        return lookOfSpan.get(part)[span];
    }

    public Scene scene() {
        return scene;
    }

    /** How many parts show the material somewhere. */
    long partsShowing(UUID material) {
        return scene.parts().stream().filter(p -> shows(p, material)).count();
    }

    boolean shows(Scene.Part part, UUID material) {
        for (int look : lookOfSpan.get(part.index())) {
            MaterialRow m = looks.get(look).material();
            if (m != null && m.id().equals(material)) {
                return true;
            }
        }
        return false;
    }

    static Slot slot(SchemeMapper.EntryRow e) {
        return new Slot(new Target(Level.valueOf(e.level()), String.valueOf(e.target())), Side.valueOf(e.side()));
    }

    static Entry entry(SchemeMapper.EntryRow e) {
        Mapping mapping =
                e.mapping() == null ? null : e.mapping().equals("BOX") ? new Mapping.Box() : new Mapping.ModelUvs();
        return new Entry(e.materialId() == null ? null : e.materialId().toString(), mapping, e.onTop());
    }
}

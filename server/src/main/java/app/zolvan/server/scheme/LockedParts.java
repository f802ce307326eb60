package app.zolvan.server.scheme;

import app.zolvan.core.assign.Entry;
import app.zolvan.core.assign.Ladders;
import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.assign.Pins;
import app.zolvan.core.assign.Scheme;
import app.zolvan.core.assign.Side;
import app.zolvan.core.assign.Slot;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Material;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.scheme.SchemeMapper.SchemeRow;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.UUID;
import org.springframework.stereotype.Component;

/** Parts that designers have locked keep what they show, in every scheme, whatever is given around them. */
@Component
class LockedParts {
    private final SchemeService schemes;
    private final SceneSource scenes;

    LockedParts(SchemeService schemes, SceneSource scenes) {
        this.schemes = schemes;
        this.scenes = scenes;
    }

    /** What one side of a region shows, whichever level it comes from. */
    record Worn(Material material, Mapping mapping) {}

    private static List<Scene.Part> locked(Scene scene) {
        return scene.parts().stream().filter(Scene.Part::locked).toList();
    }

    /** What locked parts show on both their sides: by scheme and part. */
    Map<UUID, Map<Integer, List<Worn>>> shown(Project project) {
        Map<UUID, Map<Integer, List<Worn>>> out = new HashMap<>();
        List<Scene.Part> parts = locked(scenes.scene(project.id()));
        if (parts.isEmpty()) {
            return out;
        }
        for (SchemeRow scheme : schemes.schemes(project.id())) {
            LookTable looks = schemes.looks(project, scheme.id(), Side.FRONT);
            Map<Integer, List<Worn>> ofScheme = new TreeMap<>();
            for (Scene.Part p : parts) {
                List<Worn> worn = new ArrayList<>();
                for (int span = 0; span < p.sets().size(); span++) {
                    for (Side side : List.of(Side.FRONT, Side.BACK)) {
                        Look look = looks.shownAt(looks.region(p.index(), span), side)
                                .look();
                        worn.add(new Worn(look.material(), look.mapping()));
                    }
                }
                ofScheme.put(p.index(), worn);
            }
            out.put(scheme.id(), ofScheme);
        }
        return out;
    }

    /** @throws Problem where a part that was locked and still is shows something else than it did */
    void requireSame(Project project, Map<UUID, Map<Integer, List<Worn>>> before) {
        if (before.isEmpty()) {
            return;
        }
        Scene scene = scenes.scene(project.id());
        Map<UUID, Map<Integer, List<Worn>>> now = shown(project);
        before.forEach((scheme, parts) -> parts.forEach((part, worn) -> {
            Map<Integer, List<Worn>> there = now.getOrDefault(scheme, Map.of());
            if (there.containsKey(part) && !there.get(part).equals(worn)) {
                throw locked(scene.parts().get(part).name());
            }
        }));
    }

    private static Problem locked(String part) {
        return Problem.conflict(
                "part-locked",
                "“" + part + "” is locked and would look otherwise. Unlock it first, or leave it out.",
                null);
    }

    /** The same changes with what locked parts get of their own so that they stay as they are, in heirs of a scheme, too. */
    List<Change> pinned(Project project, List<Change> changes) {
        Scene scene = scenes.scene(project.id());
        List<Pins.Kept> kept = new ArrayList<>();
        Ladders ladders = schemes.ladders(scene);
        int region = 0;
        for (Scene.Part p : scene.parts()) {
            for (int span = 0; span < p.sets().size(); span++) {
                if (p.locked()) {
                    UUID source = scene.sets().get(p.sets().get(span)).source();
                    kept.add(new Pins.Kept(
                            region,
                            LookTable.target(p.narrowest(span), p.narrowestIndex(span)),
                            source == null ? null : source.toString()));
                }
                region++;
            }
        }
        if (kept.isEmpty()) {
            return changes;
        }
        for (Change c : changes) {
            if (c instanceof Change.OfEntry e) {
                lockedOwner(scene, e.slot()).ifPresent(p -> {
                    throw locked(p.name());
                });
            }
        }
        List<Change> all = new ArrayList<>(changes);
        Map<UUID, Map<Slot, Entry>> inForce = new HashMap<>();
        List<SchemeEntries> baseFirst = schemes.allEntries(project.id()).stream()
                .sorted(Comparator.comparingInt(s -> depth(s.scheme())))
                .toList();
        for (SchemeEntries scheme : baseFirst) {
            Map<Slot, Entry> changed = changed(scheme, changes, inForce);
            try {
                Pins.of(ladders, scheme.scheme(), changed, kept).forEach((slot, entry) -> {
                    all.add(scheme.put(slot, entry));
                    changed.put(slot, entry);
                });
            } catch (Pins.CannotStayException e) {
                throw locked(lockedOwner(scene, new Slot(e.target(), Side.BOTH))
                        .map(Scene.Part::name)
                        .orElseThrow());
            }
            inForce.put(scheme.row().id(), changed);
        }
        return all;
    }

    /** The locked part whose own a slot is: the part's itself, or that of one of its faces. */
    private static Optional<Scene.Part> lockedOwner(Scene scene, Slot slot) {
        Level level = slot.target().level();
        int target = LookTable.index(slot.target());
        return switch (level) {
            case PART -> Optional.of(scene.parts().get(target)).filter(Scene.Part::locked);
            case FACE ->
                scene.parts().stream()
                        .filter(p -> p.locked() && p.ownFaces().contains(target))
                        .findFirst();
            default -> Optional.empty();
        };
    }

    /** Whether a slot is a locked part's own. */
    static boolean isOwn(Scene scene, Slot slot) {
        return lockedOwner(scene, slot).isPresent();
    }

    private static int depth(Scheme s) {
        return s.base() == null ? 0 : 1 + depth(s.base());
    }

    /** What slots of a scheme will have in force: of its own changes, and of its base's where it takes over from that. */
    private static Map<Slot, Entry> changed(
            SchemeEntries scheme, List<Change> changes, Map<UUID, Map<Slot, Entry>> inForce) {
        Map<Slot, Entry> out = new LinkedHashMap<>();
        Map<Slot, Entry> ofBase = inForce.getOrDefault(scheme.row().base(), Map.of());
        ofBase.forEach((slot, entry) -> {
            if (!scheme.scheme().entries().containsKey(slot)) {
                out.put(slot, entry);
            }
        });
        for (Change c : changes) {
            if (c instanceof Change.OfEntry e && e.scheme().equals(scheme.row().id())) {
                Slot slot = e.slot();
                if (e.after() != null) {
                    out.put(slot, e.after().entry());
                } else {
                    Scheme base = scheme.scheme().base();
                    Entry inherited = ofBase.containsKey(slot) ? ofBase.get(slot) : base == null ? null : base.at(slot);
                    out.put(slot, inherited);
                }
            }
        }
        return out;
    }
}

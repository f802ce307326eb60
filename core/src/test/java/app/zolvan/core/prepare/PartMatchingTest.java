package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.Cubes;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import app.zolvan.core.prepare.PartMatching.Fate;
import app.zolvan.core.prepare.PartMatching.Match;
import app.zolvan.core.prepare.PartMatching.Version;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** needs.md P23: a newer file of the same model keeps what was done to the parts that are still there. */
class PartMatchingTest {
    private static final int PARTS = 200;
    private static final String[] WORDS = {"Board", "Rail", "Panel", "Screw", "Post", "Shelf", "Solid", "Mesh"};

    /** A part as it is drawn: where it is from, what it is called, its size and place. */
    private record Drawn(int id, int group, String name, Vec3 size, Vec3 at) {
        Drawn at(Vec3 other) {
            return new Drawn(id, group, name, size, other);
        }

        Drawn named(String other) {
            return new Drawn(id, group, other, size, at);
        }

        Drawn sized(Vec3 other) {
            return new Drawn(id, group, name, other, at);
        }
    }

    private static Version version(List<Drawn> drawn) {
        List<Model.Group> groups = IntStream.range(0, 8)
                .mapToObj(g -> new Model.Group(Model.NONE, "Group " + g, Transform.translation(3 * g, 0, 0)))
                .toList();
        List<Model.Part> parts = new ArrayList<>();
        List<Mesh> meshes = new ArrayList<>();
        for (Drawn d : drawn) {
            meshes.add(Cubes.box(d.size.x(), d.size.y(), d.size.z()));
            Transform local = Transform.translation(d.at.x(), d.at.y(), d.at.z());
            parts.add(new Model.Part(d.group, d.name, local, meshes.size() - 1, List.of(Model.NONE)));
        }
        Model model = new Model(groups, parts, meshes, List.of(), Map.of(), List.of());
        return new Version(model, drawn.stream().map(Drawn::name).toList());
    }

    private static Vec3 size(Random random) {
        return new Vec3(0.05 + random.nextDouble(), 0.05 + random.nextDouble(), 0.05 + random.nextDouble());
    }

    private static Vec3 place(Random random) {
        return new Vec3(2 * random.nextDouble(), 2 * random.nextDouble(), 8 * random.nextDouble());
    }

    /** 200 parts, a third of them repeats of one screw: 20 renamed, 10 moved, 10 changed, 5 split, 15 new, 15 lost. */
    @Test
    void nearlyAllPartsAreFoundAgainAndNoneWronglyForSure() {
        int right = 0;
        int all = 0;
        for (int seed = 0; seed < 10; seed++) {
            Random random = new Random(seed);
            List<Drawn> before = new ArrayList<>();
            for (int i = 0; i < PARTS; i++) {
                boolean screw = i % 3 == 0;
                String name = screw ? "Screw" : WORDS[random.nextInt(WORDS.length)] + " " + i;
                Vec3 size = screw ? new Vec3(0.01, 0.04, 0.01) : size(random);
                before.add(new Drawn(i, random.nextInt(8), name, size, place(random)));
            }
            List<Integer> order =
                    new ArrayList<>(IntStream.range(0, PARTS).boxed().toList());
            Collections.shuffle(order, random);
            Map<Integer, Drawn> after = new HashMap<>();
            before.forEach(d -> after.put(d.id, d));
            List<Drawn> added = new ArrayList<>();
            for (int k = 0; k < 75; k++) {
                int id = order.get(k);
                Drawn d = after.get(id);
                if (k < 20) {
                    after.put(id, d.named("Renamed " + k));
                } else if (k < 30) {
                    after.put(id, d.at(place(random)));
                } else if (k < 40) {
                    double factor = 1.05 + 0.3 * random.nextDouble();
                    after.put(id, d.sized(new Vec3(d.size.x() * factor, d.size.y(), d.size.z())));
                } else if (k < 45) {
                    Vec3 half = new Vec3(d.size.x() / 2, d.size.y(), d.size.z());
                    Vec3 aside = new Vec3(d.size.x() / 4, 0, 0);
                    after.remove(id);
                    added.add(new Drawn(-1, d.group, d.name + ".1", half, d.at.plus(aside)));
                    added.add(new Drawn(-1, d.group, d.name + ".2", half, d.at.minus(aside)));
                } else if (k < 60) {
                    after.remove(id);
                } else {
                    added.add(new Drawn(-1, random.nextInt(8), WORDS[k % 8] + " n" + k, size(random), place(random)));
                }
            }
            List<Drawn> now = new ArrayList<>(after.values());
            now.addAll(added);
            Collections.shuffle(now, random);
            for (Match m : PartMatching.of(version(before), version(now))) {
                int truth = now.get(m.newer()).id;
                boolean sure = m.fate() == Fate.SAME || m.fate() == Fate.CHANGED;
                if (sure) {
                    assertThat(m.older())
                            .as("seed %d, %s", seed, now.get(m.newer()))
                            .isEqualTo(truth);
                }
                all += truth >= 0 ? 1 : 0;
                right += truth >= 0 && sure ? 1 : 0;
            }
        }
        assertThat((double) right / all).isGreaterThan(0.95);
    }

    @Test
    void aModelIsAllOfItselfEvenWhenAGroupHasMoved() {
        Random random = new Random(3);
        List<Drawn> drawn = IntStream.range(0, 40)
                .mapToObj(i -> new Drawn(i, i % 8, "Solid " + i, new Vec3(0.1, 0.2, 0.3), place(random)))
                .toList();
        Version version = version(drawn);
        assertThat(PartMatching.of(version, version))
                .allSatisfy(m -> assertThat(m.older()).isEqualTo(m.newer()))
                .allSatisfy(m -> assertThat(m.fate()).isEqualTo(Fate.SAME));
        Model model = version.model();
        List<Model.Group> groups = model.groups().stream()
                .map(g -> new Model.Group(
                        g.parent(), g.name(), Transform.translation(0, 5, 0).after(g.local())))
                .toList();
        Model moved = new Model(groups, model.parts(), model.meshes(), List.of(), Map.of(), List.of());
        assertThat(PartMatching.of(version, new Version(moved, version.names())))
                .allSatisfy(m -> assertThat(m.older()).isEqualTo(m.newer()))
                .allSatisfy(m -> assertThat(m.fate()).isEqualTo(Fate.SAME));
    }
}

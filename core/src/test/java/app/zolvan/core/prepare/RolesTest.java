package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.Cubes;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.model.SourceMaterial;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class RolesTest {
    private final List<Model.Group> groups = new ArrayList<>();
    private final List<Model.Part> parts = new ArrayList<>();
    private final List<Mesh> meshes = new ArrayList<>();
    private final List<SourceMaterial> sources = new ArrayList<>();

    private int add(String name, int group, int source, double x, double y, double z, double sx, double sy, double sz) {
        meshes.add(Cubes.box(sx, sy, sz));
        parts.add(new Model.Part(group, name, Transform.translation(x, y, z), meshes.size() - 1, List.of(source)));
        return parts.size() - 1;
    }

    private int source(String name, Surface surface) {
        sources.add(new SourceMaterial(name, new Material("", name, null, surface)));
        return sources.size() - 1;
    }

    private Optional<Roles.Proposal> of(int part) {
        Model model = new Model(groups, parts, meshes, sources, Map.of(), List.of());
        return Roles.propose(Preparation.of(model, s -> {})).stream()
                .filter(p -> p.part() == part)
                .findFirst();
    }

    /** A room of boxes without a word: what lies, stands and hangs where is told by its shape alone. */
    @Test
    void aNamelessRoomIsKnownByItsShapes() {
        int grey = source("mat_1", Surface.STANDARD);
        int clear = source("mat_2", Surface.STANDARD.with(Parameter.TRANSMISSION_WEIGHT, 1));
        int glowing = source("mat_3", Surface.STANDARD.with(Parameter.EMISSION_LUMINANCE, 2000));
        int floor = add("Mesh.001", Model.NONE, grey, 0, 0, 0, 5, 0.1, 4);
        int wall = add("Mesh.002", Model.NONE, grey, 0, 1.3, -2, 5, 2.5, 0.1);
        int ceiling = add("Mesh.003", Model.NONE, grey, 0, 2.6, 0, 5, 0.1, 4);
        int pane = add("Mesh.004", Model.NONE, clear, 2.5, 1.3, 0, 0.02, 1, 1);
        int bulb = add("Mesh.005", Model.NONE, glowing, 0, 2, 0, 0.1, 0.1, 0.1);
        int box = add("Mesh.006", Model.NONE, grey, 1, 0.4, 1, 0.5, 0.6, 0.7);
        assertThat(of(floor)).get().extracting(Roles.Proposal::role).isEqualTo(Role.FLOOR);
        assertThat(of(wall)).get().extracting(Roles.Proposal::role).isEqualTo(Role.WALL);
        assertThat(of(ceiling)).get().extracting(Roles.Proposal::role).isEqualTo(Role.CEILING);
        assertThat(of(pane)).get().extracting(Roles.Proposal::role).isEqualTo(Role.GLASS);
        assertThat(of(pane)).get().extracting(Roles.Proposal::reason).isEqualTo("light passes through its material");
        assertThat(of(bulb)).get().extracting(Roles.Proposal::role).isEqualTo(Role.LAMP);
        assertThat(of(box)).as("nothing tells what a box is").isEmpty();
    }

    @Test
    void wordsInNamesTellAndTheLastOneMost() {
        int none = Model.NONE;
        groups.add(new Model.Group(Model.NONE, "Roof lights", Transform.IDENTITY));
        int handle = add("DoorHandle_02", none, none, 0, 0, 0, 0.1, 0.1, 0.1);
        int screws = add("M4 screws", none, none, 0, 0, 0, 0.1, 0.1, 0.1);
        int lamp = add("Cube", 0, none, 0, 0, 0, 0.1, 0.1, 0.1);
        int screwdriver = add("Screwdriver", none, none, 0, 0, 0, 0.1, 0.1, 0.1);
        assertThat(of(handle)).get().extracting(Roles.Proposal::role).isEqualTo(Role.HANDLE);
        assertThat(of(handle).orElseThrow().reason()).isEqualTo("its name has “handle”");
        assertThat(of(screws)).get().extracting(Roles.Proposal::role).isEqualTo(Role.FASTENER);
        assertThat(of(lamp)).get().extracting(Roles.Proposal::role).isEqualTo(Role.LAMP);
        assertThat(of(lamp).orElseThrow().confidence()).isBetween(Roles.ENOUGH, 0.6);
        assertThat(of(screwdriver)).as("a word within a word says nothing").isEmpty();
    }

    @Test
    void proposalsAreToldByRoleWithTheLeastSureOnesCertaintyAndReasonsOfMostPartsFirst() {
        List<Roles.RoleGroup> groups = Roles.grouped(List.of(
                new Roles.Proposal(4, Role.GLASS, 0.9, "a"),
                new Roles.Proposal(1, Role.LEG, 0.95, "c"),
                new Roles.Proposal(5, Role.GLASS, 0.6, "b"),
                new Roles.Proposal(7, Role.GLASS, 0.99, "b")));
        assertThat(groups)
                .containsExactly(
                        new Roles.RoleGroup(
                                Role.GLASS,
                                List.of(4, 5, 7),
                                Roles.Certainty.LIKELY,
                                List.of(new Roles.Reason("b", 2), new Roles.Reason("a", 1))),
                        new Roles.RoleGroup(
                                Role.LEG, List.of(1), Roles.Certainty.SURE, List.of(new Roles.Reason("c", 1))));
    }

    /** Evidence adds up: a pane by name and by material is surer than by either. */
    @Test
    void agreeingEvidenceIsSurer() {
        int clear = source("mat_2", Surface.STANDARD.with(Parameter.TRANSMISSION_WEIGHT, 1));
        int byMaterial = add("Cube", Model.NONE, clear, 0, 0, 0, 0.1, 0.1, 0.1);
        int byBoth = add("Window pane", Model.NONE, clear, 1, 0, 0, 0.1, 0.1, 0.1);
        assertThat(of(byBoth).orElseThrow().confidence())
                .isGreaterThan(of(byMaterial).orElseThrow().confidence() + 0.1);
    }

    @Test
    void theRoleOfMostPartsIsTheOneThatMoreThanHalfHave() {
        assertThat(Roles.ofMost(Arrays.asList(Role.WALL, Role.WALL, null))).isEqualTo(Role.WALL);
        assertThat(Roles.ofMost(Arrays.asList(Role.WALL, Role.WALL, Role.FLOOR, null)))
                .as("just half")
                .isNull();
        assertThat(Roles.ofMost(List.of())).isNull();
    }
}

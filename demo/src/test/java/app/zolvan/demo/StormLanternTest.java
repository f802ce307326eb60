package app.zolvan.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.gltf.GltfReader;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshMeasure;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class StormLanternTest {
    private final Model lantern = DemoFiles.stormLantern();

    @Test
    void everySolidLooksOutwards() {
        assertThat(lantern.parts())
                .filteredOn(part -> signedVolume(lantern.meshOf(part)) <= 0)
                .extracting(Model.Part::name)
                .isEmpty();
    }

    @Test
    void glassAndOilAreClosedBodiesAndTheOilReachesIntoTheWall() {
        assertThat(measure("Reservoir").closed()).isTrue();
        assertThat(measure("Chimney").closed()).isTrue();
        assertThat(measure("Lamp oil").closed()).isTrue();
        assertThat(measure("Chimney").meanThickness()).isBetween(0.0019, 0.0023); // modelled as 2.2 mm
        double oil = lantern.boundsOf(part("Lamp oil")).size().x() / 2;
        double glass = lantern.boundsOf(part("Reservoir")).size().x() / 2;
        assertThat(glass - oil).isBetween(0.002, 0.003); // 3 mm wall, 0.4 mm overlap
    }

    @Test
    void oneScrewIsRepeatedInOneMatchingSet() {
        Set<Integer> meshes = new HashSet<>();
        long screws = lantern.parts().stream()
                .filter(p -> p.name().startsWith("Screw"))
                .peek(p -> meshes.add(p.mesh()))
                .count();
        assertThat(screws).isEqualTo(22);
        assertThat(meshes).hasSize(1);
        assertThat(lantern.matchingSets())
                .filteredOn(s -> s.name().equals("Solid 12"))
                .singleElement()
                .satisfies(s -> assertThat(s.regions()).hasSize(22));
    }

    @Test
    void theLanternStaysWithinTheStagesBudgetAndIsTheSizeOfALantern() {
        int triangles = lantern.parts().stream()
                .mapToInt(p -> lantern.meshOf(p).triangleCount())
                .sum();
        assertThat(triangles).isBetween(20_000, 60_000);
        assertThat(lantern.bounds().size().y()).isBetween(0.3, 0.4);
        assertThat(lantern.bounds().min().y()).isEqualTo(0);
    }

    @Test
    void writtenAndReadBackItIsTheSameModel(@TempDir Path folder) throws Exception {
        DemoFiles.write(folder);
        byte[] bytes = Files.readAllBytes(folder.resolve("storm-lantern.glb"));
        Model read = new GltfReader()
                .read(FileSet.of("model.glb", ByteBuffer.wrap(bytes)), Reading.standard())
                .model();
        assertThat(read.parts())
                .extracting(Model.Part::name)
                .containsExactlyElementsOf(
                        lantern.parts().stream().map(Model.Part::name).toList());
        assertThat(read.groups()).isEqualTo(lantern.groups());
        assertThat(read.sources()).containsExactlyInAnyOrderElementsOf(lantern.sources());
        for (int i = 0; i < read.parts().size(); i++) {
            Mesh before = lantern.meshOf(lantern.parts().get(i));
            assertThat(read.meshOf(read.parts().get(i)).indices()).isEqualTo(before.indices());
            assertThat(read.meshOf(read.parts().get(i)).positions()).isEqualTo(before.positions());
        }
        assertThat(Preparation.of(read, share -> {}).measures())
                .hasSize(read.parts().size());
    }

    @Test
    void theBoundarySurfacesMeetInOneRingAndEncloseGlassAndOil() {
        Model open = DemoFiles.stormLanternOfBoundaries();
        Mesh dry = meshNamed(open, "Reservoir, air to glass");
        Mesh wet = meshNamed(open, "Reservoir, oil to glass");
        Mesh top = meshNamed(open, "Lamp oil, oil to air");
        assertThat(Topology.of(dry).isClosed()).isFalse();
        Set<Vec3> ring = placesAt(dry, 81);
        assertThat(ring).hasSize(52).isEqualTo(placesAt(wet, 81));
        assertThat(placesAt(top, 81)).containsAll(ring);
        // the wetted wall looks out of the oil and the surface up: together they hold the oil
        double oil = signedVolume(wet) + signedVolume(top);
        assertThat(oil * 1e-3).isBetween(250.0, 350.0); // cm³
        // both end in the same ring, so their difference is the glass: as much as the closed body has
        double glass = signedVolume(dry) - signedVolume(wet);
        assertThat(glass).isCloseTo(signedVolume(lantern.meshOf(part("Reservoir"))), within(0.001 * glass));
    }

    private static Mesh meshNamed(Model model, String name) {
        return model.parts().stream()
                .filter(p -> p.name().equals(name))
                .map(model::meshOf)
                .findFirst()
                .orElseThrow();
    }

    private static Set<Vec3> placesAt(Mesh mesh, double height) {
        Set<Vec3> places = new HashSet<>();
        for (int v = 0; v < mesh.vertexCount(); v++) {
            if (mesh.position(v).y() == height) {
                places.add(mesh.position(v));
            }
        }
        return places;
    }

    /** Every edge of a sewn solid bounds two faces and is run through once each way. */
    @Test
    void theBracketIsAnAssemblyOfTwoClosedSolidsOfWhichOneIsUsedFourTimes() {
        String step = Bracket.step();
        Map<String, Integer> senses = new HashMap<>();
        Matcher uses = Pattern.compile("ORIENTED_EDGE\\('',\\*,\\*,(#\\d+),\\.([TF])\\.\\)")
                .matcher(step);
        int count = 0;
        while (uses.find()) {
            senses.merge(uses.group(1), uses.group(2).equals("T") ? 1 : -1, Integer::sum);
            count++;
        }
        assertThat(senses.values()).containsOnly(0);
        assertThat(count).isEqualTo(2 * senses.size());
        assertThat(step.split("MANIFOLD_SOLID_BREP", -1)).hasSize(1 + 2);
        assertThat(step.split("NEXT_ASSEMBLY_USAGE_OCCURRENCE", -1)).hasSize(1 + 5);
        Set<String> known = new HashSet<>();
        Pattern.compile("(?m)^(#\\d+)=").matcher(step).results().forEach(r -> known.add(r.group(1)));
        assertThat(Pattern.compile("#\\d+").matcher(step).results().map(MatchResult::group))
                .allMatch(known::contains);
    }

    private Model.Part part(String name) {
        return lantern.parts().stream()
                .filter(p -> p.name().equals(name))
                .findFirst()
                .orElseThrow();
    }

    private MeshMeasure measure(String name) {
        Mesh mesh = lantern.meshOf(part(name));
        return MeshMeasure.of(mesh, Topology.of(mesh), Transform.scale(0.001, 0.001, 0.001));
    }

    private static double signedVolume(Mesh mesh) {
        double six = 0;
        for (int i = 0; i < mesh.indices().length; i += 3) {
            Vec3 a = mesh.position(mesh.indices()[i]);
            Vec3 b = mesh.position(mesh.indices()[i + 1]);
            Vec3 c = mesh.position(mesh.indices()[i + 2]);
            six += a.dot(b.cross(c));
        }
        return six / 6;
    }
}

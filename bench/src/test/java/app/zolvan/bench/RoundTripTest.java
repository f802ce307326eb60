package app.zolvan.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.command.CommandLine;
import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.ModelReader;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.exchange.formats.ModelFormats;
import app.zolvan.core.geometry.MeshMeasure;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import app.zolvan.demo.DemoFiles;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** The lantern through every format: written, read back, compared. Lengths within 1 µm, areas and volumes within 10 ppm. */
class RoundTripTest {
    private static final Set<String> ONE_PART = Set.of("STL", "PLY");
    private static final Set<String> FLAT = Set.of("STL", "PLY", "OBJ");

    static Stream<ModelWriter> writers() {
        return ModelFormats.writers().stream();
    }

    private static byte[] write(ModelWriter writer, DressedModel dressed) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        if (writer.kind().isBundle()) {
            ModelFormats.zip(writer, dressed, "lantern", out);
        } else {
            writer.write(dressed, "lantern", (path, content) -> content.writeTo(out));
        }
        return out.toByteArray();
    }

    private static Arrival read(byte[] bytes, String format) throws Exception {
        boolean silent = FLAT.contains(format);
        Reading reading = new Reading(
                ImportLimits.STANDARD,
                ModelReader.Progress.NONE,
                silent ? (format.equals("STL") ? LengthUnit.MM : LengthUnit.M) : null,
                silent ? (format.equals("STL") ? UpAxis.Z : UpAxis.Y) : null);
        return ModelFormats.read("lantern", ByteBuffer.wrap(bytes), FileSet.Companions.NONE, reading);
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("writers")
    void theLanternComesBackAsItWas(ModelWriter writer) throws Exception {
        Model before = DemoFiles.stormLantern();
        DressedModel dressed = CommandLine.asArrived("Lantern", before);
        byte[] file = write(writer, dressed);
        assertThat(write(writer, dressed)).as("the same bytes each time").isEqualTo(file);
        Model after = read(file, writer.kind().name()).model();
        if (!ONE_PART.contains(writer.kind().name())) {
            assertThat(after.parts()).hasSameSizeAs(before.parts());
            assertThat(names(after)).containsAll(names(before));
            colours(before, after);
        }
        if (!FLAT.contains(writer.kind().name())) {
            assertThat(after.groups()).hasSameSizeAs(before.groups());
        }
        Vec3 moved = after.bounds().min().minus(before.bounds().min());
        assertThat(moved.length()).isLessThan(1e-6);
        assertThat(after.bounds().size().minus(before.bounds().size()).length()).isLessThan(1e-6);
        double[] was = totals(before);
        double[] is = totals(after);
        assertThat(is[0]).as("triangles").isEqualTo(was[0]);
        assertThat(is[1]).as("area").isCloseTo(was[1], within(1e-5 * was[1]));
        assertThat(is[2]).as("volume").isCloseTo(was[2], within(1e-5 * was[2]));
    }

    private static List<String> names(Model m) {
        return m.parts().stream()
                .map(p -> p.name().replaceAll(" \\(\\d+\\)$", ""))
                .toList();
    }

    private static void colours(Model before, Model after) {
        before.sources().forEach(s -> {
            var same = after.sources().stream()
                    .filter(o -> o.name().equals(s.name()))
                    .findFirst()
                    .orElseThrow(() -> new AssertionError("lost " + s.name()));
            double[] was = s.material().surface().value(Parameter.BASE_COLOR);
            double[] is = same.material().surface().value(Parameter.BASE_COLOR);
            for (int k = 0; k < 3; k++) {
                assertThat(is[k]).as(s.name()).isCloseTo(was[k], within(0.005)); // half a step of 8 bits at white
            }
        });
    }

    private static double[] totals(Model m) {
        double triangles = 0;
        double area = 0;
        double volume = 0;
        for (Model.Part p : m.parts()) {
            MeshMeasure measure = MeshMeasure.of(m.meshOf(p), Topology.of(m.meshOf(p)), m.partToWorld(p));
            triangles += m.meshOf(p).triangleCount();
            area += measure.area();
            volume += measure.volume();
        }
        return new double[] {triangles, area, volume};
    }

    @Test
    void whatAFormatCannotCarryIsSaid() {
        DressedModel sample = SampleFiles.dressed();
        assertThat(ModelFormats.writer("3mf").orElseThrow().losses(sample))
                .anyMatch(l -> l.contains("“steel” loses base metalness"))
                .noneMatch(l -> l.contains("geometry opacity"));
        assertThat(ModelFormats.writer("stl").orElseThrow().losses(sample)).anyMatch(l -> l.contains("colours"));
        assertThat(ModelFormats.writer("glb").orElseThrow().losses(sample)).isEmpty();
    }
}

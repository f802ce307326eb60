package app.zolvan.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.ageing.Leaves;
import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.exchange.formats.ModelFormats;
import app.zolvan.core.exchange.gltf.GltfWriter;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.mapping.Atlas;
import app.zolvan.core.material.Foliage;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import java.io.ByteArrayOutputStream;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class LeafPartsTest {
    private static final Surface IVIED = Surface.STANDARD
            .with(Parameter.BASE_COLOR, 0.4, 0.3, 0.2)
            .with(Parameter.LEAF_COVER, 0.4)
            .with(Parameter.LEAF_SIZE, 0.1);

    /** A wall in a group that stretches, mirrored by its own transform. */
    private static DressedModel wall(double size) {
        Model.Group yard = new Model.Group(Model.NONE, "Yard", Transform.scale(1, 1.5, 1));
        Model.Part part = new Model.Part(0, "Wall", Transform.scale(-1, 1, 1), 0, List.of(Model.NONE));
        Model raw =
                new Model(List.of(yard), List.of(part), List.of(Cubes.box(2, 1, 0.2)), List.of(), Map.of(), List.of());
        Model model = Preparation.of(raw, share -> {}).model();
        Mesh mesh = model.meshOf(model.parts().get(0));
        Atlas atlas = Atlas.of(mesh, model.partToWorld(model.parts().get(0)), 2000);
        byte[] resistances = new byte[4 * atlas.width() * atlas.height()];
        Arrays.fill(resistances, (byte) 60);
        AgeFields fields = new AgeFields(atlas, resistances);
        Surface surface = IVIED.with(Parameter.LEAF_SIZE, size);
        Look look = Look.of(new Material("W-1", "Render", MaterialKind.PAINT, surface), null, 0.2, Level.SET);
        return new DressedModel("Yard", model, (p, s) -> look, d -> new byte[0], (p, corrodes) -> fields);
    }

    @Test
    void aFileHoldsTheLeavesAsAPartThatStandsWhereTheStageHasThem() throws Exception {
        DressedModel before = wall(0.1);
        DressedModel grown = before.grown();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        GltfWriter.write(grown, out);
        Model read = Files.read(out.toByteArray()).model();
        assertThat(read.parts()).extracting(Model.Part::name).containsExactly("Wall", "Wall leaves");

        Model.Part wall = before.model().parts().get(0);
        Leaves leaves = Leaves.on(
                before.model().meshOf(wall),
                before.model().partToWorld(wall),
                0,
                before.ages().apply(0, false),
                0.1);
        int count = leaves.count(0.4);
        Model.Part part = read.parts().get(1);
        Mesh mesh = read.meshOf(part);
        assertThat(count).isGreaterThan(100);
        assertThat(mesh.triangleCount()).isEqualTo(count * Leaves.BLADE.triangleCount());

        Transform toWorld = read.partToWorld(part);
        for (int i = 0; i < count; i++) {
            Vec3 tip = leaves.all().get(i).toWorld().point(corner(Leaves.BLADE, 0));
            int v = i * Leaves.BLADE.triangleCount() * 3;
            Vec3 there = toWorld.point(corner(mesh, v));
            assertThat(there.minus(tip).length()).isLessThan(1e-5);
            // seen from its front, as its normals say
            Vec3 a = there;
            Vec3 b = toWorld.point(corner(mesh, v + 1)).minus(a);
            Vec3 c = toWorld.point(corner(mesh, v + 2)).minus(a);
            Vec3 front = b.cross(c).times(-1).normalised(); // the part is mirrored
            assertThat(front.dot(toWorld.normal(normal(mesh, v)))).isGreaterThan(0.5);
            assertThat(front.dot(leaves.all().get(i).face())).isGreaterThan(0.5);
        }

        // they look as leaves do, and nobody has them grow twice
        Foliage foliage = before.look().apply(0, 0).physical().beyond().foliage();
        int span = part.sourceOfSpan().get(0);
        Surface surface = read.sources().get(span).material().surface();
        assertThat(surface.number(Parameter.SUBSURFACE_WEIGHT)).isCloseTo(0.4, within(1e-6));
        assertThat(surface.colour(Parameter.BASE_COLOR).g())
                .isCloseTo(foliage.colour().g(), within(1e-6));
        assertThat(grown.grown().model().parts()).hasSize(2);
        assertThat(read.sources().get(0).material().surface().number(Parameter.LEAF_COVER))
                .isZero();
    }

    private static Vec3 corner(Mesh m, int c) {
        int v = 3 * m.indices()[c];
        return new Vec3(m.positions()[v], m.positions()[v + 1], m.positions()[v + 2]);
    }

    private static Vec3 normal(Mesh m, int c) {
        int v = 3 * m.indices()[c];
        return new Vec3(m.normals()[v], m.normals()[v + 1], m.normals()[v + 2]);
    }

    @Test
    void noFormatLosesThem() throws Exception {
        DressedModel grown = wall(0.1).grown();
        for (ModelWriter writer : ModelFormats.writers()) {
            assertThat(writer.losses(wall(0.1)))
                    .as(writer.kind().name())
                    .noneMatch(sentence -> sentence.contains("leaf"));
            ByteArrayOutputStream with = new ByteArrayOutputStream();
            ByteArrayOutputStream without = new ByteArrayOutputStream();
            ModelFormats.zip(writer, grown, "yard", with);
            ModelFormats.zip(writer, wall(0.1), "yard", without);
            assertThat(with.size()).as(writer.kind().name()).isGreaterThan(without.size() + 4000);
        }
    }

    @Test
    void moreThanAFileHoldsAreRefused() {
        DressedModel one = wall(0.01);
        Model m = one.model();
        Model many = new Model(
                m.groups(), Collections.nCopies(4, m.parts().get(0)), m.meshes(), m.sources(), m.images(), m.notes());
        DressedModel street = new DressedModel(
                "Street", many, one.look(), one.image(), (p, c) -> one.ages().apply(0, c));
        assertThatThrownBy(street::grown).isInstanceOf(TooManyLeaves.class).hasMessageContaining("200 thousand leaves");
    }
}

package app.zolvan.core.exchange.gltf;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.mapping.Atlas;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.render.surface.SurfaceValues;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.util.List;
import java.util.Map;
import java.util.Random;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

/** What years have made of a part is in the file as the tracer shows it. */
class AgedExportTest {
    private static final Surface ENAMEL = Surface.STANDARD
            .with(Parameter.BASE_COLOR, 0.05, 0.2, 0.3)
            .with(Parameter.SPECULAR_ROUGHNESS, 0.2)
            .with(Parameter.COAT_WEIGHT, 1)
            .with(Parameter.AGE_WEATHERING, 0.5)
            .with(Parameter.AGE_GROWTH, 0.6)
            .with(Parameter.AGE_WEAR, 0.4)
            .with(Parameter.AGE_DUST, 0.3);

    private static Model read(DressedModel dressed) throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        GltfWriter.write(dressed, out);
        return GltfFile.read(out.toByteArray());
    }

    @Test
    void theFileShowsEachPlaceAsTheTracerDoes() throws Exception {
        Model.Part part = new Model.Part(Model.NONE, "Cube", Transform.IDENTITY, 0, List.of(0));
        Model raw = new Model(List.of(), List.of(part), List.of(Cubes.box(1, 1, 1)), List.of(), Map.of(), List.of());
        Model model = Preparation.of(raw, share -> {}).model();
        Mesh cube = model.meshOf(model.parts().get(0));
        Atlas atlas = Atlas.of(cube, Transform.IDENTITY, 2000);
        byte[] resistances = new byte[4 * atlas.width() * atlas.height()];
        new Random(7).nextBytes(resistances);
        AgeFields fields = new AgeFields(atlas, resistances);
        Material enamel = new Material("PT-1", "Enamel", MaterialKind.PAINT, ENAMEL);
        Model read = read(new DressedModel(
                "Test", model, (p, s) -> Look.of(enamel, null, 0.2, Level.SET), d -> null, (p, corrodes) -> fields));

        Surface s = read.sources().get(0).material().surface();
        BufferedImage colours = image(read, s, Parameter.BASE_COLOR);
        BufferedImage rough = image(read, s, Parameter.SPECULAR_ROUGHNESS);
        int[] owners = atlas.owners();
        double[] four = new double[4];
        int seen = 0;
        for (int i = 0; i < owners.length; i += 7) {
            if (owners[i] < 0) {
                continue;
            }
            int x = i % atlas.width();
            int y = (i - x) / atlas.width();
            fields.at((x + 0.5) / atlas.width(), (y + 0.5) / atlas.height(), four);
            SurfaceValues v = SurfaceValues.of(ENAMEL);
            v.age(Ageing.of(ENAMEL), four);
            assertThat(colours.getRGB(x, y) & 0xFFFFFF)
                    .isEqualTo(Srgb.toPacked(new LinearRgb(v.baseR, v.baseG, v.baseB)));
            int other = rough.getRGB(x, y);
            assertThat((other >> 8 & 0xFF) / 255.0).isCloseTo(v.roughness, within(0.003));
            assertThat((other >> 16 & 0xFF) / 255.0).isCloseTo(v.coat, within(0.003));
            seen++;
        }
        assertThat(seen).isGreaterThan(200);
        // each corner lies where its place is in the pictures
        Mesh back = read.meshOf(read.parts().get(0));
        assertThat(back.triangleCount()).isEqualTo(cube.triangleCount());
        for (int c = 0; c < cube.indices().length; c++) {
            int from = cube.indices()[c];
            int to = back.indices()[c];
            for (int k = 0; k < 3; k++) {
                assertThat(back.positions()[3 * to + k]).isEqualTo(cube.positions()[3 * from + k]);
            }
            assertThat(back.uv()[2 * to]).isEqualTo(atlas.uv()[2 * c]);
            assertThat(back.uv()[2 * to + 1]).isEqualTo(atlas.uv()[2 * c + 1]);
        }
    }

    private static BufferedImage image(Model m, Surface s, Parameter p) throws Exception {
        String digest = s.textures().get(p).image();
        return ImageIO.read(new ByteArrayInputStream(m.images().get(digest).bytes()));
    }
}

package app.zolvan.core.exchange.library;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.PictureColours;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.material.Facts;
import app.zolvan.core.material.FinishWord;
import app.zolvan.core.material.MainColour;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Metal;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.model.Digest;
import app.zolvan.core.render.surface.GlossMeter;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.ImageHeader;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class ShippedLibraryTest {
    private final ShippedLibrary library = ShippedLibrary.load();

    @Test
    void thereAreMaterialsOfEveryKindEachUnderACodeOfItsOwn() {
        assertThat(library.materials()).hasSizeGreaterThanOrEqualTo(150);
        assertThat(library.materials()).extracting(Material::code).doesNotHaveDuplicates();
        assertThat(library.materials()).extracting(Material::name).doesNotHaveDuplicates();
        Map<MaterialKind, Long> counts =
                library.materials().stream().collect(Collectors.groupingBy(Material::kind, Collectors.counting()));
        assertThat(counts).containsOnlyKeys(MaterialKind.values());
        assertThat(counts.values()).allMatch(n -> n >= 5);
        assertThat(ShippedLibrary.edition()).hasSize(64).isEqualTo(ShippedLibrary.edition());
    }

    @Test
    void texturesAreThereAndHaveARealSizeThatTheirPixelsFit() {
        for (Material m : library.materials()) {
            for (TextureUse t : m.surface().textures().values()) {
                ImageHeader header = ImageHeader.read(
                                ByteBuffer.wrap(library.images().get(t.image())))
                        .orElseThrow();
                RealSize real = (RealSize) t.placement();
                double across = header.width() / real.width();
                double down = header.height() / real.height();
                assertThat(across / down).as(m.name()).isBetween(0.98, 1.02); // square pixels
                assertThat(across).as(m.name() + " px/m").isGreaterThan(180);
            }
        }
    }

    @Test
    void whatIsKnownIsPlausible() {
        assertThat(library.facts()).hasSameSizeAs(library.materials());
        for (Facts f : library.facts().values()) {
            assertThat(f.density()).isBetween(1.0, 20_000.0);
            assertThat(f.waste()).isBetween(0.0, 30.0);
            assertThat(f.price()).isNotNegative();
            assertThat(f.tags()).isNotEmpty().doesNotHaveDuplicates();
        }
        for (Material m : library.materials()) {
            Surface s = m.surface();
            boolean bare = Arrays.stream(Metal.values()).anyMatch(metal -> metal.isOf(s));
            assertThat(bare && s.number(Parameter.BASE_METALNESS) < 1)
                    .as(m.name())
                    .isFalse();
        }
    }

    /** No two are so alike that one of them is of no use: ΔE2000 below 2 in everything, one gloss band, one pattern. */
    @Test
    void noTwoLookAlike() throws Exception {
        Map<String, List<Material>> alike = new HashMap<>();
        Map<String, String> patterns = patterns();
        for (Material m : library.materials()) {
            FinishWord band = FinishWord.ofGloss(GlossMeter.measure(m.surface()));
            alike.computeIfAbsent(band + patterns.get(m.code()), k -> new ArrayList<>())
                    .add(m);
        }
        List<String> twins = new ArrayList<>();
        Map<String, LinearRgb> means = new HashMap<>();
        for (List<Material> group : alike.values()) {
            for (Material m : group) {
                means.put(m.code(), mean(m.surface()));
            }
            for (int i = 0; i < group.size(); i++) {
                for (int j = 0; j < i; j++) {
                    Material a = group.get(i);
                    Material b = group.get(j);
                    double apart = CieLab.of(means.get(a.code())).difference(CieLab.of(means.get(b.code())));
                    if (apart < 2 && !differ(a.surface(), b.surface())) {
                        twins.add("%s and %s: ΔE %.1f".formatted(a.name(), b.name(), apart));
                    }
                }
            }
        }
        assertThat(twins).isEmpty();
    }

    /** By what lets light through, takes it in or gives it. */
    private static boolean differ(Surface a, Surface b) {
        for (Parameter p : List.of(
                Parameter.BASE_METALNESS,
                Parameter.TRANSMISSION_WEIGHT,
                Parameter.SPECULAR_IOR,
                Parameter.SUBSURFACE_WEIGHT,
                Parameter.FLAKE_WEIGHT,
                Parameter.COAT_WEIGHT,
                Parameter.THIN_FILM_WEIGHT,
                Parameter.EMISSION_LUMINANCE,
                Parameter.GEOMETRY_THIN_WALLED,
                Parameter.FUZZ_WEIGHT)) {
            if (Math.abs(a.value(p)[0] - b.value(p)[0]) > 0.04) {
                return true;
            }
        }
        return false;
    }

    private LinearRgb mean(Surface s) throws Exception {
        Parameter main = MainColour.of(s);
        TextureUse picture = s.textures().get(main);
        LinearRgb colour = s.colour(main);
        if (picture == null) {
            return colour;
        }
        return colour.times(new PictureColours(ImageFile.decode(library.images().get(picture.image()), 64 * 64))
                .whole()
                .mean());
    }

    /** The name of each material's pattern by its code. */
    private static Map<String, String> patterns() throws Exception {
        Map<String, String> names = new HashMap<>();
        for (MaterialKind kind : MaterialKind.values()) {
            for (JsonValue m : JsonValue.parseTrusted(ShippedLibrary.class.getResourceAsStream(kind.word() + ".json"))
                    .elements()) {
                String name =
                        m.has("pattern") ? m.get("pattern").require("name").text() : "plain";
                names.put(m.require("code").text(), name);
            }
        }
        return names;
    }

    @Test
    void whatWasDrawnIsKeptAndDrawnAnewWhereTheFileIsDamaged(@TempDir Path folder) throws IOException {
        Files.write(folder.resolve("library-" + ShippedLibrary.edition() + ".bin"), new byte[] {1, 2, 3});
        for (int i = 0; i < 2; i++) {
            ShippedLibrary read = DrawnLibrary.load(folder);
            assertThat(read.materials()).isEqualTo(library.materials());
            assertThat(read.facts()).isEqualTo(library.facts());
            assertThat(read.images().keySet()).isEqualTo(library.images().keySet());
            read.images().forEach((digest, png) -> assertThat(Digest.of(png)).isEqualTo(digest));
        }
        assertThat(Files.size(folder.resolve("library-" + ShippedLibrary.edition() + ".bin")))
                .as("written anew")
                .isGreaterThan(1_000_000);
    }
}

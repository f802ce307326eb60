package app.zolvan.core.keep;

import app.zolvan.core.adjust.Adjustment;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.material.Facts;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.material.TextureUse.Wrap;
import app.zolvan.core.measure.Photograph;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;

/**
 * What a supplier tells of one of its samples; null for what it doesn't.
 *
 * @param number what it is ordered by
 * @param kind   null where it is none of ours
 * @param words  it is found by
 * @param width  of what the photograph shows, in metres
 * @param height likewise
 * @param stock  in m²
 * @param lead   days until it comes
 */
public record Article(
        String number,
        String name,
        MaterialKind kind,
        List<String> words,
        String supplier,
        String licence,
        Double width,
        Double height,
        Double price,
        Double stock,
        Double lead,
        Double density,
        Double waste,
        Double carbon) {
    /** What a photograph shows is this large at least and at most, in metres. */
    public static final double SMALLEST = 0.002;

    public static final double LARGEST = 20;

    private static final double FELT = 0.5;

    /** What is known of it besides its look. */
    public Facts facts() {
        return new Facts(
                density,
                price,
                waste,
                carbon,
                words,
                null,
                "photograph of the supplier’s",
                licence == null || licence.isEmpty() ? null : licence,
                supplier,
                number,
                null);
    }

    /** What it lacks for use in a project, in words. */
    public List<String> lacks() {
        List<String> all = new ArrayList<>();
        if (width == null || height == null) {
            all.add("real size");
        }
        all.addAll(facts().missing());
        if (licence == null || licence.isEmpty()) {
            all.add("licence");
        }
        return all;
    }

    /**
     * One repeat of it as its photograph is laid.
     *
     * @param told the width of what the photograph shows, in metres; null for what the supplier says
     * @throws ParameterException where nobody says, or it can't be
     */
    public RealSize repeat(Photograph photograph, Double told) {
        if (told != null && !(told >= SMALLEST && told <= LARGEST)) {
            throw new ParameterException("width", "What it shows is between 2 mm and 20 m wide.");
        }
        if (told == null && (width == null || height == null)) {
            throw new ParameterException("width", "The supplier does not tell how large this is. Say how wide it is.");
        }
        double wide = told == null ? width : told;
        double high = told == null ? height : told / photograph.aspect();
        return new RealSize(wide * photograph.left(), high * photograph.left());
    }

    /**
     * The material that it becomes: of its kind, with the photograph as its colour.
     *
     * @param image digest of the picture
     * @param size  of one repeat
     */
    public Material material(String image, RealSize size) {
        Surface s = Surface.STANDARD.with(Parameter.SPECULAR_ROUGHNESS, FELT);
        if (kind != null) {
            s = typical(kind, s);
        }
        s = s.with(Parameter.BASE_COLOR, LinearRgb.WHITE)
                .withTexture(
                        Parameter.BASE_COLOR, new TextureUse(image, Channel.RGB, size, Wrap.REPEAT, Wrap.REPEAT, 1));
        return new Material(number, name, kind, s);
    }

    /** What is usual of a kind. */
    private static Surface typical(MaterialKind kind, Surface s) {
        try {
            JsonValue wish = JsonValue.parse(JsonText.utf8(Map.of("kind", kind.word())));
            return Adjustment.of(new Material("", "", null, s), wish, i -> LinearRgb.WHITE)
                    .material()
                    .surface();
        } catch (ImportException e) {
            throw new IllegalStateException(e);
        }
    }
}

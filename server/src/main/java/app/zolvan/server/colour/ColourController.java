package app.zolvan.server.colour;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.ColourNotation;
import app.zolvan.core.colour.ColourStep;
import app.zolvan.core.colour.Harmony;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.OkLch;
import app.zolvan.core.colour.PictureColours;
import app.zolvan.core.colour.TargetTone;
import app.zolvan.core.colour.Undertone;
import app.zolvan.server.asset.PostedPicture;
import app.zolvan.server.problem.Problem;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Colour arithmetic for the picker, so that there is one implementation of it. */
@RestController
@RequestMapping("/api/colours")
class ColourController {
    private static final int PICTURE_BYTES = 30 << 20;
    private static final long PICTURE_PIXELS = 1_000_000;
    private static final int PALETTE = 6;
    private static final int SPOTS = 4;
    private static final long SEED = 1;
    private static final int SPOKES = 72;

    record ColourText(@NotNull @Size(max = 60) String text) {}

    /** @param undertoneOf a colour whose undertone is kept, three linear components; then chroma and hue are not read */
    record ColourPoint(
            @DecimalMin("0") @DecimalMax("100") double lightness,
            @DecimalMin("0") @DecimalMax("50") double chroma,
            @DecimalMin("0") @DecimalMax("360") double hue,
            @Nullable @Size(min = 3, max = 3) List<@NotNull Double> undertoneOf) {}

    record ColourPair(
            @NotNull @Size(min = 3, max = 3) List<@NotNull Double> one,
            @NotNull @Size(min = 3, max = 3) List<@NotNull Double> other) {}

    record ColourAlone(@NotNull @Size(min = 3, max = 3) List<@NotNull Double> linear) {}

    /** A colour typed in any notation. */
    @PostMapping("/typed")
    ColourWire typed(@Validated @RequestBody ColourText t) {
        return ColourNotation.parse(t.text())
                .map(ColourWire::of)
                .orElseThrow(() -> Problem.ofField(
                        "text", "“" + t.text() + "” is no colour. Type a hex code like #A5281F or three numbers."));
    }

    /** A colour by lightness, chroma and hue; a chroma that no screen shows is brought in. */
    @PostMapping("/placed")
    ColourWire placed(@Validated @RequestBody ColourPoint p) {
        if (p.undertoneOf() != null) {
            return ColourWire.of(Undertone.kept(linear(p.undertoneOf()), p.lightness() / 100));
        }
        OkLch asked = new OkLch(p.lightness() / 100, p.chroma() / 100, p.hue());
        OkLch shown = new OkLch(asked.lightness(), Math.min(asked.chroma(), asked.chromaLimit()), asked.hue());
        return ColourWire.of(shown.toSrgbGamut(), shown);
    }

    /**
     * What of the colour wheel a screen shows at one lightness.
     *
     * @param limits the strongest chroma (× 100) in directions of hue that lie equally far apart, from 0° on
     */
    record Wheel(List<Double> limits) {}

    /** @param lightness 0 … 100 */
    @GetMapping("/wheel")
    Wheel wheel(@RequestParam @DecimalMin("0") @DecimalMax("100") double lightness) {
        return new Wheel(Arrays.stream(OkLch.chromaLimits(lightness / 100, SPOKES))
                .mapToObj(c -> 100 * c)
                .toList());
    }

    private static LinearRgb linear(List<Double> components) {
        return LinearRgb.of(components.stream().mapToDouble(c -> c).toArray()).clamped();
    }

    /** A colour that another leads to, and what it is to it. */
    record Offer(String label, ColourWire colour) {}

    /** Colours by one rule of harmony. */
    record Company(String label, List<ColourWire> colours) {}

    record Around(ColourWire colour, List<Offer> steps, List<Offer> tones, List<Company> harmonies) {}

    /** What is near a colour and goes with it. */
    @PostMapping("/around")
    Around around(@Validated @RequestBody ColourAlone c) {
        LinearRgb colour = linear(c.linear());
        List<Offer> steps = new ArrayList<>();
        for (ColourStep s : ColourStep.values()) {
            steps.add(new Offer(s.label(), ColourWire.of(s.from(colour))));
        }
        List<Offer> tones = new ArrayList<>();
        for (TargetTone t : TargetTone.values()) {
            tones.add(new Offer(t.label(), ColourWire.of(t.from(colour))));
        }
        List<Company> harmonies = new ArrayList<>();
        for (Harmony h : Harmony.values()) {
            harmonies.add(new Company(
                    h.label(), h.with(colour).stream().map(ColourWire::of).toList()));
        }
        return new Around(ColourWire.of(colour), steps, tones, harmonies);
    }

    /**
     * Two colours side by side.
     *
     * @param difference CIEDE2000
     * @param contrast   in points of light reflectance value
     * @param ratio      of their luminances, from 1 (none) to 21
     */
    record Beside(double difference, double contrast, double ratio, String undertones) {}

    @PostMapping("/beside")
    Beside beside(@Validated @RequestBody ColourPair p) {
        LinearRgb one = linear(p.one());
        LinearRgb other = linear(p.other());
        return new Beside(
                CieLab.of(one).difference(CieLab.of(other)),
                Math.abs(one.lightReflectanceValue() - other.lightReflectanceValue()),
                one.contrastRatio(other),
                Undertone.of(one).beside(Undertone.of(other)));
    }

    /** @param share of the picture, in [0, 1] */
    record SharedColour(ColourWire colour, double share) {}

    /**
     * @param perCent of the pixels are no more coloured
     * @param cast    whether it leans as greys and whites should not
     */
    record PixelTail(int perCent, ColourWire colour, boolean cast) {
        static PixelTail of(int perCent, LinearRgb c) {
            return new PixelTail(perCent, ColourWire.of(c), Undertone.of(c).isCast());
        }
    }

    record ColouredSpot(int x, int y, ColourWire colour) {}

    /**
     * What colours a picture has.
     *
     * @param area   what was averaged: the rectangle asked for, or all
     * @param spread of that area, as a mean ΔE2000
     * @param tails  pixels of which 95 and 99 % are no more coloured
     * @param spots  where it is most coloured
     */
    record PictureWire(
            int width,
            int height,
            ColourWire area,
            double spread,
            List<PixelTail> tails,
            List<SharedColour> palette,
            List<ColouredSpot> spots) {}

    /** Looks at a PNG or JPEG; a rectangle is given in shares of its width and height. Nothing is kept. */
    @PostMapping("/picture")
    PictureWire picture(
            @RequestParam(defaultValue = "0") double x,
            @RequestParam(defaultValue = "0") double y,
            @RequestParam(defaultValue = "1") double width,
            @RequestParam(defaultValue = "1") double height,
            HttpServletRequest request)
            throws IOException {
        PictureColours picture = new PictureColours(
                PostedPicture.of(request, PICTURE_BYTES, PICTURE_PIXELS).image());
        int w = picture.width();
        int h = picture.height();
        PictureColours.Area area =
                picture.area((int) Math.round(x * w), (int) Math.round(y * h), (int) Math.round(width * w), (int)
                        Math.round(height * h));
        return new PictureWire(
                w,
                h,
                ColourWire.of(area.mean()),
                area.spread(),
                List.of(PixelTail.of(95, area.at95()), PixelTail.of(99, area.at99())),
                picture.palette(PALETTE, SEED).stream()
                        .map(s -> new SharedColour(ColourWire.of(s.colour()), s.share()))
                        .toList(),
                picture.mostColoured(SPOTS).stream()
                        .map(s -> new ColouredSpot(s.x(), s.y(), ColourWire.of(s.colour())))
                        .toList());
    }
}

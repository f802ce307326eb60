package app.zolvan.server.colour;

import app.zolvan.core.colour.OkLch;
import app.zolvan.core.colour.ColourNotation;
import app.zolvan.server.problem.Problem;
import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Colour arithmetic for the picker, so that there is one implementation of it. */
@RestController
@RequestMapping("/api/colours")
class ColourController {

    record ColourText(@NotNull @Size(max = 60) String text) {}

    record ColourPoint(
            @DecimalMin("0") @DecimalMax("100") double lightness,
            @DecimalMin("0") @DecimalMax("50") double chroma,
            @DecimalMin("0") @DecimalMax("360") double hue) {}

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
        OkLch asked = new OkLch(p.lightness() / 100, p.chroma() / 100, p.hue());
        OkLch shown = new OkLch(asked.lightness(), Math.min(asked.chroma(), asked.chromaLimit()), asked.hue());
        return ColourWire.of(shown.toSrgbGamut(), shown);
    }
}

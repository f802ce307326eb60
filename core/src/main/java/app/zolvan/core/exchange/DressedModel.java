package app.zolvan.core.exchange;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.assign.Look;
import app.zolvan.core.model.Model;
import java.util.function.BiFunction;
import java.util.function.Function;

/**
 * A model with the look of each region, ready to be written.
 *
 * @param look  gives the look of a part's span, by the part's index and the span's
 * @param ages  gives how readily a part ages, by its index and whether it weathers as metal does; null where nobody
 *              worked it out
 * @param back  gives what the backs of a part's span show; null for what its fronts show
 * @param image gives an image's encoded bytes by its SHA-256
 */
public record DressedModel(
        String name,
        Model model,
        BiFunction<Integer, Integer, Look> look,
        BiFunction<Integer, Integer, Look> back,
        Function<String, byte[]> image,
        BiFunction<Integer, Boolean, AgeFields> ages) {

    /** A model whose ageing nobody worked out: it looks new. */
    public DressedModel(
            String name, Model model, BiFunction<Integer, Integer, Look> look, Function<String, byte[]> image) {
        this(name, model, look, (part, span) -> null, image, (part, corrodes) -> null);
    }

    /** A model whose surfaces show the same on both their sides. */
    public DressedModel(
            String name,
            Model model,
            BiFunction<Integer, Integer, Look> look,
            Function<String, byte[]> image,
            BiFunction<Integer, Boolean, AgeFields> ages) {
        this(name, model, look, (part, span) -> null, image, ages);
    }

    /**
     * The same with the backs of its surfaces as parts of their own where they show something else, with its leaves as parts of their own, beside those they grow on, and with its reliefs that are shapes in the
     * meshes, so that any format carries them.
     *
     * @throws TooManyLeaves where there are more than a file may hold
     */
    public DressedModel grown() throws TooManyLeaves {
        return RaisedParts.raised(LeafParts.grown(TwoSidedParts.split(this)));
    }

    /** Files know of no tones of pictures: such pictures are written with their tone laid into them. */
    public DressedModel {
        BakedPictures baked = new BakedPictures(image);
        BiFunction<Integer, Integer, Look> given = look;
        BiFunction<Integer, Integer, Look> behind = back;
        look = (part, span) -> baked.look(given.apply(part, span));
        back = (part, span) -> baked.look(behind.apply(part, span));
        image = baked::bytes;
    }
}

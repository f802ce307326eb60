package app.zolvan.core.exchange;

import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.Tone;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.model.Digest;
import app.zolvan.core.texture.CutOutPicture;
import app.zolvan.core.texture.TonedPicture;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;

/** Pictures with their tone laid into them, and with what others cut out of them; made when they are asked for and kept. */
final class BakedPictures {
    private final Function<String, byte[]> originals;
    /** By the digest that stands for a picture with its tone. */
    private final Map<String, TextureUse> toned = new HashMap<>();

    private final Map<String, byte[]> made = new HashMap<>();

    BakedPictures(Function<String, byte[]> originals) {
        this.originals = originals;
    }

    /** The same look with pictures that need no tone, and whose alpha is what is cut out of them. */
    Look look(Look look) {
        if (look == null) {
            return null;
        }
        Surface surface = look.material().surface();
        Surface plain = surface;
        for (Map.Entry<Parameter, TextureUse> t : surface.textures().entrySet()) {
            plain = plain.withTexture(t.getKey(), baked(t.getValue()));
        }
        plain = cut(plain);
        return plain.equals(surface) ? look : look.wearing(plain);
    }

    private TextureUse baked(TextureUse t) {
        if (t.tone() == null) {
            return t;
        }
        String key = t.image() + Arrays.toString(t.tone().matrix());
        String digest = Digest.of(key.getBytes(StandardCharsets.UTF_8));
        toned.put(digest, t);
        return t.toned(null).withImage(digest);
    }

    /** A cut-out that lies where the colours do becomes their alpha; one that lies otherwise, or can't be read, stays. */
    private Surface cut(Surface s) {
        TextureUse shape = s.textures().get(Parameter.GEOMETRY_OPACITY);
        TextureUse colours = s.textures().get(Parameter.BASE_COLOR);
        if (shape == null || shape.isAlphaOf(colours) || (colours != null && !shape.liesLike(colours))) {
            return s;
        }
        String of = colours == null ? "" : colours.image();
        String digest = Digest.of((of + shape.image() + shape.channel()).getBytes(StandardCharsets.UTF_8));
        if (!made.containsKey(digest)) {
            made.put(digest, cutOut(colours, shape));
        }
        if (made.get(digest) == null) {
            return s;
        }
        TextureUse both = shape.withImage(digest);
        return s.withTexture(Parameter.BASE_COLOR, both.onChannel(Channel.RGB))
                .withTexture(Parameter.GEOMETRY_OPACITY, both.onChannel(Channel.A));
    }

    private byte[] cutOut(TextureUse colours, TextureUse shape) {
        byte[] body = colours == null ? null : bytes(colours.image());
        byte[] hole = originals.apply(shape.image());
        if (hole == null || (colours != null && body == null)) {
            return null;
        }
        try {
            return CutOutPicture.of(body, hole, shape.channel());
        } catch (IOException e) {
            return null;
        }
    }

    byte[] bytes(String digest) {
        byte[] known = made.get(digest);
        TextureUse use = toned.get(digest);
        if (known == null && use != null) {
            known = laid(originals.apply(use.image()), use.tone());
            made.put(digest, known);
        }
        return known == null ? originals.apply(digest) : known;
    }

    private static byte[] laid(byte[] file, Tone tone) {
        try {
            return file == null ? null : TonedPicture.of(file, tone);
        } catch (IOException e) { // what can't be read is written as it is, as it would be without a tone
            return file;
        }
    }
}

package app.zolvan.core.exchange;

import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.Tone;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.model.Digest;
import app.zolvan.core.texture.TonedPicture;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;

/** Pictures whose tone is laid into them, made when they are asked for and kept. */
final class BakedPictures {
    private final Function<String, byte[]> originals;
    /** By the digest that stands for a picture with its tone. */
    private final Map<String, TextureUse> toned = new HashMap<>();

    private final Map<String, byte[]> made = new HashMap<>();

    BakedPictures(Function<String, byte[]> originals) {
        this.originals = originals;
    }

    /** The same look with pictures that need no tone. */
    Look look(Look look) {
        if (look == null) {
            return null;
        }
        Surface surface = look.material().surface();
        Surface plain = surface;
        for (Map.Entry<Parameter, TextureUse> t : surface.textures().entrySet()) {
            plain = plain.withTexture(t.getKey(), baked(t.getValue()));
        }
        if (plain.equals(surface)) {
            return look;
        }
        Material m = look.material();
        Look baked = Look.of(m.with(plain), look.mapping(), look.physical().thickness(), look.from());
        return look.oneSided() ? baked.onOneSide() : baked;
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

    byte[] bytes(String digest) {
        TextureUse use = toned.get(digest);
        return use == null
                ? originals.apply(digest)
                : made.computeIfAbsent(digest, d -> laid(originals.apply(use.image()), use.tone()));
    }

    private static byte[] laid(byte[] file, Tone tone) {
        try {
            return file == null ? null : TonedPicture.of(file, tone);
        } catch (IOException e) { // what can't be read is written as it is, as it would be without a tone
            return file;
        }
    }
}

package app.zolvan.core.exchange.gltf;

import app.zolvan.core.assign.Look;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.model.Digest;
import app.zolvan.core.texture.PackedPicture;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.Map;
import java.util.function.Function;

/** Pictures of roughness and metalness as glTF reads them, in one; made once for a file. */
final class PackedPictures {
    private final Function<String, byte[]> originals;
    private final Map<String, byte[]> made = new HashMap<>();

    private PackedPictures(Function<String, byte[]> originals) {
        this.originals = originals;
    }

    /** A model with such pictures. */
    static DressedModel in(DressedModel dressed) {
        PackedPictures packed = new PackedPictures(dressed.image());
        return new DressedModel(
                dressed.name(),
                dressed.model(),
                (part, span) -> packed.look(dressed.look().apply(part, span)),
                (part, span) -> packed.look(dressed.back().apply(part, span)),
                packed::bytes,
                dressed.ages());
    }

    private Look look(Look look) {
        if (look == null) {
            return null;
        }
        Surface own = look.material().surface();
        Surface surface = packed(own);
        return surface.equals(own) ? look : look.wearing(surface);
    }

    private byte[] bytes(String digest) {
        byte[] known = made.get(digest);
        return known == null ? originals.apply(digest) : known;
    }

    /**
     * Pictures of roughness and metalness that glTF would read otherwise become one that it reads as they are meant; two that
     * do not lie alike, or can't be read, stay.
     */
    private Surface packed(Surface s) {
        TextureUse rough = s.textures().get(Parameter.SPECULAR_ROUGHNESS);
        TextureUse metal = s.textures().get(Parameter.BASE_METALNESS);
        if (PhysicalMaterial.isPacked(s) || (rough != null && metal != null && !rough.liesLike(metal))) {
            return s;
        }
        String digest = Digest.of(("packed" + told(rough) + told(metal)).getBytes(StandardCharsets.UTF_8));
        if (!made.containsKey(digest)) {
            made.put(digest, packed(rough, metal));
        }
        if (made.get(digest) == null) {
            return s;
        }
        TextureUse both = (rough == null ? metal : rough).withImage(digest);
        return s.withTexture(Parameter.SPECULAR_ROUGHNESS, rough == null ? null : both.onChannel(Channel.G))
                .withTexture(Parameter.BASE_METALNESS, metal == null ? null : both.onChannel(Channel.B));
    }

    private static String told(TextureUse t) {
        return t == null ? "-" : t.image() + t.channel();
    }

    private byte[] packed(TextureUse rough, TextureUse metal) {
        byte[] green = rough == null ? null : originals.apply(rough.image());
        byte[] blue = metal == null ? null : originals.apply(metal.image());
        if ((rough != null && green == null) || (metal != null && blue == null)) {
            return null;
        }
        try {
            return PackedPicture.of(
                    rough == null ? null : new PackedPicture.Layer(green, rough.channel()),
                    metal == null ? null : new PackedPicture.Layer(blue, metal.channel()));
        } catch (IOException e) {
            return null;
        }
    }
}

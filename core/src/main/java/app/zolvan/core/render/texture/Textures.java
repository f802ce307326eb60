package app.zolvan.core.render.texture;

import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.texture.Picture;
import app.zolvan.core.texture.Picture.Holds;
import app.zolvan.core.texture.Texture;
import java.io.IOException;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;

/**
 * The pictures of a scene, each decoded once, within a budget of memory: a picture may take a share of what is left, and
 * is read more coarsely where it would take more.
 */
public final class Textures {
    /** Bytes for all pictures, unless said otherwise. */
    public static final long BUDGET = 768L << 20;

    private static final double BYTES_PER_PIXEL = 16 / 3.0;
    /** Even where nothing is left a picture shows its colours. */
    private static final int LEAST_PIXELS = 64 * 64;

    private final Function<String, byte[]> files;
    private final Map<String, Picture> pictures = new HashMap<>();
    private final Set<String> problems = new LinkedHashSet<>();
    private long left;

    /** @param files bytes of an image by its digest; null for one that is not there */
    public Textures(Function<String, byte[]> files, long budget) {
        this.files = files;
        this.left = budget;
    }

    /** Sentences about pictures that could not be used. */
    public Set<String> problems() {
        return problems;
    }

    /** What drives a surface's parameters; empty for a plain surface. */
    public Map<Parameter, Texture> of(Surface surface) {
        Map<Parameter, Texture> found = new EnumMap<>(Parameter.class);
        surface.textures().forEach((parameter, use) -> {
            Picture picture = picture(use, holds(parameter));
            if (picture != null) {
                boolean around = parameter == Parameter.REFLECTED_SURROUNDINGS;
                found.put(parameter, new Texture(picture, around ? use.plain() : use));
            }
        });
        return found;
    }

    private static Holds holds(Parameter parameter) {
        return parameter == Parameter.GEOMETRY_NORMAL
                ? Holds.NORMALS
                : parameter.shape() == Parameter.Shape.COLOUR ? Holds.COLOURS : Holds.NUMBERS;
    }

    private Picture picture(TextureUse use, Holds holds) {
        String key = use.image() + holds;
        if (!pictures.containsKey(key)) {
            pictures.put(key, decode(use.image(), holds));
        }
        return pictures.get(key);
    }

    private Picture decode(String image, Holds holds) {
        byte[] file = files.apply(image);
        if (file == null) {
            problems.add("A texture is missing from the model; the plain value is shown instead.");
            return null;
        }
        try {
            Picture p = Picture.decode(
                    file, holds, (int) Math.max(LEAST_PIXELS, Math.min(1 << 28, 0.25 * left / BYTES_PER_PIXEL)));
            left -= p.bytes();
            return p;
        } catch (IOException e) {
            problems.add("A texture can’t be decoded: it is damaged, or no PNG or JPEG. Save it anew as PNG.");
            return null;
        }
    }
}

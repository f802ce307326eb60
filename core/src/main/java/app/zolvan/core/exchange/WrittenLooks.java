package app.zolvan.core.exchange;

import app.zolvan.core.assign.Look;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.model.Model;
import app.zolvan.core.texture.ImageHeader;
import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;

/**
 * The distinct materials that a dressed model shows, numbered in order of first use, each under a name of its own, and
 * the pictures they need as files; for writers of formats that know materials but not real sizes.
 */
public final class WrittenLooks {
    /** What becomes parts of the model rather than words about a material: see {@link DressedModel#grown}. */
    private static final Set<Parameter> SHAPES =
            Set.of(Parameter.LEAF_COVER, Parameter.LEAF_SIZE, Parameter.LEAF_COLOR);

    private final DressedModel dressed;
    private final List<Look> looks = new ArrayList<>();
    private final List<String> names = new ArrayList<>();
    private final Map<Material, Integer> index = new HashMap<>();
    private final Map<String, String> pictures = new LinkedHashMap<>();

    /** @param carried parameters whose textures the format can hold */
    public WrittenLooks(DressedModel dressed, Set<Parameter> carried) {
        this.dressed = dressed;
        Set<String> taken = new HashSet<>();
        for (int p = 0; p < dressed.model().parts().size(); p++) {
            Mesh mesh = dressed.model().meshOf(dressed.model().parts().get(p));
            for (int s = 0; s < mesh.spanCount(); s++) {
                Look look = dressed.look().apply(p, s);
                if (look != null && !index.containsKey(look.material())) {
                    index.put(look.material(), looks.size());
                    looks.add(look);
                    names.add(unique(look.material().name(), taken));
                    look.material().surface().textures().forEach((parameter, use) -> {
                        if (carried.contains(parameter)) {
                            picture(use);
                        }
                    });
                }
            }
        }
    }

    /** A name that was not taken yet; blank ones become "unnamed". */
    public static String unique(String name, Set<String> taken) {
        String base = name.isBlank() ? "unnamed" : name.strip();
        String free = base;
        for (int i = 2; !taken.add(free); i++) {
            free = base + " (" + i + ")";
        }
        return free;
    }

    public List<Look> looks() {
        return looks;
    }

    public List<String> names() {
        return names;
    }

    /** Number of the material that a part's span shows, or {@link Model#NONE}. */
    public int of(int part, int span) {
        Look look = dressed.look().apply(part, span);
        return look == null ? Model.NONE : index.get(look.material());
    }

    private void picture(TextureUse use) {
        pictures.computeIfAbsent(use.image(), digest -> {
            return ImageHeader.fileName(digest, dressed.image().apply(digest));
        });
    }

    /** The file that a texture's picture goes to, or null where the format does not carry it. */
    public String file(TextureUse use) {
        return use == null ? null : pictures.get(use.image());
    }

    public Map<String, String> pictures() {
        return pictures;
    }

    public void writePictures(ModelWriter.FileSink sink) throws IOException {
        for (Map.Entry<String, String> e : pictures.entrySet()) {
            byte[] bytes = dressed.image().apply(e.getKey());
            sink.file(e.getValue(), out -> out.write(bytes));
        }
    }

    /**
     * Texture coordinates with the placement of the look's base colour (or first) texture carried out, u to the right and
     * v down from the picture's upper left corner; null where nothing is textured and the file had none.
     */
    public static float[] coordinates(Mesh mesh, Look look) {
        boolean own = look == null || look.mapping() instanceof Mapping.ModelUvs;
        Map<Parameter, TextureUse> textures =
                look == null ? Map.of() : look.material().surface().textures();
        if (textures.isEmpty()) {
            return mesh.uv();
        }
        float[] from = own ? mesh.uv() : mesh.metricUv();
        if (from == null) {
            return null;
        }
        TextureUse use = textures.containsKey(Parameter.BASE_COLOR)
                ? textures.get(Parameter.BASE_COLOR)
                : textures.values().iterator().next();
        ModelUv t = use.placement().toImage();
        double c = Math.cos(t.rotation());
        double s = Math.sin(t.rotation());
        float[] out = new float[from.length];
        for (int i = 0; i < from.length; i += 2) {
            double u = from[i] * t.scaleU();
            double v = from[i + 1] * t.scaleV();
            out[i] = (float) (c * u + s * v + t.offsetU());
            out[i + 1] = (float) (-s * u + c * v + t.offsetV());
        }
        return out;
    }

    /**
     * Sentences about what these materials lose in a format.
     *
     * @param carried the parameters that the format has words for
     */
    public List<String> losses(String format, Set<Parameter> carried) {
        List<String> out = new ArrayList<>();
        for (int i = 0; i < looks.size(); i++) {
            Set<String> lost = new TreeSet<>();
            for (Parameter p : Parameter.values()) {
                if (!carried.contains(p)
                        && !SHAPES.contains(p)
                        && !looks.get(i).material().surface().isStandard(p)) {
                    lost.add(p.openPbrName().replace('_', ' '));
                }
            }
            if (!lost.isEmpty()) {
                out.add("“" + names.get(i) + "” loses " + String.join(", ", lost) + ": " + format
                        + " has no words for them.");
            }
        }
        return out;
    }
}

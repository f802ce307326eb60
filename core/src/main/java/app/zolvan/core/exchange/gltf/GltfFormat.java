package app.zolvan.core.exchange.gltf;

import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.WrittenLooks;
import app.zolvan.core.material.Parameter;
import java.io.IOException;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;

/** glTF 2.0 as a format to write: one binary file, or a .gltf with its buffer and pictures. */
public final class GltfFormat implements ModelWriter {
    /** What neither glTF nor its extensions have words for; kept in extras for Zolvan itself. */
    private static final Set<Parameter> NOT_CARRIED = Set.of(
            Parameter.BASE_DIFFUSE_ROUGHNESS,
            Parameter.GENERALIZED_SCHLICK,
            Parameter.SCHLICK_COLOR0,
            Parameter.SCHLICK_COLOR90,
            Parameter.SCHLICK_EXPONENT,
            Parameter.FLAKE_WEIGHT,
            Parameter.FLAKE_SIZE,
            Parameter.REFLECTED_SURROUNDINGS,
            Parameter.REFLECTED_STRENGTH,
            Parameter.TRANSMISSION_SCATTER,
            Parameter.TRANSMISSION_SCATTER_ANISOTROPY,
            Parameter.SUBSURFACE_WEIGHT,
            Parameter.SUBSURFACE_COLOR,
            Parameter.SUBSURFACE_RADIUS,
            Parameter.SUBSURFACE_RADIUS_SCALE,
            Parameter.SUBSURFACE_SCATTER_ANISOTROPY,
            Parameter.COAT_COLOR,
            Parameter.COAT_ROUGHNESS_ANISOTROPY,
            Parameter.COAT_IOR,
            Parameter.COAT_DARKENING);

    private final boolean binary;

    public GltfFormat(boolean binary) {
        this.binary = binary;
    }

    @Override
    public Kind kind() {
        return binary
                ? new Kind("GLB", "glb", "model/gltf-binary", false)
                : new Kind("glTF", "gltf", "model/gltf+json", true);
    }

    @Override
    public List<String> losses(DressedModel dressed) {
        Set<Parameter> carried = EnumSet.allOf(Parameter.class);
        carried.removeAll(NOT_CARRIED);
        return new WrittenLooks(dressed, Set.of()).losses("glTF", carried);
    }

    @Override
    public void write(DressedModel dressed, String base, FileSink sink) throws IOException {
        if (binary) {
            sink.file(base + ".glb", out -> GltfWriter.write(dressed, out));
        } else {
            GltfWriter.writeBundle(dressed, base, sink);
        }
    }
}

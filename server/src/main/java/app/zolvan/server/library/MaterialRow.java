package app.zolvan.server.library;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.exchange.library.MaterialJson;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Surface;
import java.nio.charset.StandardCharsets;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A material as stored.
 *
 * @param projectId null for the library's
 * @param origin    the material it was made from
 * @param arrived   whether it came with the file
 * @param surface   JSON as {@link MaterialJson} writes it
 */
public record MaterialRow(
        UUID id,
        @Nullable UUID projectId,
        @Nullable UUID origin,
        boolean arrived,
        String code,
        String name,
        @Nullable String kind,
        String surface,
        int position) {

    public Material toMaterial() {
        return new Material(code, name, kind == null ? null : MaterialKind.ofWord(kind), toSurface());
    }

    public Surface toSurface() {
        try {
            return MaterialJson.read(JsonValue.parse(surface.getBytes(StandardCharsets.UTF_8)));
        } catch (ImportException e) {
            throw new IllegalStateException("a stored surface can't be read", e);
        }
    }

    public MaterialRow with(String newName, Surface newSurface) {
        return new MaterialRow(id, projectId, origin, arrived, code, newName, kind, json(newSurface), position);
    }

    /** The same values, whatever the order in which JSON lists them. */
    public boolean isSame(@Nullable MaterialRow o) {
        return o != null
                && id.equals(o.id)
                && name.equals(o.name)
                && code.equals(o.code)
                && Objects.equals(kind, o.kind)
                && toSurface().equals(o.toSurface());
    }

    public static String json(Surface surface) {
        return new String(JsonText.utf8(MaterialJson.write(surface)), StandardCharsets.UTF_8);
    }
}

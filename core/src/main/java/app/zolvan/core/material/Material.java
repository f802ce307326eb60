package app.zolvan.core.material;

import java.io.Serializable;

/**
 * A named surface.
 *
 * @param code short trade code such as PT-014; empty for a look that arrived with a file
 * @param kind what it is; null where nobody has said
 */
public record Material(String code, String name, MaterialKind kind, Surface surface) implements Serializable {
    /** The same with another surface. */
    public Material with(Surface other) {
        return new Material(code, name, kind, other);
    }
}

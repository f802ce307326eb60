package app.zolvan.core.assign;

import app.zolvan.core.mapping.Mapping;

/**
 * What a slot holds: a material, a mapping, or both; the two are resolved separately. An entry with neither is
 * <em>cleared</em>: it hides what a base scheme has in the very same slot, and nothing else.
 *
 * @param material identity of the material, or null
 * @param mapping  or null
 * @param onTop    whether it wins over everything narrower
 */
public record Entry(String material, Mapping mapping, boolean onTop) {
    public static final Entry CLEARED = new Entry(null, null, false);

    /** Whether it holds nothing itself and only hides what a base has. */
    public boolean isCleared() {
        return material == null && mapping == null;
    }

    public static Entry ofMaterial(String material) {
        return new Entry(material, null, false);
    }
}

package app.zolvan.core.mapping;

/**
 * How textures lie on geometry. It belongs to an assignment, never to a material, so one material can lie differently on
 * each part. Two projections exist so far; sizes, frames and turns join them in the mapping step.
 */
public sealed interface Mapping {
    /** The coordinates the file came with. */
    record ModelUvs() implements Mapping {}

    /** At real size: as the file laid it where that is even, else from six sides; see {@link RealSize}. */
    record Box() implements Mapping {}
}

package app.zolvan.core.geometry;

/** What rays meet, for one thread. */
public interface Sight {
    /** Where there is nothing to meet. */
    Sight CLEAR = (from, towards, most) -> Double.POSITIVE_INFINITY;

    /** The distance to what is met first, or infinity beyond {@code most}; the direction is of unit length. */
    double distance(Vec3 from, Vec3 towards, double most);
}

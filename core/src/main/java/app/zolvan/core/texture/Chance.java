package app.zolvan.core.texture;

/** Numbers that look like chance and are the same for the same number always (Stafford's thirteenth mix of 64 bits). */
public final class Chance {
    /** Steps that part many draws of one number. */
    public static final long STEP = 0x9E3779B97F4A7C15L;

    private Chance() {}

    public static long mixed(long v) {
        long h = v;
        h = (h ^ (h >>> 30)) * 0xBF58476D1CE4E5B9L;
        h = (h ^ (h >>> 27)) * 0x94D049BB133111EBL;
        return h ^ (h >>> 31);
    }

    /** Evenly in [0, 1). */
    public static double unit(long v) {
        return (mixed(v) >>> 11) * 0x1.0p-53;
    }
}

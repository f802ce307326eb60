package app.zolvan.core.material;

import app.zolvan.core.colour.CieLab;
import java.util.ArrayList;
import java.util.List;

/** Tells surfaces that nobody could tell apart beside each other. */
public final class SameLook {
    /** Colours nearer than this, by ΔE2000, are one colour: less than what is seen side by side. */
    private static final double COLOUR = 1;
    /** Numbers differ visibly from so large a share of their range on; those of a wide range by that share of themselves. */
    private static final double NUMBER = 0.02;

    private static final double WIDE = 10;

    private SameLook() {}

    /** Whether two surfaces look the same: the same textures, and no value that differs visibly. */
    public static boolean areAlike(Surface a, Surface b) {
        if (!a.textures().equals(b.textures())) {
            return false;
        }
        for (Parameter p : Parameter.values()) {
            boolean alike = switch (p.shape()) {
                case COLOUR -> CieLab.of(a.colour(p)).difference(CieLab.of(b.colour(p))) < COLOUR;
                case NUMBER -> isNear(p, a.number(p), b.number(p));
                case FLAG -> a.flag(p) == b.flag(p);
                case TEXTURE_ONLY -> true;
            };
            if (!alike) {
                return false;
            }
        }
        return true;
    }

    private static boolean isNear(Parameter p, double a, double b) {
        double range = p.max() - p.min();
        double scale = range <= WIDE ? range : Math.max(Math.abs(a), Math.abs(b));
        return a == b || Math.abs(a - b) <= NUMBER * scale;
    }

    /**
     * For each surface the first of those that it looks the same as: its own index where no earlier one does. Each is
     * compared with the first of its kind, so that a row of small steps does not end in another colour.
     *
     * @param surfaces null for none, which looks like nothing else
     */
    public static List<Integer> firsts(List<Surface> surfaces) {
        List<Integer> out = new ArrayList<>();
        for (int i = 0; i < surfaces.size(); i++) {
            int first = i;
            for (int k = 0; k < i && first == i; k++) {
                boolean leads = out.get(k) == k && surfaces.get(k) != null && surfaces.get(i) != null;
                first = leads && areAlike(surfaces.get(k), surfaces.get(i)) ? k : i;
            }
            out.add(first);
        }
        return out;
    }
}

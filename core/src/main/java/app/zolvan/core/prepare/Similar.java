package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntPredicate;

/** Finds the parts of a model that are like one of them in some way. */
public final class Similar {
    private static final double SIZE = 0.02;
    private static final double PARALLEL = Math.cos(Math.toRadians(5));

    private Similar() {}

    /** In what way parts are alike. */
    public enum By {
        /** The same geometry, wherever it stands, mirrored too. */
        SHAPE,
        /** As large along its three directions, within 2 %. */
        SIZE,
        /** Rods that run the same way, or sheets that face the same way, within 5°. */
        DIRECTION,
        /** Some of its surface in the same matching set. */
        SET,
        /** The same role. */
        ROLE
    }

    /**
     * @param model whose spans name their matching sets
     * @param roles of all parts; null for none
     * @return for each way in which anything can be like the part, all that are, itself among them
     */
    public static Map<By, List<Integer>> to(Model model, List<Role> roles, int part) {
        List<ShapeSignature> all = model.parts().stream()
                .map(p -> ShapeSignature.of(model.meshOf(p), model.partToWorld(p)))
                .toList();
        ShapeSignature own = all.get(part);
        List<Integer> sets = model.parts().get(part).sourceOfSpan();
        Map<By, List<Integer>> out = new EnumMap<>(By.class);
        out.put(By.SHAPE, which(all.size(), p -> all.get(p).isLike(own)));
        out.put(By.SIZE, which(all.size(), p -> all.get(p).isAsLarge(own, SIZE)));
        if (own.isRod() || own.isSheet()) {
            out.put(By.DIRECTION, which(all.size(), p -> isParallel(all.get(p), own)));
        }
        out.put(
                By.SET,
                which(
                        all.size(),
                        p -> model.parts().get(p).sourceOfSpan().stream().anyMatch(sets::contains)));
        if (roles.get(part) != null) {
            out.put(By.ROLE, which(all.size(), p -> roles.get(p) == roles.get(part)));
        }
        return out;
    }

    private static boolean isParallel(ShapeSignature a, ShapeSignature b) {
        if (b.isRod()) {
            return a.isRod() && isParallel(a.along(), b.along());
        }
        return a.isSheet() && isParallel(a.facing(), b.facing());
    }

    private static boolean isParallel(Vec3 a, Vec3 b) {
        return Math.abs(a.dot(b)) >= PARALLEL;
    }

    private static List<Integer> which(int count, IntPredicate is) {
        List<Integer> out = new ArrayList<>();
        for (int p = 0; p < count; p++) {
            if (is.test(p)) {
                out.add(p);
            }
        }
        return out;
    }
}

package app.zolvan.core.measure;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.material.MaterialKind;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;

/**
 * Materials of one model that look alike and are not the same: what was meant to match, and does not quite, or does but
 * changes apart.
 */
public final class NearTwins {
    /** CIEDE2000 up to which two colours, not side by side, are taken for one. */
    public static final double DIFFERENCE = 4;
    /** How far gloss may lie apart for it, in GU at 60°. */
    public static final double GLOSS = 10;

    private static final int MOST = 50;
    /** Below what the numbers of both are shown with. */
    private static final double SAME = 0.05;

    private static final double SAME_GLOSS = 0.5;

    private NearTwins() {}

    /** @param kind null for none, which may match any */
    public record Finish<K>(K material, MaterialKind kind, MaterialMeasure measure) {}

    /**
     * @param difference CIEDE2000 between the mean colours
     * @param gloss      of the other less that of the one, in GU
     */
    public record Pair<K>(K one, K other, double difference, double gloss) {
        /** Whether nobody could tell them apart by colour and gloss: they match, but change apart. */
        public boolean matches() {
            return difference < SAME && Math.abs(gloss) < SAME_GLOSS;
        }
    }

    /** At most fifty pairs, those that come nearest first. */
    public static <K> List<Pair<K>> among(List<Finish<K>> all) {
        List<CieLab> colours =
                all.stream().map(f -> CieLab.of(f.measure().mean())).toList();
        List<Pair<K>> out = new ArrayList<>();
        for (int i = 0; i < all.size(); i++) {
            for (int j = i + 1; j < all.size(); j++) {
                Finish<K> a = all.get(i);
                Finish<K> b = all.get(j);
                double gloss = b.measure().gloss() - a.measure().gloss();
                boolean mayMatch = a.kind() == null || b.kind() == null || Objects.equals(a.kind(), b.kind());
                if (mayMatch && Math.abs(gloss) <= GLOSS) {
                    double difference = colours.get(i).difference(colours.get(j));
                    if (difference <= DIFFERENCE) {
                        out.add(new Pair<>(a.material(), b.material(), difference, gloss));
                    }
                }
            }
        }
        out.sort(Comparator.comparingDouble(Pair::difference));
        return List.copyOf(out.subList(0, Math.min(MOST, out.size())));
    }
}

package app.zolvan.core.prepare;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What source materials become: kept from one project, applied to the next import. A row goes by the source's name, with *
 * for any text; a name that says nothing counts only with nearly the same colour. Where no name fits, the nearest colour
 * decides, among rows of the same role.
 */
public record DressingTable(List<Row> rows) {
    /** Colours nearer than this, by ΔE2000, look alike at a glance. */
    private static final double ALIKE = 3;
    /** Farther than this a name that says nothing means something else. */
    private static final double OTHER = 10;

    public DressingTable {
        rows = List.copyOf(rows);
    }

    /**
     * @param name     of the source material, or a pattern with *
     * @param colour   the source's base colour
     * @param role     of most of its parts; null for none in particular
     * @param material what it becomes
     */
    public record Row(String name, LinearRgb colour, Role role, String material) {}

    /** A source material that arrived. */
    public record Source(String name, LinearRgb colour, Role role) {}

    /** By what a row fits. */
    public enum By {
        NAME,
        COLOUR
    }

    public record Hit(Row row, By by) {}

    /** What a source becomes; nothing where no row fits. */
    public Optional<Hit> find(Source source) {
        List<Row> named = new ArrayList<>();
        for (Row r : rows) {
            boolean clear = !Names.saysNothing(r.name.replace("*", ""));
            if (Wildcard.of(r.name).test(source.name) && (clear || difference(r, source) < OTHER)) {
                named.add(r);
            }
        }
        Optional<Row> byName = nearest(named, source);
        if (byName.isPresent()) {
            return byName.map(r -> new Hit(r, By.NAME));
        }
        List<Row> alike = rows.stream()
                .filter(r -> r.role == source.role && difference(r, source) < ALIKE)
                .toList();
        return nearest(alike, source).map(r -> new Hit(r, By.COLOUR));
    }

    private static Optional<Row> nearest(List<Row> rows, Source source) {
        return rows.stream().min((a, b) -> Double.compare(difference(a, source), difference(b, source)));
    }

    private static double difference(Row row, Source source) {
        return CieLab.of(row.colour).difference(CieLab.of(source.colour));
    }
}

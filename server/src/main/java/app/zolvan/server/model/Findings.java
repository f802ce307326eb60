package app.zolvan.server.model;

import app.zolvan.core.model.LengthText;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.prepare.ModelSnag;
import app.zolvan.core.snag.Certainty;
import app.zolvan.core.snag.Fix;
import app.zolvan.core.snag.Snag;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What deserves a look in a project's model.
 *
 * @param looked  false for a model that came before Zolvan looked models through
 * @param current whether no shape was changed since
 */
public record Findings(boolean looked, boolean current, List<FindingWire> entries) {
    static final Findings NONE = new Findings(false, true, List.of());

    /**
     * @param parts  indices of the parts it is about; empty where it is about none
     * @param count  how many edges, triangles, groups or names it is about
     * @param amount how much, in metres or square metres
     * @param place  minimum x, y, z, maximum x, y, z of where to look, in metres; null for nowhere in particular
     * @param says   what and where
     * @param advice why it matters and what to do
     * @param certainty how sure it is that it is not meant
     * @param remedy what mends it without a doubt; null where somebody has to decide
     */
    public record FindingWire(
            ModelSnag kind,
            List<Integer> parts,
            int count,
            double amount,
            @Nullable List<Double> place,
            String says,
            String advice,
            Certainty certainty,
            Fix.@Nullable OfParts remedy) {}

    /** The same with lengths in a unit. */
    Findings in(LengthUnit unit) {
        return new Findings(
                looked,
                current,
                entries.stream()
                        .map(f -> new FindingWire(
                                f.kind(),
                                f.parts(),
                                f.count(),
                                f.amount(),
                                f.place(),
                                LengthText.read(f.says(), unit),
                                f.advice(),
                                f.kind().certainty(),
                                f.kind().fix()))
                        .toList());
    }

    Findings asOf(boolean now) {
        return new Findings(looked, now, entries);
    }

    static Findings of(List<Snag> found) {
        return new Findings(
                true,
                true,
                found.stream()
                        .map(f -> new FindingWire(
                                (ModelSnag) f.kind(),
                                f.parts(),
                                f.count(),
                                f.amount(),
                                f.place().isEmpty()
                                        ? null
                                        : List.of(
                                                f.place().min().x(),
                                                f.place().min().y(),
                                                f.place().min().z(),
                                                f.place().max().x(),
                                                f.place().max().y(),
                                                f.place().max().z()),
                                f.says(),
                                f.kind().why(),
                                f.kind().certainty(),
                                (Fix.OfParts) f.fix()))
                        .toList());
    }
}

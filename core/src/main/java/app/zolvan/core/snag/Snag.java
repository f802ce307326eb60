package app.zolvan.core.snag;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.model.LengthText;
import java.io.Serializable;
import java.util.List;

/**
 * Something that deserves a look before it is shown to a client: in an imported model, a material, or what was made of them.
 *
 * @param parts     indices of the parts it is about; empty where it is about none
 * @param parameter of a material that it is about; null for none
 * @param count     how many edges, triangles, groups or names it is about; 0 for no such number
 * @param amount    how much, in the unit of its kind (metres or square metres); 0 where there is no such measure
 * @param place     where in the world to look, in metres; empty for nowhere in particular
 * @param says      what and where, as a sentence; lengths in it as {@link LengthText} keeps them
 * @param fix       what mends it without a doubt; null where somebody has to decide
 */
public record Snag(
        SnagKind kind,
        List<Integer> parts,
        Parameter parameter,
        int count,
        double amount,
        Box3 place,
        String says,
        Fix fix)
        implements Serializable {
    public Snag {
        parts = List.copyOf(parts);
    }

    /** About parts of a model. */
    public static Snag ofParts(
            SnagKind kind, List<Integer> parts, int count, double amount, Box3 place, String says, Fix fix) {
        return new Snag(kind, parts, null, count, amount, place, says, fix);
    }

    /** About a parameter of a material. */
    public static Snag ofMaterial(SnagKind kind, Parameter parameter, String says, Fix fix) {
        return new Snag(kind, List.of(), parameter, 0, 0, Box3.EMPTY, says, fix);
    }

    /** The same about the parts of a model that this one's is an excerpt of. */
    public Snag inWhole(List<Integer> origin) {
        return new Snag(kind, parts.stream().map(origin::get).toList(), parameter, count, amount, place, says, fix);
    }
}

package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Box3;
import java.util.List;

/**
 * Something about an imported model that deserves a look before it is dressed.
 *
 * @param parts  indices of the parts it is about; empty where it is about none
 * @param count  how many edges, triangles, groups or names it is about
 * @param amount how much, in the unit of its kind (metres or square metres); 0 where there is no such measure
 * @param place  where in the world to look, in metres; empty for nowhere in particular
 * @param says   what and where, as a sentence
 * @param advice why it matters and what to do, as a sentence
 */
public record Finding(
        Kind kind, List<Integer> parts, int count, double amount, Box3 place, String says, String advice) {
    public Finding {
        parts = List.copyOf(parts);
    }

    /** What can be found, in the order in which it is told. */
    public enum Kind {
        /** Edges at which a surface ends although the rest of it closes a body. */
        OPEN,
        /** Edges at which more than two triangles meet. */
        NON_MANIFOLD,
        /** Triangles that face the other way than their neighbours, or bodies that are inside out. */
        FLIPPED,
        /** Triangles that lie in the file more than once. */
        DUPLICATE,
        /** Triangles without an area to speak of. */
        DEGENERATE,
        /** Faces of two parts in one place; amount is their common area. */
        COINCIDENT,
        /** The tip of the first part comes out of the second; amount is how far. */
        POKING,
        /** Two bodies that nearly touch; amount is the gap. */
        GAP,
        /** Parts far away from all others; amount is how far. */
        STRAY,
        /** The whole model lies far from the origin; amount is how far. */
        FAR_FROM_ORIGIN,
        /** Parts without texture coordinates of their own. */
        NO_COORDINATES,
        /** Images with more pixels along a side than a picture can use. */
        OVERSIZE_IMAGE,
        /** Groups that hold no part. */
        EMPTY_GROUP,
        /** Names that say nothing. */
        NAMELESS
    }
}

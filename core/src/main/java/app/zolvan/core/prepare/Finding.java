package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.model.LengthText;
import java.io.Serializable;
import java.util.List;

/**
 * Something about an imported model that deserves a look before it is dressed.
 *
 * @param parts  indices of the parts it is about; empty where it is about none
 * @param count  how many edges, triangles, groups or names it is about
 * @param amount how much, in the unit of its kind (metres or square metres); 0 where there is no such measure
 * @param place  where in the world to look, in metres; empty for nowhere in particular
 * @param says   what and where, as a sentence; lengths in it as {@link LengthText} keeps them
 */
public record Finding(Kind kind, List<Integer> parts, int count, double amount, Box3 place, String says)
        implements Serializable {
    public Finding {
        parts = List.copyOf(parts);
    }

    /** The same about the parts of a model that this one's is an excerpt of. */
    public Finding inWhole(List<Integer> origin) {
        return new Finding(kind, parts.stream().map(origin::get).toList(), count, amount, place, says);
    }

    /** What can be done about a finding at once. */
    public enum Remedy {
        /** {@link Sides#unify}. */
        TURN_OUTWARD,
        /** {@link Repair#DROP}. */
        DROP,
        /** All groups that hold nothing go. */
        REMOVE_GROUPS
    }

    /** What can be found, in the order in which it is told. */
    public enum Kind {
        /** Edges at which a surface ends although the rest of it closes a body; amount is their length. */
        OPEN(
                "An open surface has no inside: no mass, and solid glass or liquid looks wrong in it. Fill its holes under Mending,"
                        + " or close it in the modelling program."),
        /** Edges at which more than two triangles meet. */
        NON_MANIFOLD("It is not clear what is inside there. Look for a doubled wall or a stray face."),
        /** Triangles that face the other way than their neighbours, or bodies that are inside out. */
        FLIPPED("Seen from their back they can look black, or vanish."),
        /** Triangles that lie in the file more than once. */
        DUPLICATE("Two faces in one place flicker. Take the second one away under Mending."),
        /** Triangles without an area to speak of. */
        DEGENERATE("They carry neither light nor texture, and do no harm."),
        /** Faces of two parts in one place; amount is their common area. */
        COINCIDENT("Which of the two is seen is a matter of chance. Delete one in the modelling program, or part them a"
                + " little."),
        /** The tip of the first part comes out of the second; amount is how far. */
        POKING("If it is not meant to be seen there, move it back by as much under Mending."),
        /** Two bodies that nearly touch; amount is the gap. */
        GAP("If they are meant to touch, let them: light gets into the gap."),
        /** Parts were not compared with each other: too many triangles lie near other parts. */
        NOT_COMPARED(
                "Faces in one place, tips that poke through and gaps are not told for this model. Import it in several"
                        + " files to have them told."),
        /** Parts far away from all others; amount is how far. */
        STRAY("It makes the whole look tiny. Leave it out, or move it back in the modelling program."),
        /** The whole model lies far from the origin; amount is how far. */
        FAR_FROM_ORIGIN("So far out, positions are rounded and surfaces tremble. Move it to the origin in the modelling"
                + " program."),
        /** Parts without texture coordinates of their own. */
        NO_COORDINATES("Textures lie on them at real size as they are; plain colours need nothing."),
        /** Sheets whose own texture coordinates lie well; see {@code mapping.EvenCoordinates}. */
        EVEN_COORDINATES("Textures follow them at real size, folds and bends included: nothing is left to do."),
        /** Images with more pixels along a side than a picture can use. */
        OVERSIZE_IMAGE("More than a picture shows, and slow to load. Half the size will look the same."),
        /** Groups that hold no part. */
        EMPTY_GROUP("They are not needed."),
        /** Names of parts or source materials that say nothing. */
        NAMELESS(
                "Names help to find things, and to keep their looks when a newer file comes. Select parts and rename them under"
                        + " “Names of parts”.");

        private final String advice;

        /** What mends it without a doubt; null where somebody has to decide. */
        public Remedy remedy() {
            return switch (this) {
                case FLIPPED -> Remedy.TURN_OUTWARD;
                case DUPLICATE, DEGENERATE -> Remedy.DROP;
                case EMPTY_GROUP -> Remedy.REMOVE_GROUPS;
                default -> null;
            };
        }

        Kind(String advice) {
            this.advice = advice;
        }

        /** Why it matters and what to do, as a sentence or two. */
        public String advice() {
            return advice;
        }
    }
}

package app.zolvan.core.prepare;

import app.zolvan.core.snag.Certainty;
import app.zolvan.core.snag.Fix;
import app.zolvan.core.snag.SnagKind;

/** What can be found in an imported model before it is dressed, in the order in which it is told. */
public enum ModelSnag implements SnagKind {
    /** Edges at which a surface ends although the rest of it closes a body; amount is their length. */
    OPEN(
            Certainty.CERTAIN,
            "An open surface has no inside: no mass, and solid glass or liquid looks wrong in it. Fill its holes under Mending,"
                    + " or close it in the modelling program."),
    /** Edges at which more than two triangles meet. */
    NON_MANIFOLD(Certainty.CERTAIN, "It is not clear what is inside there. Look for a doubled wall or a stray face."),
    /** Triangles that face the other way than their neighbours, or bodies that are inside out. */
    FLIPPED(Certainty.LIKELY, "Seen from their back they can look black, or vanish."),
    /** Triangles that lie in the file more than once. */
    DUPLICATE(Certainty.CERTAIN, "Two faces in one place flicker. Take the second one away under Mending."),
    /** Triangles without an area to speak of. */
    DEGENERATE(Certainty.CERTAIN, "They carry neither light nor texture, and do no harm."),
    /** Faces of two parts in one place; amount is their common area. */
    COINCIDENT(
            Certainty.CERTAIN,
            "Which of the two is seen is a matter of chance. Delete one in the modelling program, or part them a"
                    + " little."),
    /** The tip of the first part comes out of the second; amount is how far. */
    POKING(Certainty.PERHAPS, "If it is not meant to be seen there, move it back by as much under Mending."),
    /** Two bodies that nearly touch; amount is the gap. */
    GAP(Certainty.PERHAPS, "If they are meant to touch, let them: light gets into the gap."),
    /** Parts were not compared with each other: too many triangles lie near other parts. */
    NOT_COMPARED(
            Certainty.CERTAIN,
            "Faces in one place, tips that poke through and gaps are not told for this model. Import it in several"
                    + " files to have them told."),
    /** Parts far away from all others; amount is how far. */
    STRAY(Certainty.LIKELY, "It makes the whole look tiny. Leave it out, or move it back in the modelling program."),
    /** The whole model lies far from the origin; amount is how far. */
    FAR_FROM_ORIGIN(
            Certainty.CERTAIN,
            "So far out, positions are rounded and surfaces tremble. Move it to the origin in the modelling"
                    + " program."),
    /** Parts without texture coordinates of their own. */
    NO_COORDINATES(Certainty.CERTAIN, "Textures lie on them at real size as they are; plain colours need nothing."),
    /** Sheets whose own texture coordinates lie well; see {@code mapping.EvenCoordinates}. */
    EVEN_COORDINATES(
            Certainty.CERTAIN, "Textures follow them at real size, folds and bends included: nothing is left to do."),
    /** Images with more pixels along a side than a picture can use. */
    OVERSIZE_IMAGE(Certainty.CERTAIN, "More than a picture shows, and slow to load. Half the size will look the same."),
    /** Groups that hold no part. */
    EMPTY_GROUP(Certainty.CERTAIN, "They are not needed."),
    /** Names of parts or source materials that say nothing. */
    NAMELESS(
            Certainty.LIKELY,
            "Names help to find things, and to keep their looks when a newer file comes. Select parts and rename them under"
                    + " “Names of parts”.");

    private final Certainty certainty;
    private final String why;

    ModelSnag(Certainty certainty, String why) {
        this.certainty = certainty;
        this.why = why;
    }

    @Override
    public String why() {
        return why;
    }

    @Override
    public Certainty certainty() {
        return certainty;
    }

    /** What mends it without a doubt; null where somebody has to decide. */
    public Fix.OfParts fix() {
        return switch (this) {
            case FLIPPED -> Fix.OfParts.TURN_OUTWARD;
            case DUPLICATE, DEGENERATE -> Fix.OfParts.DROP;
            case EMPTY_GROUP -> Fix.OfParts.REMOVE_GROUPS;
            default -> null;
        };
    }
}

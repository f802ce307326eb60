package app.zolvan.core.exchange;

import app.zolvan.core.model.LengthUnit;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/**
 * One reading of one file: what it may ask for, how much memory it has left, how far it is, what it leaves out, and what
 * the designer has chosen where the file does not say. Not for use by several threads.
 */
public final class Reading {
    private static final int MAX_NOTES = 200;
    private static final String LACKS = "The file refers to “";
    private static final String LACKING = "”, which did not come with it.";

    private final ImportLimits limits;
    private final ModelReader.Progress progress;
    private final LengthUnit chosenUnit;
    private final UpAxis chosenUp;
    private final Set<String> notes = new LinkedHashSet<>();
    private final Set<String> lacking = new LinkedHashSet<>();
    private long held;
    private RuntimeException ended;

    /**
     * @param chosenUnit what the designer says the file's numbers mean, or null to take the file's word or a guess
     * @param chosenUp   likewise for the axis that points up
     */
    public Reading(ImportLimits limits, ModelReader.Progress progress, LengthUnit chosenUnit, UpAxis chosenUp) {
        this.limits = limits;
        this.progress = progress;
        this.chosenUnit = chosenUnit;
        this.chosenUp = chosenUp;
    }

    /** A reading under the standard limits that tells nobody how far it is. */
    public static Reading standard() {
        return new Reading(ImportLimits.STANDARD, ModelReader.Progress.NONE, null, null);
    }

    public ImportLimits limits() {
        return limits;
    }

    public LengthUnit chosenUnit() {
        return chosenUnit;
    }

    public UpAxis chosenUp() {
        return chosenUp;
    }

    /**
     * To be called before arrays of so many bytes are made.
     *
     * @throws ImportException when the reading would hold more than it may
     */
    public void charge(long bytes) throws ImportException {
        if (bytes < 0 || held + bytes > limits.memoryBytes()) {
            throw new ImportException(
                    "too-large",
                    String.format(
                            Locale.ROOT,
                            "The model needs more than %,d MB of memory to read. Export it with a coarser setting, or in"
                                    + " parts.",
                            limits.memoryBytes() >> 20));
        }
        held += bytes;
    }

    /** To be called when charged arrays are let go. */
    public void release(long bytes) {
        held -= bytes;
    }

    public void progress(double share, String step) {
        try {
            progress.at(share, step);
        } catch (RuntimeException e) {
            ended = e;
            throw e;
        }
    }

    /** True for the exception by which whoever follows the progress has ended the reading. */
    public boolean isEndedBy(RuntimeException e) {
        return e == ended;
    }

    /** Keeps a sentence about something that the file holds and Zolvan does not use. */
    public void note(String sentence) {
        if (notes.size() < MAX_NOTES) {
            notes.add(sentence);
        } else {
            notes.add("More was left out than is listed here.");
        }
    }

    /**
     * Keeps that a file which this one refers to did not come along, and notes it.
     *
     * @param reference as the file has it
     */
    public void lack(String reference) {
        String shown = TextNames.shown(reference.replace('\\', '/'), "without a name");
        if (lacking.size() < MAX_NOTES) {
            lacking.add(shown);
        }
        note(lackNote(shown));
    }

    /** The sentence that {@link #notes} has of something in {@link #lacking}. */
    private static String lackNote(String lacking) {
        return LACKS + lacking + LACKING;
    }

    /** Whether a note is a {@link #lackNote}. */
    public static boolean isLackNote(String note) {
        return note.startsWith(LACKS) && note.endsWith(LACKING);
    }

    /** What the file refers to and what did not come along, as it refers to it. */
    public List<String> lacking() {
        return List.copyOf(lacking);
    }

    public List<String> notes() {
        return List.copyOf(notes);
    }

    /** Where notes are kept; for readers that hand them on. */
    public Set<String> noteSet() {
        return notes;
    }

    /** @throws ImportException when a model would have so many triangles in all */
    public void checkTriangles(long triangles) throws ImportException {
        if (triangles > limits.triangles()) {
            throw new ImportException(
                    "too-many-triangles",
                    String.format(
                            Locale.ROOT,
                            "The model has more than %,d triangles. Export it with a coarser setting, or in parts.",
                            limits.triangles()));
        }
    }
}

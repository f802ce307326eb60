package app.zolvan.core.exchange.project;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.archive.ZipArchive;
import app.zolvan.core.exchange.json.JsonValue;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * A project file as a zip: {@value #CONTENTS} (see docs/project-file.md), all bytes that it refers to under {@value #ASSETS} by
 * their SHA-256, small pictures of views under {@value #VIEWS}, and the model as each scheme dresses it under {@value #LOOKS}
 * as glTF, so that it can be looked at without a server. Immutable; sizes are checked before room is made.
 */
public final class ProjectArchive {
    public static final String FORMAT = "zolvan-project";
    /** Of what {@value #CONTENTS} holds; grows when older readers can't understand it. */
    public static final int VERSION = 1;

    public static final String CONTENTS = "project.json";
    public static final String ASSETS = "assets/";
    public static final String VIEWS = "views/";
    public static final String LOOKS = "looks/";
    public static final String ENDING = ".zolvan";

    private final ZipArchive zip;
    private final byte[] contents;
    private final JsonValue json;

    private ProjectArchive(ZipArchive zip, byte[] contents, JsonValue json) {
        this.zip = zip;
        this.contents = contents;
        this.json = json;
    }

    /** True for a zip that says it is a project file. */
    public static boolean is(ByteBuffer bytes, ImportLimits limits) throws ImportException {
        return ZipArchive.looksLikeZip(bytes)
                && ZipArchive.open(bytes, limits).paths().contains(CONTENTS);
    }

    /** @throws ImportException where it is no project file, damaged, or of a newer version */
    public static ProjectArchive open(ByteBuffer bytes, Reading reading) throws ImportException {
        if (!ZipArchive.looksLikeZip(bytes)) {
            throw noProject();
        }
        ZipArchive zip = ZipArchive.open(bytes, reading.limits());
        ByteBuffer contents = zip.open(CONTENTS, reading).orElseThrow(ProjectArchive::noProject);
        byte[] all = new byte[contents.remaining()];
        contents.get(all);
        JsonValue json = JsonValue.parse(all);
        if (!FORMAT.equals(json.text("format", ""))) {
            throw noProject();
        }
        double version = json.number("version", 0);
        if (version > VERSION) {
            throw new ImportException(
                    "newer",
                    "This project file was written by a newer Zolvan. Update Zolvan first, or export it again.");
        }
        return new ProjectArchive(zip, all, json);
    }

    private static ImportException noProject() {
        return new ImportException("no-project", "This is no project file. Choose one that was saved from Zolvan.");
    }

    /** The bytes of {@value #CONTENTS}. */
    public byte[] contents() {
        return contents.clone();
    }

    /** The letters of its schemes, in their order. */
    public List<String> schemes() throws ImportException {
        List<String> letters = new ArrayList<>();
        for (JsonValue letter : json.list("schemes")) {
            letters.add(letter.text());
        }
        return letters;
    }

    /** Bytes under a path; empty where there are none. */
    public Optional<ByteBuffer> open(String path, Reading reading) throws ImportException {
        return zip.open(path, reading);
    }

    /**
     * The model as a scheme dresses it, as GLB.
     *
     * @param letter of the scheme; null for the first
     */
    public ByteBuffer look(String letter, Reading reading) throws ImportException {
        List<String> letters = schemes();
        String wanted = letter == null ? (letters.isEmpty() ? "" : letters.get(0)) : letter;
        return open(LOOKS + wanted + ".glb", reading)
                .orElseThrow(() -> new ImportException(
                        "scheme",
                        "There is no scheme “" + wanted + "” in this project file. It has " + String.join(", ", letters)
                                + "."));
    }
}

package app.zolvan.core.exchange.palette;

import app.zolvan.core.colour.ColourNotation;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Palette;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.colour.Swatch;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.exchange.json.JsonValue;
import java.io.IOException;
import java.io.StringReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVRecord;

/**
 * Open palette files: GPL (lines of three codes and a name), CSV (a name and a colour in any notation, or three codes; with
 * or without a line of titles) and JSON ({@code {"name": …, "swatches": [{"name": …, "colour": …}]}}, or the list alone).
 */
public enum PaletteFile {
    GPL {
        @Override
        Palette parse(String text, String named) throws ImportException {
            String name = named;
            List<Swatch> swatches = new ArrayList<>();
            int line = 0;
            for (String l : text.lines().toList()) {
                line++;
                if (l.startsWith("Name:")) {
                    name = l.substring(5).strip();
                    continue;
                }
                if (l.isBlank() || l.startsWith("#") || l.startsWith("Columns:") || line == 1) {
                    continue;
                }
                Matcher m = GPL_LINE.matcher(l);
                if (!m.matches()) {
                    throw wrong(line, "should be three numbers from 0 to 255 and a name");
                }
                String codes = m.group(1) + " " + m.group(2) + " " + m.group(3);
                add(swatches, m.group(4), codes, line);
            }
            return new Palette(name, swatches);
        }

        @Override
        String text(Palette p) {
            StringBuilder out = new StringBuilder(GPL_TITLE + "\nName: " + oneLine(p.name()) + "\nColumns: 0\n#\n");
            for (Swatch s : p.swatches()) {
                int[] c = Srgb.toCodes(s.colour());
                out.append(String.format(Locale.ROOT, "%3d %3d %3d\t%s\n", c[0], c[1], c[2], oneLine(s.name())));
            }
            return out.toString();
        }
    },
    CSV {
        @Override
        Palette parse(String text, String named) throws ImportException {
            List<Swatch> swatches = new ArrayList<>();
            try {
                for (CSVRecord r : CSVFormat.RFC4180.parse(new StringReader(text))) {
                    int line = (int) r.getRecordNumber();
                    if (r.size() == 1 && r.get(0).isBlank()) {
                        continue;
                    }
                    String colour =
                            r.size() == 2 ? r.get(1) : r.size() >= 4 ? r.get(1) + " " + r.get(2) + " " + r.get(3) : "";
                    boolean title = line == 1 && ColourNotation.parse(colour).isEmpty();
                    if (!title) {
                        add(swatches, r.get(0), colour, line);
                    }
                }
            } catch (IOException | UncheckedIOException | IllegalStateException e) { // what the parser throws
                throw new ImportException(
                        "damaged", "The palette is no CSV: a line's quotation marks don't close. Export it again.", e);
            }
            return new Palette(named, swatches);
        }

        @Override
        String text(Palette p) {
            StringBuilder out = new StringBuilder("name,colour\r\n");
            for (Swatch s : p.swatches()) {
                out.append(CSVFormat.RFC4180.format(s.name(), Srgb.toHex(s.colour())))
                        .append("\r\n");
            }
            return out.toString();
        }
    },
    JSON {
        @Override
        Palette parse(String text, String named) throws ImportException {
            JsonValue json = JsonValue.parse(text.getBytes(StandardCharsets.UTF_8));
            List<JsonValue> entries = json.isObject() ? json.list("swatches") : json.elements();
            List<Swatch> swatches = new ArrayList<>();
            for (int i = 0; i < entries.size(); i++) {
                JsonValue e = entries.get(i);
                add(swatches, e.text("name", ""), e.require("colour").text(), i + 1);
            }
            return new Palette(json.isObject() ? json.text("name", named) : named, swatches);
        }

        @Override
        String text(Palette p) {
            List<Object> swatches = new ArrayList<>();
            for (Swatch s : p.swatches()) {
                Map<String, Object> one = new LinkedHashMap<>();
                one.put("name", s.name());
                one.put("colour", Srgb.toHex(s.colour()));
                swatches.add(one);
            }
            Map<String, Object> all = new LinkedHashMap<>();
            all.put("name", p.name());
            all.put("swatches", swatches);
            return new String(JsonText.utf8(all), StandardCharsets.UTF_8);
        }
    };

    /** The largest file that is read, in bytes. */
    public static final int MOST_BYTES = 1 << 20;

    /** The most swatches that a palette may have. */
    public static final int MOST_SWATCHES = 4096;

    /** The first line that the format asks for. */
    private static final String GPL_TITLE = "GIMP Palette";

    private static final int LONGEST_NAME = 120;
    private static final Pattern GPL_LINE =
            Pattern.compile("\\s*(\\d{1,3})\\s+(\\d{1,3})\\s+(\\d{1,3})(?:\\s+(.*))?", Pattern.DOTALL);

    abstract Palette parse(String text, String named) throws ImportException;

    abstract String text(Palette p);

    public byte[] write(Palette p) {
        return text(p).getBytes(StandardCharsets.UTF_8);
    }

    /** The ending of such files' names, without the dot. */
    public String ending() {
        return name().toLowerCase(Locale.ROOT);
    }

    /**
     * Reads a palette; which format it is, is told by what is in it.
     *
     * @param named the file's name, by which the palette goes where it has none itself
     * @throws ImportException where it is too large, holds no colour, or one that can't be understood
     */
    public static Palette read(byte[] file, String named) throws ImportException {
        if (file.length > MOST_BYTES) {
            throw new ImportException("too-large", "A palette may have at most 1 MB. This is something else.");
        }
        String text = new String(file, StandardCharsets.UTF_8).replace("\uFEFF", "");
        String start = text.strip();
        PaletteFile format =
                start.startsWith(GPL_TITLE) ? GPL : start.startsWith("{") || start.startsWith("[") ? JSON : CSV;
        Palette p = format.parse(text, oneLine(named.replaceFirst("\\.[A-Za-z]{1,5}$", "")));
        if (p.swatches().isEmpty()) {
            throw new ImportException(
                    "empty", "There is no colour in this file. A palette is a GPL, CSV or JSON file.");
        }
        return new Palette(p.name().isEmpty() ? "Palette" : oneLine(p.name()), List.copyOf(p.swatches()));
    }

    private static void add(List<Swatch> swatches, String name, String colour, int line) throws ImportException {
        Optional<LinearRgb> c = ColourNotation.parse(colour);
        if (c.isEmpty()) {
            throw wrong(line, "has no colour: type a hex code or three numbers");
        }
        if (swatches.size() == MOST_SWATCHES) {
            throw new ImportException("too-many", "A palette may have at most 4,096 colours. Take some out.");
        }
        String plain = oneLine(name == null ? "" : name);
        swatches.add(new Swatch(plain.isEmpty() ? Srgb.toHex(c.get()) : plain, c.get()));
    }

    private static ImportException wrong(int line, String what) {
        return new ImportException("damaged", "Line " + line + " of the palette " + what + ".");
    }

    private static String oneLine(String name) {
        String plain = name.replaceAll("\\p{Cc}+", " ").strip();
        return plain.length() > LONGEST_NAME ? plain.substring(0, LONGEST_NAME) : plain;
    }
}

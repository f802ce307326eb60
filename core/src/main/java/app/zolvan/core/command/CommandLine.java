package app.zolvan.core.command;

import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.ModelReader;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.exchange.formats.ModelFormats;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.exchange.project.ProjectArchive;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.measure.PictureDifference;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.SourceImage;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.io.PrintStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * The import engine without server and database: {@code inspect FILE} says what a file holds, {@code convert IN OUT} writes
 * it in the format of OUT's ending. JSON goes to standard output, sentences to standard error.
 */
public final class CommandLine {
    /** Ended well. */
    public static final int DONE = 0;
    /** Our own fault. */
    public static final int OUR_FAULT = 1;
    /** The file or the call is not right. */
    public static final int BAD_INPUT = 2;

    private static final String USAGE = """
            A model may also be a project file, with --scheme LETTER.
            inspect FILE [--unit mm|cm|m|in|ft] [--up X|Y|Z] [--memory MB]
            convert IN OUT [--unit …] [--up …] [--memory MB]
            material FILE [--to OUT.mtlx|.glb|.obj …]
            compare PICTURE OTHER [--to EXAGGERATED.png] [--times N]
            """ + RenderCommand.USAGE;

    private final PrintStream out;
    private final PrintStream err;
    /** The letter of a project file's scheme; null for its first. */
    private String scheme;

    /**
     * @param out what was asked for
     * @param err progress and complaints
     */
    public CommandLine(PrintStream out, PrintStream err) {
        this.out = out;
        this.err = err;
    }

    public static void main(String[] args) {
        System.exit(new CommandLine(System.out, System.err).run(args));
    }

    /** @return the code to exit with */
    public int run(String... args) {
        List<String> plain = new ArrayList<>();
        LengthUnit unit = null;
        UpAxis up = null;
        Path to = null;
        double times = 4;
        ImportLimits limits = ImportLimits.STANDARD;
        RenderCommand render = new RenderCommand();
        try {
            for (int i = 0; i < args.length; i++) {
                switch (args[i]) {
                    case "--unit" -> unit = LengthUnit.ofSymbol(args[++i]);
                    case "--up" -> up = UpAxis.valueOf(args[++i].toUpperCase(Locale.ROOT));
                    case "--memory" -> limits = limits.withMemory(Long.parseLong(args[++i]) << 20);
                    case "--json" -> render.asJson();
                    case "--scheme" -> scheme = args[++i];
                    case "--to" -> to = Path.of(args[++i]);
                    case "--times" -> times = times(args[++i]);
                    default -> {
                        if (args[i].startsWith("--") && render.option(args[i], args[i + 1])) {
                            i++;
                        } else {
                            plain.add(args[i]);
                        }
                    }
                }
            }
        } catch (IllegalArgumentException | ArrayIndexOutOfBoundsException e) {
            err.println("That is not an option with a value that it takes.");
            return usage();
        } catch (IOException e) {
            err.println("The file can’t be read: " + e.getMessage());
            return BAD_INPUT;
        }
        Reading reading = new Reading(limits, ModelReader.Progress.NONE, unit, up);
        try {
            if (plain.size() == 2 && plain.get(0).equals("inspect")) {
                return inspect(Path.of(plain.get(1)), reading);
            }
            if (plain.size() == 2 && plain.get(0).equals("material")) {
                return new MaterialCommand(out, err).run(Path.of(plain.get(1)), to, reading);
            }
            if (plain.size() == 3 && plain.get(0).equals("compare")) {
                return compare(Path.of(plain.get(1)), Path.of(plain.get(2)), to, times);
            }
            if (plain.size() == 2 && plain.get(0).equals("read")) {
                return justRead(Path.of(plain.get(1)), reading);
            }
            if (plain.size() == 3 && plain.get(0).equals("render")) {
                render.run(read(Path.of(plain.get(1)), reading).model(), Path.of(plain.get(2)), out, err);
                return DONE;
            }
            if (plain.size() == 3 && plain.get(0).equals("convert")) {
                return convert(Path.of(plain.get(1)), Path.of(plain.get(2)), reading);
            }
        } catch (ImportException e) {
            err.println(e.getMessage());
            return BAD_INPUT;
        } catch (IOException e) {
            err.println("The file can’t be read or written: " + e.getMessage());
            return BAD_INPUT;
        } catch (OutOfMemoryError e) {
            err.println("There is not enough memory for this file; give more, or set --memory lower.");
            return OUR_FAULT;
        } catch (RuntimeException e) {
            err.println("Something went wrong on our side: " + e);
            for (StackTraceElement place : e.getStackTrace()) {
                err.println("  at " + place);
            }
            return OUR_FAULT;
        }
        return usage();
    }

    private int usage() {
        err.println(USAGE);
        return BAD_INPUT;
    }

    static ByteBuffer map(Path file) throws IOException, ImportException {
        if (!Files.isRegularFile(file)) {
            throw new ImportException("missing", "There is no file “" + file + "”.");
        }
        try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
            if (channel.size() > ImportLimits.STANDARD.fileBytes()) {
                throw new ImportException(
                        "too-large",
                        "The file is larger than " + (ImportLimits.STANDARD.fileBytes() >> 20)
                                + " MB; export it in smaller pieces.");
            }
            return channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size());
        }
    }

    private Arrival read(Path file, Reading reading) throws IOException, ImportException {
        Path folder = file.toAbsolutePath().getParent();
        ByteBuffer bytes = map(file);
        String name = file.getFileName().toString();
        if (ProjectArchive.is(bytes, reading.limits())) {
            bytes = ProjectArchive.open(bytes, reading).look(scheme, reading);
            name += ".glb";
        }
        return ModelFormats.read(name, bytes, new Folder(folder), reading);
    }

    /** Reads and counts, without measuring; for comparing readers. */
    private int justRead(Path file, Reading reading) throws IOException, ImportException {
        Model model = read(file, reading).model();
        long triangles = model.parts().stream()
                .mapToLong(p -> model.meshOf(p).triangleCount())
                .sum();
        out.println("{\"parts\":" + model.parts().size() + ",\"triangles\":" + triangles + ",\"peakHeapMb\":"
                + Inspection.peakHeapMb() + "}");
        return DONE;
    }

    private int inspect(Path file, Reading reading) throws IOException, ImportException {
        long start = System.nanoTime();
        Arrival arrival = read(file, reading);
        double milliseconds = (System.nanoTime() - start) / 1e6;
        Map<String, Object> report = Inspection.of(arrival);
        report.put("milliseconds", Math.round(milliseconds * 10) / 10.0);
        report.put("peakHeapMb", Inspection.peakHeapMb());
        out.write(JsonText.utf8(report), 0, JsonText.utf8(report).length);
        out.println();
        arrival.model().notes().forEach(err::println);
        return DONE;
    }

    private int convert(Path in, Path to, Reading reading) throws IOException, ImportException {
        String name = to.getFileName().toString();
        int dot = name.lastIndexOf('.');
        String ending = name.substring(dot + 1).toLowerCase(Locale.ROOT);
        ModelWriter writer = ModelFormats.writer(ending)
                .orElseThrow(() -> new ImportException(
                        "wrong-type",
                        "There is no format with the ending “" + ending + "” to write. There are: "
                                + String.join(", ", ModelFormats.endings()) + "."));
        Arrival arrival = read(in, reading);
        DressedModel dressed = asArrived(name.substring(0, Math.max(0, dot)), arrival.model());
        writer.losses(dressed).forEach(err::println);
        Path folder = to.toAbsolutePath().getParent();
        writer.write(dressed, name.substring(0, dot), into(folder));
        return DONE;
    }

    private static double times(String text) {
        double times = Double.parseDouble(text);
        if (!(times > 0 && times <= PictureDifference.MOST_TIMES)) {
            throw new IllegalArgumentException(text);
        }
        return times;
    }

    private int compare(Path one, Path other, Path to, double times) throws IOException, ImportException {
        PictureDifference d = PictureDifference.of(bytes(one), bytes(other));
        Map<String, Object> report = new LinkedHashMap<>();
        report.put("same", d.same());
        report.put("mean", d.mean());
        report.put("p95", d.within(0.95));
        report.put("most", d.within(1));
        report.put("word", d.word().words());
        byte[] json = JsonText.utf8(report);
        out.write(json, 0, json.length);
        out.println();
        if (to != null) {
            Files.write(to, d.exaggerated(times));
        }
        return DONE;
    }

    private static byte[] bytes(Path file) throws IOException, ImportException {
        ByteBuffer mapped = map(file);
        byte[] all = new byte[mapped.remaining()];
        mapped.get(all);
        return all;
    }

    /** Writes files below a folder. */
    static ModelWriter.FileSink into(Path folder) {
        return (path, content) -> {
            Path target = folder.resolve(path);
            Files.createDirectories(target.getParent());
            try (OutputStream stream = new BufferedOutputStream(Files.newOutputStream(target))) {
                content.writeTo(stream);
            }
        };
    }

    /** A model that shows what it arrived with. */
    public static DressedModel asArrived(String name, Model model) {
        Look[] looks = model.sources().stream()
                .map(s -> Look.of(s.material(), null, 0, null))
                .toArray(Look[]::new);
        return new DressedModel(
                name,
                model,
                (p, s) -> {
                    int source = model.parts().get(p).sourceOfSpan().get(s);
                    return source == Model.NONE ? null : looks[source];
                },
                digest -> Optional.ofNullable(model.images().get(digest))
                        .map(SourceImage::bytes)
                        .orElse(new byte[0]));
    }

    static String hex(Material m) {
        return Srgb.toHex(m.surface().colour(Parameter.BASE_COLOR).clamped());
    }

    /** The files in a folder and below it, and no others. */
    record Folder(Path root) implements FileSet.Companions {
        private static final int MOST = 20_000;

        @Override
        public List<String> paths() {
            try (var files = Files.walk(root, 4)) {
                return files.filter(Files::isRegularFile)
                        .limit(MOST)
                        .map(f -> root.relativize(f).toString().replace('\\', '/'))
                        .toList();
            } catch (IOException | UncheckedIOException e) {
                return List.of();
            }
        }

        @Override
        public Optional<ByteBuffer> open(String path, Reading reading) throws ImportException {
            Path file = root.resolve(path).normalize();
            try {
                return file.startsWith(root) && Files.isRegularFile(file) ? Optional.of(map(file)) : Optional.empty();
            } catch (IOException e) {
                return Optional.empty();
            }
        }
    }
}

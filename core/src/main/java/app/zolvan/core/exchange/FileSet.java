package app.zolvan.core.exchange;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;

/**
 * A file to import together with those that came with it. References inside the file are looked up only among these:
 * nothing is ever fetched from elsewhere, and a path can't lead out.
 */
public final class FileSet {
    private static final int HEAD = 1024;

    private final String name;
    private final ByteBuffer bytes;
    private final Companions companions;

    /** The files that came along, by slash-separated path. */
    public interface Companions {
        Companions NONE = new Companions() {
            @Override
            public List<String> paths() {
                return List.of();
            }

            @Override
            public Optional<ByteBuffer> open(String path, Reading reading) {
                return Optional.empty();
            }
        };

        List<String> paths();

        /** These, and those beside them that have other paths. */
        default Companions and(Companions others) {
            Companions first = this;
            return others == NONE
                    ? this
                    : new Companions() {
                        @Override
                        public List<String> paths() {
                            return Stream.concat(first.paths().stream(), others.paths().stream())
                                    .distinct()
                                    .toList();
                        }

                        @Override
                        public Optional<ByteBuffer> open(String path, Reading reading) throws ImportException {
                            Optional<ByteBuffer> own = first.open(path, reading);
                            return own.isPresent() ? own : others.open(path, reading);
                        }
                    };
        }

        /** One file. */
        static Companions of(String name, ByteBuffer bytes) {
            return new Companions() {
                @Override
                public List<String> paths() {
                    return List.of(name);
                }

                @Override
                public Optional<ByteBuffer> open(String path, Reading reading) {
                    return path.equals(name) ? Optional.of(bytes) : Optional.empty();
                }
            };
        }

        /** The content at exactly this path. */
        Optional<ByteBuffer> open(String path, Reading reading) throws ImportException;
    }

    /** @param name path of the file among its companions, or its plain name */
    public FileSet(String name, ByteBuffer bytes, Companions companions) {
        this.name = name;
        this.bytes = bytes;
        this.companions = companions;
    }

    public static FileSet of(String name, ByteBuffer bytes) {
        return new FileSet(name, bytes, Companions.NONE);
    }

    public String name() {
        return name;
    }

    /** The whole file, little-endian, from position 0. */
    public ByteBuffer bytes() {
        return bytes.slice().order(ByteOrder.LITTLE_ENDIAN);
    }

    public int size() {
        return bytes.remaining();
    }

    public Companions companions() {
        return companions;
    }

    /** The first bytes as Latin text, for recognising formats. */
    public String head() {
        byte[] head = new byte[Math.min(HEAD, bytes.remaining())];
        bytes.slice().get(head);
        boolean wide = head.length > 1
                && ((head[0] == (byte) 0xFE && head[1] == (byte) 0xFF)
                        || (head[0] == (byte) 0xFF && head[1] == (byte) 0xFE));
        String text = new String(head, wide ? StandardCharsets.UTF_16 : StandardCharsets.ISO_8859_1);
        return text.startsWith("\u00EF\u00BB\u00BF") ? text.substring(3) : text;
    }

    /**
     * The file that a reference means: the path relative to this file, or else the only file of that name, since
     * exporters write paths of their own machine.
     */
    public Optional<ByteBuffer> companion(String reference, Reading reading) throws ImportException {
        String wanted = clean(reference);
        String folder = name.contains("/") ? name.substring(0, name.lastIndexOf('/') + 1) : "";
        String direct = normalise(folder + wanted);
        String last = wanted.substring(wanted.lastIndexOf('/') + 1);
        String byName = null;
        for (String path : companions.paths()) {
            if (path.equals(direct) || path.equals(wanted)) {
                return companions.open(path, reading);
            }
            String own = path.substring(path.lastIndexOf('/') + 1);
            if (byName == null && !last.isEmpty() && own.equalsIgnoreCase(last)) {
                byName = path;
            }
        }
        return byName == null ? Optional.empty() : companions.open(byName, reading);
    }

    private static String clean(String reference) {
        String r = reference.strip().replace('\\', '/');
        if (r.toLowerCase(Locale.ROOT).startsWith("file:")) {
            r = r.substring(5);
        }
        byte[] utf8 = r.getBytes(StandardCharsets.UTF_8);
        byte[] plain = new byte[utf8.length];
        int n = 0;
        for (int i = 0; i < utf8.length; i++) { // %20 and the like
            int high = i + 2 < utf8.length && utf8[i] == '%' ? Character.digit(utf8[i + 1], 16) : -1;
            int low = high >= 0 ? Character.digit(utf8[i + 2], 16) : -1;
            if (low >= 0) {
                plain[n++] = (byte) (16 * high + low);
                i += 2;
            } else {
                plain[n++] = utf8[i];
            }
        }
        return new String(plain, 0, n, StandardCharsets.UTF_8).replaceFirst("^(\\./|/)+", "");
    }

    /** Takes "." and ".." out of a path; what would lead above the top stays at the top. */
    public static String normalise(String path) {
        Deque<String> steps = new ArrayDeque<>();
        for (String step : path.split("/", -1)) {
            if (step.equals("..")) {
                steps.pollLast();
            } else if (!step.isEmpty() && !step.equals(".")) {
                steps.addLast(step);
            }
        }
        return String.join("/", steps);
    }
}

package app.zolvan.core.exchange.archive;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.Reading;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.CharBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.zip.CRC32;
import java.util.zip.DataFormatException;
import java.util.zip.Inflater;

/**
 * A zip archive read from memory by its central directory (PKWARE APPNOTE 6.3.10, sections 4.3 and 4.4): stored and
 * deflated entries, no encryption, no ZIP64, nothing ever written to disk. The size an entry claims is checked before
 * room is made for it, and it can't unpack to more than that.
 */
public final class ZipArchive implements FileSet.Companions {
    private static final int END = 0x06054b50;
    private static final int DIRECTORY = 0x02014b50;
    private static final int LOCAL = 0x04034b50;
    private static final int END_LENGTH = 22;
    private static final int LONGEST_COMMENT = 65535;
    private static final int STORED = 0;
    private static final int DEFLATED = 8;
    /** Deflate can't pack more tightly than about 1032 to 1. */
    private static final long DENSEST = 1040;

    private final ByteBuffer file;
    private final Map<String, Entry> entries = new LinkedHashMap<>();

    private record Entry(int method, int crc, long packed, long size, long localHeader) {}

    private ZipArchive(ByteBuffer file) {
        this.file = file;
    }

    public static boolean looksLikeZip(ByteBuffer file) {
        return file.remaining() >= 4
                && file.slice().order(ByteOrder.LITTLE_ENDIAN).getInt(0) == LOCAL;
    }

    public static ZipArchive open(ByteBuffer bytes, ImportLimits limits) throws ImportException {
        ZipArchive archive = new ZipArchive(bytes.slice().order(ByteOrder.LITTLE_ENDIAN));
        archive.readDirectory(limits);
        return archive;
    }

    private void readDirectory(ImportLimits limits) throws ImportException {
        int end = findEnd();
        int count = file.getShort(end + 10) & 0xFFFF;
        long at = Integer.toUnsignedLong(file.getInt(end + 16));
        if (at == 0xFFFFFFFFL || count == 0xFFFF) {
            throw new ImportException(
                    "unsupported",
                    "The zip archive is in the large form (ZIP64), which Zolvan does not read. Pack fewer or smaller"
                            + " files.");
        }
        if (count > limits.entries()) {
            throw new ImportException(
                    "too-large",
                    String.format(
                            Locale.ROOT,
                            "The zip archive holds %,d files; Zolvan takes up to %,d. Pack only the model and its"
                                    + " textures.",
                            count,
                            limits.entries()));
        }
        for (int i = 0; i < count; i++) {
            if (at + 46 > end || file.getInt((int) at) != DIRECTORY) {
                throw damaged("its list of files is cut off");
            }
            int p = (int) at;
            int nameLength = file.getShort(p + 28) & 0xFFFF;
            long next = at + 46 + nameLength + (file.getShort(p + 30) & 0xFFFF) + (file.getShort(p + 32) & 0xFFFF);
            if (next > end) {
                throw damaged("its list of files is cut off");
            }
            String name = name(file.slice(p + 46, nameLength));
            boolean encrypted = (file.getShort(p + 8) & 1) != 0;
            Entry entry = new Entry(
                    encrypted ? -1 : file.getShort(p + 10) & 0xFFFF,
                    file.getInt(p + 16),
                    Integer.toUnsignedLong(file.getInt(p + 20)),
                    Integer.toUnsignedLong(file.getInt(p + 24)),
                    Integer.toUnsignedLong(file.getInt(p + 42)));
            if (!name.isEmpty() && !name.endsWith("/")) {
                entries.putIfAbsent(name, entry);
            }
            at = next;
        }
    }

    private int findEnd() throws ImportException {
        int last = file.remaining() - END_LENGTH;
        for (int p = last; p >= 0 && p >= last - LONGEST_COMMENT; p--) {
            if (file.getInt(p) == END) {
                return p;
            }
        }
        throw damaged("its end is missing");
    }

    /** A path without a way out of the archive: no drive, no leading slash, no "..". */
    private static String name(ByteBuffer raw) {
        String name;
        try {
            CharBuffer chars = StandardCharsets.UTF_8.newDecoder().decode(raw.duplicate());
            name = chars.toString();
        } catch (CharacterCodingException e) {
            byte[] bytes = new byte[raw.remaining()];
            raw.duplicate().get(bytes);
            name = new String(bytes, StandardCharsets.ISO_8859_1);
        }
        boolean folder = name.endsWith("/") || name.endsWith("\\");
        String path = FileSet.normalise(name.replace('\\', '/'));
        return folder ? path + "/" : path;
    }

    @Override
    public List<String> paths() {
        return new ArrayList<>(entries.keySet());
    }

    private int start(String path, Entry e) throws ImportException {
        long h = e.localHeader;
        if (h + 30 > file.remaining() || file.getInt((int) h) != LOCAL) {
            throw damaged("“" + path + "” is not where its list says");
        }
        long start = h + 30 + (file.getShort((int) h + 26) & 0xFFFF) + (file.getShort((int) h + 28) & 0xFFFF);
        if (start + e.packed > file.remaining()) {
            throw damaged("“" + path + "” is cut off");
        }
        return (int) start;
    }

    @Override
    public Optional<ByteBuffer> open(String path, Reading reading) throws ImportException {
        Entry e = entries.get(path);
        if (e == null) {
            return Optional.empty();
        }
        int start = start(path, e);
        if (e.method == STORED) {
            if (e.size != e.packed) {
                throw damaged("“" + path + "” has two different sizes");
            }
            return Optional.of(checked(path, e, file.slice(start, (int) e.size)));
        }
        if (e.method != DEFLATED) {
            throw new ImportException(
                    "unsupported",
                    "“" + path + "” in the zip archive is "
                            + (e.method < 0 ? "protected by a password" : "packed in a way Zolvan does not read")
                            + ". Pack it again as a plain zip.");
        }
        if (e.size > reading.limits().fileBytes() || e.size > e.packed * DENSEST + 64) {
            throw new ImportException(
                    "too-large",
                    String.format(
                            Locale.ROOT,
                            "“%s” in the zip archive claims to unpack to %,d MB. Pack it again, or take it out.",
                            path,
                            e.size >> 20));
        }
        reading.charge(e.size);
        return Optional.of(checked(path, e, inflate(path, file.slice(start, (int) e.packed), (int) e.size)));
    }

    private static ByteBuffer checked(String path, Entry e, ByteBuffer content) throws ImportException {
        CRC32 crc = new CRC32();
        crc.update(content.slice());
        if ((int) crc.getValue() != e.crc) {
            throw damaged("“" + path + "” is not what was packed (its checksum differs)");
        }
        return content.order(ByteOrder.LITTLE_ENDIAN);
    }

    private static ByteBuffer inflate(String path, ByteBuffer packed, int size) throws ImportException {
        byte[] out = new byte[size];
        Inflater inflater = new Inflater(true);
        try {
            inflater.setInput(packed);
            int n = 0;
            while (n < size) {
                int got = inflater.inflate(out, n, size - n);
                if (got == 0 && (inflater.finished() || inflater.needsInput() || inflater.needsDictionary())) {
                    break;
                }
                n += got;
            }
            boolean more = !inflater.finished() && inflater.inflate(new byte[1]) > 0;
            if (n < size || more) {
                throw damaged("“" + path + "” does not have the size it claims");
            }
        } catch (DataFormatException e) {
            throw damaged("“" + path + "” can’t be unpacked");
        } finally {
            inflater.end();
        }
        return ByteBuffer.wrap(out);
    }

    private static ImportException damaged(String how) {
        return new ImportException(
                "damaged-archive", "The zip archive is damaged: " + how + ". Pack or export it again.");
    }
}

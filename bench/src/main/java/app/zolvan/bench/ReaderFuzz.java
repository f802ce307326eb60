package app.zolvan.bench;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.ModelReader;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.archive.ZipArchive;
import app.zolvan.core.exchange.formats.ModelFormats;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.zip.CRC32;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * Damages valid files in seeded ways and reads them: each must be read, or refused with a sentence, within the memory it
 * may use and without standing still. Inside archives the entries are damaged, not only the archive.
 */
public final class ReaderFuzz {
    /** What a reader may hold at once here. */
    public static final long MEMORY = 64L << 20;

    private static final long LONGEST_NANOS = 10_000_000_000L;
    private static final String[] EXTREMES = {
        "-1",
        "0",
        "1e99",
        "NaN",
        "inf",
        "-inf",
        "1e-99",
        "4294967295",
        "2147483647",
        "-2147483648",
        "99999999999999999999",
        "",
        "/",
        "//",
        "#",
        "\\",
        "\"",
        "<",
        ">",
        "&",
        "%s",
        "../../../etc/passwd",
        "http://127.0.0.1/x.png",
        "\u0000"
    };

    private ReaderFuzz() {}

    /** What came of a number of damaged files. */
    public record Outcome(String form, int read, int refused, double slowestMs) {}

    /** @throws AssertionError when a reader fails otherwise than with a sentence */
    public static Outcome run(String form, byte[] valid, int count, long seed) {
        int read = 0;
        int refused = 0;
        long slowest = 0;
        for (int i = 0; i < count; i++) {
            byte[] bytes = damage(valid, new Random(seed + i));
            Reading reading =
                    new Reading(ImportLimits.STANDARD.withMemory(MEMORY), ModelReader.Progress.NONE, null, null);
            long start = System.nanoTime();
            try {
                ModelFormats.read("sample", ByteBuffer.wrap(bytes), FileSet.Companions.NONE, reading);
                read++;
            } catch (ImportException e) {
                refused++;
                if (!e.getMessage().endsWith(".") || e.getMessage().length() < 20) {
                    throw new AssertionError(form + ", seed " + (seed + i) + ": no sentence: " + e.getMessage());
                }
            } catch (RuntimeException | StackOverflowError | OutOfMemoryError e) {
                throw new AssertionError(form + ", seed " + (seed + i) + ": " + e, e);
            }
            long took = System.nanoTime() - start;
            slowest = Math.max(slowest, took);
            if (took > LONGEST_NANOS) {
                throw new AssertionError(form + ", seed " + (seed + i) + " took " + took / 1_000_000 + " ms");
            }
        }
        return new Outcome(form, read, refused, slowest / 1e6);
    }

    static byte[] damage(byte[] valid, Random random) {
        if (ZipArchive.looksLikeZip(ByteBuffer.wrap(valid)) && random.nextInt(4) > 0) {
            return damageInside(valid, random);
        }
        byte[] out = valid;
        for (int times = 1 + random.nextInt(3); times > 0; times--) {
            out = once(out, random);
        }
        return out;
    }

    private static byte[] damageInside(byte[] valid, Random random) {
        Reading reading = Reading.standard();
        try {
            ZipArchive archive = ZipArchive.open(ByteBuffer.wrap(valid), reading.limits());
            List<String> paths = archive.paths();
            String victim = paths.get(random.nextInt(paths.size()));
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ZipOutputStream zip = new ZipOutputStream(out);
            boolean stored = random.nextBoolean();
            for (String path : paths) {
                ByteBuffer content = archive.open(path, reading).orElseThrow();
                byte[] bytes = new byte[content.remaining()];
                content.get(bytes);
                if (path.equals(victim)) {
                    bytes = once(bytes, random);
                }
                ZipEntry entry = new ZipEntry(path);
                if (stored) {
                    CRC32 crc = new CRC32();
                    crc.update(bytes);
                    entry.setMethod(ZipEntry.STORED);
                    entry.setSize(bytes.length);
                    entry.setCrc(crc.getValue());
                }
                zip.putNextEntry(entry);
                zip.write(bytes);
                zip.closeEntry();
            }
            zip.finish();
            return out.toByteArray();
        } catch (ImportException e) {
            throw new IllegalStateException(e);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static byte[] once(byte[] in, Random random) {
        if (in.length < 2) {
            return in;
        }
        int at = random.nextInt(in.length);
        int length = 1 + random.nextInt(Math.min(64, in.length - at));
        return switch (random.nextInt(8)) {
            case 0 -> { // flip bits
                byte[] out = in.clone();
                for (int k = 1 + random.nextInt(8); k > 0; k--) {
                    out[random.nextInt(out.length)] ^= (byte) (1 << random.nextInt(8));
                }
                yield out;
            }
            case 1 -> Arrays.copyOf(in, at); // cut off
            case 2 -> join(in, at, new byte[0], at + length); // take out
            case 3 -> join(in, at, Arrays.copyOfRange(in, at, at + length), at); // repeat
            case 4 -> { // noise
                byte[] noise = new byte[length];
                random.nextBytes(noise);
                yield join(in, at, noise, at + length);
            }
            case 5 -> { // an absurd number where four bytes stand
                byte[] out = in.clone();
                ByteBuffer.wrap(out).put(at, new byte[Math.min(4, out.length - at)]);
                Arrays.fill(out, at, Math.min(out.length, at + 4), (byte) (random.nextBoolean() ? 0xFF : 0x7F));
                yield out;
            }
            default -> { // another word
                int[] word = word(in, at);
                byte[] other = EXTREMES[random.nextInt(EXTREMES.length)].getBytes(StandardCharsets.UTF_8);
                yield join(in, word[0], other, word[1]);
            }
        };
    }

    private static int[] word(byte[] in, int at) {
        int from = at;
        int to = at;
        while (from > 0 && isWord(in[from - 1]) && at - from < 40) {
            from--;
        }
        while (to < in.length && isWord(in[to]) && to - at < 40) {
            to++;
        }
        return new int[] {from, to};
    }

    private static boolean isWord(byte b) {
        return Character.isLetterOrDigit(b & 0x7F) || b == '.' || b == '-' || b == '_';
    }

    private static byte[] join(byte[] in, int to, byte[] middle, int from) {
        byte[] out = new byte[to + middle.length + in.length - from];
        System.arraycopy(in, 0, out, 0, to);
        System.arraycopy(middle, 0, out, to, middle.length);
        System.arraycopy(in, from, out, to + middle.length, in.length - from);
        return out;
    }

    /** @param args how many damaged files of each form (20,000 when not given) */
    public static void main(String[] args) {
        int count = args.length > 0 ? Integer.parseInt(args[0]) : 20_000;
        for (Map.Entry<String, byte[]> sample : SampleFiles.all().entrySet()) {
            Outcome o = run(sample.getKey(), sample.getValue(), count, 1);
            System.out.printf(
                    "%-16s %,7d read %,7d refused, slowest %.0f ms%n", o.form, o.read, o.refused, o.slowestMs);
        }
    }
}

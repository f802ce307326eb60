package app.zolvan.core.importing;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelReader.Progress;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.Serializable;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.concurrent.TimeUnit;

/**
 * A running import process: no file can take more memory or time than it has, nor anything else down with it. Not for use
 * by several threads. After a failure that was not the file's own it is of no more use.
 */
public final class ImportProcess implements AutoCloseable {
    private static final int LONGEST_TEXT = 1 << 20;

    private final Process process;
    private final DataInputStream in;
    private final DataOutputStream out;
    private final long megabytes;
    private int tasks;
    private boolean failed;

    private ImportProcess(Process process, long megabytes) {
        this.process = process;
        this.megabytes = megabytes;
        this.in = Frames.in(process.getInputStream());
        this.out = Frames.out(process.getOutputStream());
    }

    /**
     * @param launch    the JVM's executable and where it finds this class, such as {@code java -cp …}
     * @param megabytes of heap
     * @param log       file that what the process prints is added to
     */
    public static ImportProcess start(List<String> launch, String mainClass, long megabytes, Path log)
            throws IOException {
        List<String> command = new ArrayList<>(launch.subList(0, 1));
        command.add("-Xmx" + megabytes + "m");
        command.addAll(List.of(
                "-XX:+UseSerialGC",
                "-XX:+ExitOnOutOfMemoryError",
                "-XX:+DisplayVMOutputToStderr",
                "-Djava.awt.headless=true"));
        command.addAll(launch.subList(1, launch.size()));
        command.add(mainClass);
        Process process = new ProcessBuilder(command)
                .redirectError(ProcessBuilder.Redirect.appendTo(log.toFile()))
                .start();
        return new ImportProcess(process, megabytes);
    }

    /** Count of the tasks it has taken. */
    public int tasks() {
        return tasks;
    }

    /** True while another task may be given to it. */
    public boolean isUsable() {
        return !failed && process.isAlive();
    }

    /**
     * Has a task done.
     *
     * @param progress may throw to call it off; the process is ended then
     * @param longest  that it may take
     * @throws ImportException where the file can't be read, or takes more memory or time than there is
     */
    public <R extends Serializable> R run(ImportTask<R> task, Progress progress, Duration longest)
            throws ImportException, IOException {
        tasks++;
        boolean done = false;
        try {
            Frames.write(out, task);
            R result = answer(task, progress, Instant.now().plus(longest), longest);
            done = true;
            return result;
        } catch (ImportException e) {
            done = isUsable();
            throw e;
        } catch (EOFException e) {
            throw died(e);
        } finally {
            failed = !done;
            if (failed) {
                process.destroyForcibly();
            }
        }
    }

    @SuppressWarnings("unchecked") // the other end answers a task with what the task makes
    private <R extends Serializable> R answer(ImportTask<R> task, Progress progress, Instant deadline, Duration longest)
            throws ImportException, IOException {
        while (true) {
            switch (in.readByte()) {
                case Frames.PROGRESS -> {
                    double share = in.readDouble();
                    progress.at(share, text());
                    if (Instant.now().isAfter(deadline)) {
                        failed = true;
                        process.destroyForcibly();
                        throw new ImportException(
                                "too-long",
                                "Reading this file took longer than " + longest.toMinutes()
                                        + " minutes and was ended. Export it with a coarser setting, or in parts.");
                    }
                }
                case Frames.RESULT -> {
                    return (R) Frames.read(in);
                }
                case Frames.REFUSAL -> throw new ImportException(in.readUTF(), text());
                case Frames.FAULT -> throw new IOException(task + " failed in its process: " + text());
                default -> throw new IOException("an import's process speaks nonsense");
            }
        }
    }

    private String text() throws IOException {
        int length = in.readInt();
        if (length < 0 || length > LONGEST_TEXT) {
            throw new IOException("an import's process speaks nonsense");
        }
        return new String(in.readNBytes(length), StandardCharsets.UTF_8);
    }

    private ImportException died(EOFException e) {
        return new ImportException(
                "too-large",
                String.format(
                        Locale.ROOT,
                        "Reading this file took more memory than an import may (%,d MB), or stopped short. Export it with a"
                                + " coarser setting, or in parts.",
                        megabytes),
                e);
    }

    @Override
    public void close() throws IOException {
        try {
            out.close();
            if (!process.waitFor(1, TimeUnit.SECONDS)) {
                process.destroyForcibly();
            }
        } catch (InterruptedException e) {
            process.destroyForcibly();
            Thread.currentThread().interrupt();
        } catch (IOException e) {
            process.destroyForcibly();
            throw e;
        }
    }
}

package app.zolvan.server;

import java.time.Duration;
import java.util.Collection;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;

/** Lines of a browser's stream of events, in the order in which they came. */
final class EventStream {
    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private final BlockingQueue<String> lines;
    private final CompletableFuture<Void> reading;

    EventStream(BlockingQueue<String> lines, CompletableFuture<Void> reading) {
        this.lines = lines;
        this.reading = reading;
    }

    /** The next line that holds the text; those before it are dropped. Fails when none comes. */
    String next(String text) throws InterruptedException {
        return next(text, PATIENCE);
    }

    String next(String text, Duration within) throws InterruptedException {
        long end = System.nanoTime() + within.toNanos();
        String line;
        do {
            line = lines.poll(end - System.nanoTime(), TimeUnit.NANOSECONDS);
        } while (line != null && !line.contains(text));
        if (line == null) {
            throw new AssertionError(
                    "no event told of “" + text + "”" + (reading.isDone() ? "; the stream ended" : ""));
        }
        return line;
    }

    /** Waits for the end of the stream; fails when it goes on. */
    void ends() throws InterruptedException {
        try {
            reading.get(PATIENCE.toSeconds(), TimeUnit.SECONDS);
        } catch (ExecutionException | TimeoutException e) {
            throw new AssertionError("the stream did not end well", e);
        }
    }

    /** Lines that came and were not asked for yet. */
    Collection<String> unread() {
        return lines;
    }

    boolean failed() {
        return reading.isCompletedExceptionally();
    }
}

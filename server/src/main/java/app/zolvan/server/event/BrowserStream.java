package app.zolvan.server.event;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.concurrent.Executor;
import java.util.concurrent.RejectedExecutionException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/**
 * One browser's stream of events. Events wait in a bounded queue and are written by a worker, so that a browser that does not
 * read keeps nobody else waiting; where the queue is full the stream ends, and the page looks what it has missed when it
 * opens the next one.
 */
final class BrowserStream {
    private static final Logger LOG = LoggerFactory.getLogger(BrowserStream.class);
    private static final int MOST_WAITING = 200;

    private final SseEmitter emitter;
    private final Executor workers;
    private final Deque<SseEmitter.SseEventBuilder> waiting = new ArrayDeque<>();
    private boolean writing;
    private boolean ended;

    BrowserStream(SseEmitter emitter, Executor workers) {
        this.emitter = emitter;
        this.workers = workers;
    }

    synchronized void tell(SseEmitter.SseEventBuilder event) {
        if (ended) {
            return;
        }
        if (waiting.size() == MOST_WAITING) {
            end();
            return;
        }
        waiting.add(event);
        if (!writing) {
            try {
                workers.execute(this::write);
                writing = true;
            } catch (RejectedExecutionException e) {
                end();
            }
        }
    }

    synchronized boolean hasEnded() {
        return ended;
    }

    /** Ends the stream once what is being written is; what waits is dropped. */
    synchronized void end() {
        ended = true;
        waiting.clear();
        if (!writing) {
            complete(null);
        }
    }

    private void write() {
        for (SseEmitter.SseEventBuilder event = next(); event != null; event = next()) {
            try {
                emitter.send(event);
            } catch (IOException | IllegalStateException e) {
                synchronized (this) {
                    ended = true;
                    waiting.clear();
                }
                complete(e);
            }
        }
    }

    /** The next event to be written; null where none waits, and nobody writes from then on. */
    private synchronized SseEmitter.SseEventBuilder next() {
        SseEmitter.SseEventBuilder event = waiting.poll();
        if (event == null) {
            writing = false;
            if (ended) {
                complete(null);
            }
        }
        return event;
    }

    private void complete(Exception why) {
        try {
            if (why == null) {
                emitter.complete();
            } else {
                emitter.completeWithError(why);
            }
        } catch (IllegalStateException e) {
            LOG.debug("the web server had ended a stream by itself", e);
        }
    }
}

package app.zolvan.server.event;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

class BrowserStreamTest {

    /** A web server that has noticed the end of a stream by itself refuses to be told of it. */
    @Test
    void aStreamThatHasEndedByItselfIsNotWrittenToAgain() {
        List<String> tried = new ArrayList<>();
        BrowserStream gone = new BrowserStream(
                new SseEmitter() {
                    @Override
                    public void send(SseEventBuilder event) throws IOException {
                        tried.add("once");
                        throw new IOException("broken pipe");
                    }

                    @Override
                    public void completeWithError(Throwable why) {
                        throw new IllegalStateException("not allowed any more");
                    }
                },
                Runnable::run);
        for (int i = 0; i < 2; i++) {
            gone.tell(SseEmitter.event().comment("beat"));
        }
        assertThat(tried).containsExactly("once");
        assertThat(gone.hasEnded()).isTrue();
    }

    @Test
    void whoDoesNotReadKeepsNobodyWaitingAndLosesTheStreamInTheEnd() throws InterruptedException {
        CountDownLatch reads = new CountDownLatch(1);
        CountDownLatch ended = new CountDownLatch(1);
        BlockingQueue<String> heard = new LinkedBlockingQueue<>();
        ExecutorService workers = Executors.newCachedThreadPool();
        BrowserStream stuck = new BrowserStream(
                new SseEmitter() {
                    @Override
                    public void send(SseEventBuilder event) {
                        await(reads);
                    }

                    @Override
                    public void complete() {
                        ended.countDown();
                    }
                },
                workers);
        BrowserStream other = new BrowserStream(
                new SseEmitter() {
                    @Override
                    public void send(SseEventBuilder event) {
                        heard.add("told");
                    }
                },
                workers);
        try {
            for (int i = 0; i < 300; i++) {
                stuck.tell(SseEmitter.event().comment("beat"));
            }
            other.tell(SseEmitter.event().comment("beat"));
            assertThat(heard.poll(20, TimeUnit.SECONDS)).isEqualTo("told");
            assertThat(stuck.hasEnded()).as("more waits than is kept").isTrue();
            reads.countDown();
            assertThat(ended.await(20, TimeUnit.SECONDS)).isTrue();
        } finally {
            reads.countDown();
            workers.shutdownNow();
        }
    }

    private static void await(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}

package app.zolvan.server.render;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** One queue for all pictures: what is urgent first, and no account before all others. */
@Timeout(30)
class RenderQueueTest {
    private static final UUID ADA = new UUID(0, 1);
    private static final UUID BEN = new UUID(0, 2);

    private final RenderQueue queue = new RenderQueue(new Cores(2));
    private final List<String> order = new CopyOnWriteArrayList<>();
    private final BlockingQueue<String> finished = new LinkedBlockingQueue<>();

    @AfterEach
    void stop() {
        queue.stop();
    }

    /** A picture that takes so many turns, each of them as long as it may last; or one that is done at once. */
    private class Fake implements Picture {
        private final String name;
        private final UUID account;
        private final Rank rank;
        private int turns;

        Fake(String name, UUID account, Rank rank, int turns) {
            this.name = name;
            this.account = account;
            this.rank = rank;
            this.turns = turns;
        }

        @Override
        public Object key() {
            return name;
        }

        @Override
        public Set<UUID> accounts() {
            return Set.of(account);
        }

        @Override
        public Rank rank() {
            return rank;
        }

        @Override
        public boolean work(Turn turn) {
            order.add(name);
            while (turns > 0) {
                if (turn.isOver()) {
                    turns--;
                    return true;
                }
                Thread.onSpinWait();
            }
            finished.add(name);
            return false;
        }
    }

    /** Keeps the queue busy until it is let go. */
    private CountDownLatch busy() throws InterruptedException {
        CountDownLatch began = new CountDownLatch(1);
        CountDownLatch go = new CountDownLatch(1);
        queue.add(new Fake("busy", new UUID(0, 9), Picture.Rank.FIRST, 0) {
            @Override
            public boolean work(Turn turn) {
                began.countDown();
                try {
                    go.await();
                } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                }
                return false;
            }
        });
        began.await();
        return go;
    }

    private void awaitFinished(int count) throws InterruptedException {
        for (int i = 0; i < count; i++) {
            assertThat(finished.poll(20, TimeUnit.SECONDS)).isNotNull();
        }
    }

    @Test
    void whatThereIsNothingOfYetGoesFirstAndTheNewestOfAnAccountsOwn() throws InterruptedException {
        CountDownLatch go = busy();
        queue.add(new Fake("still", ADA, Picture.Rank.STILL, 0));
        queue.add(new Fake("chip 1", ADA, Picture.Rank.CHIP, 0));
        queue.add(new Fake("chip 2", ADA, Picture.Rank.CHIP, 0));
        queue.add(new Fake("proof", ADA, Picture.Rank.FIRST, 0));
        go.countDown();
        awaitFinished(4);
        assertThat(order).containsExactly("proof", "chip 2", "chip 1", "still");
    }

    @Test
    void aPictureAskedForTwiceIsMadeOnce() throws InterruptedException {
        CountDownLatch go = busy();
        queue.add(new Fake("chip", ADA, Picture.Rank.CHIP, 0));
        queue.add(new Fake("chip", BEN, Picture.Rank.CHIP, 0));
        queue.add(new Fake("gone", BEN, Picture.Rank.CHIP, 0));
        queue.remove("gone");
        go.countDown();
        awaitFinished(1);
        assertThat(order).containsExactly("chip");
    }

    @Test
    void aLongStillGivesWayToAChipAtOnce() throws InterruptedException {
        queue.add(new Fake("still", ADA, Picture.Rank.STILL, 1));
        while (order.isEmpty()) {
            Thread.onSpinWait();
        }
        queue.add(new Fake("chip", ADA, Picture.Rank.CHIP, 0));
        assertThat(finished.poll(1, TimeUnit.SECONDS)).isEqualTo("chip");
        queue.add(new Fake("another", ADA, Picture.Rank.CHIP, 0));
        awaitFinished(1);
    }

    @Test
    void nobodysLongPicturesKeepAnotherAccountWaiting() throws InterruptedException {
        queue.add(new Fake("Ada's first", ADA, Picture.Rank.STILL, 1));
        while (order.isEmpty()) {
            Thread.onSpinWait();
        }
        queue.add(new Fake("Ada's second", ADA, Picture.Rank.STILL, 0));
        queue.add(new Fake("Ben's", BEN, Picture.Rank.STILL, 0));
        assertThat(finished.poll(10, TimeUnit.SECONDS))
                .as("though Ada asked before")
                .isEqualTo("Ben's");
        assertThat(finished.poll(10, TimeUnit.SECONDS)).isEqualTo("Ada's second");
    }

    @Test
    void nothingIsPassedOverForLong() throws InterruptedException {
        queue.add(new Fake("proof", ADA, Picture.Rank.PROOF, 0));
        awaitFinished(1);
        CountDownLatch go = busy();
        queue.add(new Fake("another proof", ADA, Picture.Rank.PROOF, 0));
        for (int i = 0; i < 40; i++) {
            queue.add(new Slow("chip " + i));
        }
        go.countDown();
        awaitFinished(41);
        assertThat(order.indexOf("another proof")).isBetween(10, 38);
    }

    /** A chip that takes a fifth of a second. */
    private final class Slow extends Fake {
        Slow(String name) {
            super(name, BEN, Picture.Rank.CHIP, 0);
        }

        @Override
        public boolean work(Turn turn) {
            long end = System.nanoTime() + 200_000_000;
            while (System.nanoTime() < end) {
                Thread.onSpinWait();
            }
            return super.work(turn);
        }
    }
}

package app.zolvan.server.render;

import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Component;

/**
 * Queue of everything that this process traces, one picture at a time with all cores that are free. Pictures of which there is
 * nothing yet go first; among equals the account that was served least in the last minutes, and of its own what was asked for last. A picture
 * that is being made finer gives way to more urgent ones at once and to other accounts after a while, and goes on later; none
 * is passed over for long.
 */
@Component
public class RenderQueue {
    private static final Logger LOG = LoggerFactory.getLogger(RenderQueue.class);
    private static final int MOST_WAITING = 500;
    /** Longest turn while another account waits for work of the same rank, in ns. */
    private static final long LONGEST_TURN = 2_000_000_000L;
    /** Time after which only half of what an account was served still counts, in ns. */
    private static final double HALF_LIFE = 120e9;
    /** After so long without a turn a picture gets one although more urgent ones wait, in ns. */
    private static final long PATIENCE = 4_000_000_000L;
    /** Accounts whose service differs by less are served alike, in ns. */
    private static final double ALIKE = 100e6;

    private final Cores cores;
    private final List<Waiting> waiting = new ArrayList<>();
    private final Map<UUID, Served> served = new HashMap<>();
    private final Thread tracer;
    private Waiting present;
    private long began;
    private long asked;
    private boolean ended;
    /** True where the present picture has its turn because it had none for long. */
    private boolean isExtra;

    RenderQueue(Cores cores) {
        this.cores = cores;
        this.tracer = new Thread(this::traceAll, "pictures");
        tracer.setDaemon(true);
        tracer.start();
    }

    /** @param since when it was asked for or had its last turn */
    private record Waiting(Picture picture, long number, long since) {}

    /** Time that an account was served, in ns, as of a moment. */
    private record Served(double time, long at) {
        double now(long moment) {
            return time * Math.pow(0.5, (moment - at) / HALF_LIFE);
        }
    }

    /**
     * Asks for a picture; one of the same thing that waits already is replaced.
     *
     * @return false where too many wait: it has to be asked for again later
     */
    public synchronized boolean add(Picture picture) {
        waiting.removeIf(w -> w.picture.key().equals(picture.key()));
        if (waiting.size() >= MOST_WAITING) {
            return false;
        }
        waiting.add(new Waiting(picture, asked++, System.nanoTime()));
        notifyAll();
        return true;
    }

    /** Takes back what was asked for; the picture that is worked on has to end itself. */
    public synchronized void remove(Object key) {
        waiting.removeIf(w -> w.picture.key().equals(key));
    }

    private void traceAll() {
        while (true) {
            try {
                Waiting next = next();
                try (Cores.Share share = cores.forPicture()) {
                    begin();
                    work(next, share.count());
                }
            } catch (InterruptedException e) {
                return;
            }
        }
    }

    private synchronized Waiting next() throws InterruptedException {
        while (waiting.isEmpty()) {
            wait();
        }
        long now = System.nanoTime();
        Waiting best = waiting.stream()
                .min(Comparator.comparing((Waiting w) -> w.picture.rank())
                        .thenComparingDouble(w -> Math.floor(served(w.picture, now) / ALIKE))
                        .thenComparing(Comparator.comparingLong(Waiting::number).reversed()))
                .orElseThrow();
        Picture.Rank rank = best.picture.rank();
        Waiting passedOver = waiting.stream()
                .filter(w -> w.picture.rank().compareTo(rank) > 0 && now - w.since > PATIENCE)
                .min(Comparator.comparing((Waiting w) -> w.picture.rank()).thenComparing(Waiting::since))
                .orElse(null);
        isExtra = passedOver != null && rank != Picture.Rank.FIRST;
        present = isExtra ? passedOver : best;
        waiting.remove(present);
        return present;
    }

    private synchronized void begin() {
        began = System.nanoTime();
    }

    /** Time that the least served of those who wait for a picture was served, in ns. */
    private double served(Picture picture, long now) {
        return picture.accounts().stream()
                .mapToDouble(a -> served.containsKey(a) ? served.get(a).now(now) : 0)
                .min()
                .orElse(0);
    }

    private void work(Waiting next, int threads) throws InterruptedException {
        boolean more = false;
        try {
            more = next.picture.work(new Picture.Turn() {
                @Override
                public int threads() {
                    return threads;
                }

                @Override
                public boolean isOver() {
                    return isTurnOver();
                }
            });
        } catch (RuntimeException | Error e) { // the thread is the only one
            LOG.error("a picture could not be traced", e);
        }
        done(next, more);
    }

    private synchronized void done(Waiting next, boolean more) throws InterruptedException {
        long now = System.nanoTime();
        double share = (double) (now - began) / next.picture.accounts().size();
        next.picture
                .accounts()
                .forEach(a -> served.merge(
                        a, new Served(share, now), (before, add) -> new Served(before.now(now) + add.time, now)));
        served.values().removeIf(s -> s.now(now) < ALIKE);
        present = null;
        if (ended) {
            throw new InterruptedException("the process ends");
        }
        boolean askedAnew = waiting.stream().anyMatch(w -> w.picture.key().equals(next.picture.key()));
        if (more && !askedAnew) {
            waiting.add(new Waiting(next.picture, next.number, now));
        }
    }

    private synchronized boolean isTurnOver() {
        if (ended || present == null) {
            return true;
        }
        Picture.Rank rank = present.picture.rank();
        boolean wasLong = System.nanoTime() - began > LONGEST_TURN;
        for (Waiting w : waiting) {
            int urgency = w.picture.rank().compareTo(rank);
            boolean isUrgent = isExtra ? w.picture.rank() == Picture.Rank.FIRST || wasLong : urgency < 0;
            if (isUrgent || (urgency == 0 && wasLong && !w.picture.accounts().equals(present.picture.accounts()))) {
                return true;
            }
        }
        return false;
    }

    @PreDestroy
    synchronized void stop() {
        ended = true;
        tracer.interrupt();
    }
}

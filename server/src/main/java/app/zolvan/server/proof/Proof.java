package app.zolvan.server.proof;

import app.zolvan.server.proof.DressedScenes.Wanted;
import java.time.Duration;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** A proof that is asked for, being traced, or there. Many threads may look at it; each change is whole. */
final class Proof {
    /** It ends after so long with what is there: whoever asked may have left. */
    private static final Duration LONGEST = Duration.ofMinutes(15);

    private static final Duration BETWEEN_NEWS = Duration.ofMillis(500);
    /** So much has to have come before it can be told how long the rest will take. */
    private static final double TELLING = 0.005;

    final UUID id = UUID.randomUUID();
    final UUID account;
    final Shot shot;
    final Wanted wanted;
    private byte @Nullable [] png;
    private int pictures;
    private double share;
    private boolean done;
    private boolean failed;
    private boolean ended;
    private long began;
    private long told;
    /** What was there when the last pass began, and when that was: how fast the rest comes is told by what came since. */
    private double shareThen;

    private long then;

    Proof(UUID account, Shot shot, Wanted wanted) {
        this.account = account;
        this.shot = shot;
        this.wanted = wanted;
    }

    /**
     * How far it has come.
     *
     * @param share    less than 1 where it is done: it took too long
     * @param pictures how many there have been; the next is better than the last
     */
    record News(UUID proof, double share, @Nullable Integer secondsLeft, int pictures, boolean done, boolean failed) {}

    synchronized void begin() {
        began = System.nanoTime();
    }

    /** Nobody waits for it any more. */
    synchronized void end() {
        ended = true;
    }

    synchronized boolean isEnded() {
        return ended;
    }

    synchronized boolean goesOn() {
        return !ended && System.nanoTime() - began < LONGEST.toNanos();
    }

    synchronized void fail() {
        failed = true;
        done = true;
    }

    /** Shows another picture of it. */
    synchronized void show(byte[] picture) {
        png = picture;
        pictures++;
    }

    /** A pass has come to its end. */
    synchronized void pass(double reached) {
        share = reached;
        shareThen = reached;
        then = System.nanoTime();
    }

    /** There will be no better one. */
    synchronized void finish() {
        done = true;
    }

    /**
     * Takes in how far it has come.
     *
     * @return whether that is to be told: not every time
     */
    synchronized boolean comes(double reached) {
        share = Math.max(share, reached);
        long now = System.nanoTime();
        boolean tells = now - told > BETWEEN_NEWS.toNanos();
        if (tells) {
            told = now;
        }
        return tells;
    }

    synchronized byte @Nullable [] picture() {
        return png;
    }

    synchronized boolean isDone() {
        return done;
    }

    synchronized News news() {
        double came = share - shareThen;
        double since = (System.nanoTime() - then) / 1e9;
        Integer left = came > TELLING && !done ? (int) Math.ceil(since * (1 - share) / came) : null;
        return new News(id, share, left, pictures, done, failed);
    }
}

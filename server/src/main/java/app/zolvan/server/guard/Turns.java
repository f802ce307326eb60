package app.zolvan.server.guard;

import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ConcurrentMap;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;

/** Places for what goes on at once on behalf of each key; keys that nobody uses are forgotten. */
final class Turns {
    private final int places;
    private final ConcurrentMap<String, Line> lines = new ConcurrentHashMap<>();

    private static final class Line {
        private final Semaphore places;
        private int users;

        Line(int places) {
            this.places = new Semaphore(places, true);
        }
    }

    /** @param places for each key */
    Turns(int places) {
        this.places = places;
    }

    /**
     * Takes a place, which {@link #leave} gives back.
     *
     * @param patience milliseconds to wait for one
     * @return false where none came free
     */
    boolean enter(String key, long patience) throws InterruptedException {
        Line line = lines.compute(key, (k, known) -> {
            Line l = known == null ? new Line(places) : known;
            l.users++;
            return l;
        });
        boolean entered = false;
        try {
            entered = line.places.tryAcquire(patience, TimeUnit.MILLISECONDS);
            return entered;
        } finally {
            if (!entered) {
                forget(key);
            }
        }
    }

    void leave(String key) {
        lines.get(key).places.release();
        forget(key);
    }

    private void forget(String key) {
        lines.computeIfPresent(key, (k, line) -> --line.users == 0 ? null : line);
    }

    /** Keys that somebody uses or waits for. */
    int size() {
        return lines.size();
    }
}

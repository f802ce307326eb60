package app.zolvan.server.guard;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;

/** Requests that each address may still make in this process: token buckets that fill steadily. */
final class Rates {
    private static final double NANOS = 1e9;
    private static final int MOST_ADDRESSES = 100_000;

    private final double perSecond;
    private final double burst;
    private final Cache<String, Bucket> buckets = Caffeine.newBuilder()
            .maximumSize(MOST_ADDRESSES)
            .expireAfterAccess(Duration.ofMinutes(5))
            .build();

    /**
     * @param perSecond requests that an address may make on and on
     * @param burst     requests that it may make at once after a pause
     */
    Rates(double perSecond, double burst) {
        this.perSecond = perSecond;
        this.burst = burst;
    }

    /**
     * Counts a request; false where it is one too many.
     *
     * @param nanos now, on any steady clock
     */
    boolean take(String address, long nanos) {
        return buckets.get(address, a -> new Bucket(burst, nanos)).take(nanos);
    }

    private final class Bucket {
        private double left;
        private long since;

        Bucket(double left, long since) {
            this.left = left;
            this.since = since;
        }

        synchronized boolean take(long nanos) {
            left = Math.min(burst, left + Math.max(0, nanos - since) / NANOS * perSecond);
            since = Math.max(since, nanos);
            if (left < 1) {
                return false;
            }
            left--;
            return true;
        }
    }
}

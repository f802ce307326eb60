package app.zolvan.server.guard;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class RatesTest {
    private static final long SECOND = 1_000_000_000L;
    private final Rates rates = new Rates(10, 30);

    private int taken(String address, int tries, long now) {
        int taken = 0;
        for (int i = 0; i < tries; i++) {
            taken += rates.take(address, now) ? 1 : 0;
        }
        return taken;
    }

    @Test
    void anAddressHasItsBurstAndThenItsRate() {
        assertThat(taken("a", 100, 0)).isEqualTo(30);
        assertThat(taken("a", 100, SECOND)).isEqualTo(10);
        assertThat(taken("a", 100, 101 * SECOND))
                .as("no more than a burst is saved up")
                .isEqualTo(30);
    }

    @Test
    void anotherAddressHasItsOwn() {
        assertThat(taken("a", 100, 0)).isEqualTo(30);
        assertThat(taken("b", 100, 0)).isEqualTo(30);
    }
}

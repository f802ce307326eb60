package app.zolvan.server.guard;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

class TurnsTest {
    private final Turns turns = new Turns(2);

    @Test
    void aKeyHasSoManyPlacesAndAnotherHasItsOwn() throws InterruptedException {
        assertThat(turns.enter("a", 0)).isTrue();
        assertThat(turns.enter("a", 0)).isTrue();
        assertThat(turns.enter("a", 0)).isFalse();
        assertThat(turns.enter("b", 0)).isTrue();
        turns.leave("a");
        assertThat(turns.enter("a", 0)).isTrue();
    }

    @Test
    void whoWaitsGetsThePlaceThatIsLeft() throws Exception {
        turns.enter("a", 0);
        turns.enter("a", 0);
        CompletableFuture<Boolean> third = CompletableFuture.supplyAsync(this::patiently);
        turns.leave("a");
        assertThat(third.get(10, TimeUnit.SECONDS)).isTrue();
    }

    private boolean patiently() {
        try {
            return turns.enter("a", 10_000);
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    void keysThatNobodyUsesAreForgotten() throws InterruptedException {
        turns.enter("a", 0);
        turns.enter("a", 0);
        turns.enter("a", 0); // in vain
        turns.leave("a");
        assertThat(turns.size()).isEqualTo(1);
        turns.leave("a");
        assertThat(turns.size()).isZero();
    }
}

package app.zolvan.server.render;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** One budget of cores for pictures and files. */
@Timeout(20)
class CoresTest {
    private static CompletableFuture<Cores.Share> file(Cores cores) {
        return CompletableFuture.supplyAsync(() -> {
            try {
                return cores.forFile();
            } catch (InterruptedException e) {
                throw new IllegalStateException(e);
            }
        });
    }

    @Test
    void aPictureGetsWhatFilesLeaveAndNeverNothing() throws Exception {
        Cores cores = new Cores(4);
        Cores.Share one = cores.forFile();
        Cores.Share two = cores.forFile();
        Cores.Share picture = cores.forPicture();
        assertThat(picture.count()).isEqualTo(2);
        CompletableFuture<Cores.Share> third = file(cores);
        assertThat(third).isNotDone();
        picture.close();
        Cores.Share three = third.get(10, TimeUnit.SECONDS);
        CompletableFuture<Cores.Share> fourth = file(cores);
        Cores.Share rest = cores.forPicture();
        assertThat(rest.count()).as("one core is kept from files").isEqualTo(1);
        assertThat(fourth).isNotDone();
        one.close();
        assertThat(fourth.get(10, TimeUnit.SECONDS).count()).isEqualTo(1);
        two.close();
        three.close();
        rest.close();
        fourth.join().close();
        assertThat(cores.forPicture().count()).isEqualTo(4);
    }
}

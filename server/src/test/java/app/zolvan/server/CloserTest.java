package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.concurrent.TimeUnit;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/** Materials are looked at closely, on a form or on a part; a coarse picture is there within seconds. */
class CloserTest extends ProjectTest {
    private String paint;

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
        paint = "/materials/" + libraryMaterial("PT-014") + "/closer";
    }

    private BufferedImage first(String on) throws IOException {
        Browser.Answer there = await().atMost(1, TimeUnit.MINUTES)
                .until(
                        () -> {
                            Browser.Answer a = browser.get(project + paint + on);
                            assertThat(a.raw().headers().firstValue("X-Picture").orElse(""))
                                    .hasSize(64);
                            assertThat(a.status()).isIn(200, 202);
                            return a;
                        },
                        a -> a.status() == 200);
        return ImageIO.read(new ByteArrayInputStream(there.body()));
    }

    @Test
    void aNewWishComesBeforeAFinerPictureOfTheOldOne() throws Exception {
        BufferedImage bowl = first("?form=VESSEL");
        BufferedImage leg = first("?part=1"); // while the bowl would still get finer
        assertThat(leg.getWidth()).isEqualTo(bowl.getWidth());
        assertThat(browser.get(project + paint + "?form=VESSEL").raw().headers().firstValue("X-Final"))
                .as("the leg came before the bowl was done")
                .contains("false");
        int red = bowl.getRGB(bowl.getWidth() / 2, bowl.getHeight() / 2);
        assertThat(red >> 16 & 255).as("harbour red").isGreaterThan(2 * (red & 255));
    }

    @Test
    void whatIsNotThereIsSaidAndStrangersSeeNothing() {
        assertThat(browser.get(project + paint).status()).isEqualTo(422);
        assertThat(browser.get(project + paint + "?form=BALL").status()).isEqualTo(400);
        assertThat(browser.get(project + paint + "?part=99").status()).isEqualTo(404);
        assertThat(stranger()
                        .asNewDesigner(accounts)
                        .get(project + paint + "?form=TILE")
                        .status())
                .isEqualTo(404);
    }
}

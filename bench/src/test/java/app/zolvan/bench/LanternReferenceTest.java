package app.zolvan.bench;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.render.path.Still;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.demo.StormLantern;
import app.zolvan.demo.StormLantern.Vessel;
import java.io.DataInputStream;
import java.io.InputStream;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.Test;

/** A picture that stops by its noise is as near the truth as it promised. */
class LanternReferenceTest {
    private static final double NOISE = 0.02;

    @Test
    void theLanternIsAsNearTheTruthAsPromised() throws Exception {
        InputStream kept = getClass().getResourceAsStream("/" + LanternReference.file());
        assertThat(kept)
                .as("the truth about the lantern as it is now; LanternReference makes it")
                .isNotNull();
        Still still = LanternReference.still(StormLantern.model(Vessel.CLOSED_BODIES), 5);
        Region r = LanternReference.WHOLE;
        assertThat(still.render(new Quality(NOISE, 4096), r, 2, (share, n) -> true))
                .isTrue();
        double sum = 0;
        double promised = 0;
        double[] seen = new double[3];
        try (DataInputStream truth = new DataInputStream(new GZIPInputStream(kept))) {
            for (int i = 0; i < r.width() * r.height(); i++) {
                still.film().mean(i % r.width(), i / r.width(), seen);
                double d = shown(seen[0], seen[1], seen[2])
                        - shown(truth.readFloat(), truth.readFloat(), truth.readFloat());
                sum += d * d;
            }
        }
        for (int y = 0; y < r.height(); y += 16) {
            for (int x = 0; x < r.width(); x += 16) {
                double e = still.film().error(x, y, x + 16, y + 16);
                assertThat(e).isLessThanOrEqualTo(NOISE);
                promised += e * e * 256;
            }
        }
        int n = r.width() * r.height();
        assertThat(Math.sqrt(sum / n)).isLessThan(1.2 * NOISE);
        assertThat(Math.sqrt(sum / promised)).isBetween(0.8, 1.2);
    }

    private static double shown(double r, double g, double b) {
        double v = 0.2126 * r + 0.7152 * g + 0.0722 * b;
        return v / (1 + v);
    }
}

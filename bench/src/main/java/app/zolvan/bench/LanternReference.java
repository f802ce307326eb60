package app.zolvan.bench;

import app.zolvan.core.command.StandingModel;
import app.zolvan.core.light.Environment;
import app.zolvan.core.model.Model;
import app.zolvan.core.render.film.Development;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.path.Still;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.core.render.texture.Textures;
import app.zolvan.core.render.trace.Kernel;
import app.zolvan.demo.StormLantern;
import app.zolvan.demo.StormLantern.Vessel;
import java.io.DataOutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.zip.GZIPOutputStream;

/**
 * A small picture of the lantern with so many samples that it counts as the truth. It is kept under the hash of all that it
 * shows; when the lantern changes, it must be made again: some minutes on two cores.
 */
public final class LanternReference {
    static final Region WHOLE = new Region(0, 0, 96, 64);
    private static final int SAMPLES = 16_000;
    private static final int BOUNCES = 24;

    private LanternReference() {}

    /** @param args the folder to keep it in */
    public static void main(String[] args) throws Exception {
        Still still = still(StormLantern.model(Vessel.CLOSED_BODIES), 77);
        int threads = Runtime.getRuntime().availableProcessors();
        still.render(Quality.samples(SAMPLES), WHOLE, threads, (share, n) -> {
            System.err.println(n + " samples");
            return true;
        });
        float[] radiance = Development.PLAIN.radiance(still.film(), 0, 0, WHOLE.width(), WHOLE.height());
        Path file = Path.of(args[0]).resolve(file());
        try (DataOutputStream out = new DataOutputStream(new GZIPOutputStream(Files.newOutputStream(file)))) {
            for (float v : radiance) {
                out.writeFloat(v);
            }
        }
    }

    static Still still(Model lantern, long seed) {
        Textures textures = new Textures(d -> lantern.images().get(d).bytes(), Textures.BUDGET);
        return new Still(
                StandingModel.scene(lantern, Kernel.Kind.best(), textures, null),
                Environment.studio(1),
                new double[] {0.56, 0.56, 0.56},
                Camera.framing(lantern.bounds(), (double) WHOLE.width() / WHOLE.height()),
                WHOLE.width(),
                WHOLE.height(),
                seed,
                BOUNCES);
    }

    /** The name under which the truth about the lantern as it is now is kept. */
    static String file() {
        String identity = StandingModel.identity(StormLantern.model(Vessel.CLOSED_BODIES));
        return "lantern-" + identity.substring(0, 16) + ".floats.gz";
    }
}

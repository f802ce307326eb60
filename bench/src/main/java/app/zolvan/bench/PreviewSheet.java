package app.zolvan.bench;

import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.material.Material;
import app.zolvan.core.render.chip.Preview;
import app.zolvan.core.render.chip.SampleForm;
import app.zolvan.core.render.trace.Kernel;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;

/** Previews of some shipped materials on every form, and how long each takes. Arguments: a folder, then codes. */
final class PreviewSheet {
    private PreviewSheet() {}

    public static void main(String[] args) throws IOException {
        ShippedLibrary library = ShippedLibrary.load();
        int threads = Runtime.getRuntime().availableProcessors();
        for (int i = 1; i < args.length; i++) {
            for (Material m : library.materials()) {
                if (!m.code().equals(args[i])) {
                    continue;
                }
                for (SampleForm form : SampleForm.values()) {
                    Preview p = Preview.of(form, m.surface());
                    long start = System.nanoTime();
                    p.coarse(m.surface(), library.images()::get, threads, Kernel.Kind.best());
                    double coarse = (System.nanoTime() - start) / 1e9;
                    byte[] png = p.picture(m.surface(), library.images()::get, threads, Kernel.Kind.best(), () -> true);
                    System.out.printf(
                            "%s %s: first %.1f s, final %.1f s more%n",
                            m.code(), form, coarse, (System.nanoTime() - start) / 1e9 - coarse);
                    Files.write(Path.of(args[0], m.code() + "-" + form + ".png"), png);
                }
            }
        }
    }
}

package app.zolvan.bench;

import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.material.Material;
import app.zolvan.core.render.chip.Chip;
import app.zolvan.core.render.trace.Kernel;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import javax.imageio.ImageIO;

/** All chips of the shipped library on one sheet, to be looked at, with the time one takes. */
public final class ChipSheet {
    private static final int COLUMNS = 10;

    private ChipSheet() {}

    /**
     * @param args where the sheet goes; then codes of the chips wanted, all when there are none. With the system property
     *             {@code each} every chip goes into that folder by itself, too, as core ships them.
     */
    public static void main(String[] args) throws IOException {
        ShippedLibrary library = ShippedLibrary.load();
        List<String> codes = List.of(args).subList(1, args.length);
        List<Material> wanted = library.materials().stream()
                .filter(m -> codes.isEmpty() || codes.contains(m.code()))
                .toList();
        Path each = System.getProperty("each") == null ? null : Path.of(System.getProperty("each"));
        int rows = (wanted.size() + COLUMNS - 1) / COLUMNS;
        BufferedImage sheet = new BufferedImage(COLUMNS * Chip.WIDTH, rows * Chip.HEIGHT, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = sheet.createGraphics();
        long start = System.nanoTime();
        for (int i = 0; i < wanted.size(); i++) {
            byte[] png = Chip.picture(
                    wanted.get(i).surface(),
                    digest -> library.images().get(digest),
                    Runtime.getRuntime().availableProcessors(),
                    Kernel.Kind.best());
            if (each != null) {
                Files.write(each.resolve(Chip.key(wanted.get(i).surface()) + ".png"), png);
            }
            BufferedImage chip = ImageIO.read(new ByteArrayInputStream(png));
            g.drawImage(chip, i % COLUMNS * Chip.WIDTH, i / COLUMNS * Chip.HEIGHT, null);
        }
        ImageIO.write(sheet, "png", Path.of(args[0]).toFile());
        System.out.printf(
                Locale.ROOT,
                "%d chips, %.2f s each%n",
                wanted.size(),
                (System.nanoTime() - start) / 1e9 / wanted.size());
    }
}

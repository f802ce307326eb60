package app.zolvan.bench;

import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.material.Material;
import app.zolvan.core.render.chip.Chip;
import app.zolvan.core.render.trace.Kernel;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
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
    private static final int COLUMNS = 14;
    private static final int WIDTH = 88;
    private static final int LABEL = 14;
    private static final int HEIGHT = WIDTH * Chip.HEIGHT / Chip.WIDTH + LABEL;

    private ChipSheet() {}

    /**
     * @param args where the sheet goes; then codes of the chips wanted, all when there are none. With the system property
     *             {@code each} every chip goes into that folder by itself, too, as core ships them; with {@code shipped}
     *             those are shown that core ships, and none is traced.
     */
    public static void main(String[] args) throws IOException {
        ShippedLibrary library = ShippedLibrary.load();
        List<String> codes = List.of(args).subList(1, args.length);
        List<Material> wanted = library.materials().stream()
                .filter(m -> codes.isEmpty() || codes.contains(m.code()))
                .toList();
        Path each = System.getProperty("each") == null ? null : Path.of(System.getProperty("each"));
        int rows = (wanted.size() + COLUMNS - 1) / COLUMNS;
        BufferedImage sheet = new BufferedImage(COLUMNS * WIDTH, rows * HEIGHT, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = sheet.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_INTERPOLATION, RenderingHints.VALUE_INTERPOLATION_BICUBIC);
        g.setRenderingHint(RenderingHints.KEY_TEXT_ANTIALIASING, RenderingHints.VALUE_TEXT_ANTIALIAS_ON);
        g.setColor(Color.WHITE);
        g.fillRect(0, 0, sheet.getWidth(), sheet.getHeight());
        g.setColor(Color.BLACK);
        g.setFont(g.getFont().deriveFont(9f));
        long start = System.nanoTime();
        for (int i = 0; i < wanted.size(); i++) {
            Material m = wanted.get(i);
            byte[] png = Boolean.getBoolean("shipped")
                    ? Chip.shipped(Chip.key(m.surface())).orElseThrow()
                    : Chip.picture(
                            m.surface(),
                            digest -> library.images().get(digest),
                            Runtime.getRuntime().availableProcessors(),
                            Kernel.Kind.best());
            if (each != null) {
                Files.write(each.resolve(Chip.key(m.surface()) + ".png"), png);
            }
            BufferedImage chip = ImageIO.read(new ByteArrayInputStream(png));
            int row = i / COLUMNS;
            g.drawImage(chip, i % COLUMNS * WIDTH, row * HEIGHT, WIDTH - 2, HEIGHT - LABEL, null);
            g.drawString(m.code(), i % COLUMNS * WIDTH + 2, (row + 1) * HEIGHT - 4);
        }
        ImageIO.write(sheet, "png", Path.of(args[0]).toFile());
        System.out.printf(
                Locale.ROOT,
                "%d chips, %.2f s each%n",
                wanted.size(),
                (System.nanoTime() - start) / 1e9 / wanted.size());
    }
}

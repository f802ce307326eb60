package app.zolvan.bench;

import app.zolvan.core.command.CommandLine;
import app.zolvan.demo.DemoFiles;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;

/**
 * The lantern at 1280 × 800 as the command line renders it, again and again in one process: the first picture of a warm
 * process (the first line is of a cold one), then the picture up to the noise targets named. A JSON line each.
 */
public final class WholePictures {
    private WholePictures() {}

    /** @param args qualities, proof and review among them */
    public static void main(String[] args) throws Exception {
        Path folder = Files.createTempDirectory("zolvan-pictures");
        DemoFiles.write(folder);
        String model = folder.resolve("storm-lantern.glb").toString();
        String picture = folder.resolve("picture.png").toString();
        CommandLine line = new CommandLine(System.out, System.err);
        for (int i = 0; i < 3; i++) {
            render(line, model, picture, "--samples", "1");
        }
        for (String quality : args) {
            render(line, model, picture, "--grain", "smoothed", "--quality", quality);
        }
    }

    private static void render(CommandLine line, String... words) {
        List<String> all = new ArrayList<>(List.of("render", "--json"));
        all.addAll(List.of(words));
        if (line.run(all.toArray(new String[0])) != CommandLine.DONE) {
            throw new IllegalStateException("The picture was not made.");
        }
    }
}

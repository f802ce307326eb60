package app.zolvan.bench;

import app.zolvan.core.command.CommandLine;
import app.zolvan.demo.DemoFiles;
import java.nio.file.Files;
import java.nio.file.Path;

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
            line.run("render", model, picture, "--samples", "1", "--json");
        }
        for (String quality : args) {
            line.run("render", model, picture, "--quality", quality, "--grain", "smoothed", "--json");
        }
    }
}

package app.zolvan.e2e;

import app.zolvan.demo.DemoFiles;
import com.google.gson.JsonObject;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.FilePayload;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/** Makes the pictures in docs/screenshots from the demo data; run by {@code ./zolvan screenshots}. */
@EnabledIfSystemProperty(named = "zolvan.screenshots", matches = ".+")
class ScreenshotsIT {
    private static final double BASE_X = 0.58;
    private static final double BASE_Y = 0.9;

    private final Path folder = Path.of(System.getProperty("zolvan.screenshots", "target"));

    @Test
    void picturesOfTheMainViews() throws IOException {
        Files.createDirectories(folder);
        Page page = Designer.sharpSighted().page;
        page.navigate(RunningZolvan.get().address + "/sign-in");
        page.waitForSelector("[name=login]");
        page.waitForTimeout(500);
        save(page, "sign-in");
        page.close();

        Designer d = Designer.sharpSighted().signIn().openLantern();
        settle(d);
        d.openDrawer("Paint");
        settle(d);
        d.carry("PT-014", BASE_X, BASE_Y);
        settle(d);
        save(d.page, "assign-carrying-a-chip");
        d.changing("/assignments", () -> d.page.mouse().up());
        d.page.keyboard().press("Escape");
        d.openDrawer("Palette");
        settle(d);
        save(d.page, "assign");
        d.selectPart("Base");
        BoundingBox hue = d.page.locator("[aria-label=Colour] .bar").nth(2).boundingBox();
        d.page.mouse().move(hue.x + 12, hue.y + 4);
        d.page.mouse().down();
        d.page.mouse().move(hue.x + 96, hue.y + 4);
        settle(d);
        save(d.page, "colour");
        d.changing("/adjustments", () -> d.page.mouse().up());
        d.changing("/undo", () -> d.page.click("[aria-label=Undo]"));
        d.selectPart("Reservoir");
        d.openDrawer("Glass");
        settle(d);
        save(d.page, "glass");
        d.page.keyboard().press("Escape");
        d.page.click("nav >> text=Light");
        d.page.click("text=Workshop");
        settle(d);
        save(d.page, "light");
        d.page.click("text=Studio");
        d.page.click("nav >> text=Picture");
        settle(d);
        save(d.page, "picture");
        d.page.waitForResponse(
                r -> r.url().endsWith("/thumbnail") && r.request().method().equals("PUT"),
                () -> d.page.click("[aria-label='All projects']"));
        d.page.reload();
        d.page.waitForSelector("article img");
        d.page.waitForTimeout(500);
        save(d.page, "projects");
        d.page.setInputFiles("input[type=file]", stl());
        d.page.waitForSelector("text=How long is the longest side?");
        save(d.page, "unit-question");
        d.page.click(".question >> text=Call off");
        d.page.waitForSelector("text=New project from a model");
        d.page.setInputFiles(
                "input[type=file]",
                new FilePayload("Stool.glb", "model/gltf-binary", "{\"a\":1}".getBytes(StandardCharsets.UTF_8)));
        d.page.waitForSelector(".drop [role=alert]");
        save(d.page, "error");
        JsonObject slow = new JsonObject();
        slow.addProperty("offline", false);
        slow.addProperty("latency", 0);
        slow.addProperty("downloadThroughput", -1);
        slow.addProperty("uploadThroughput", 3 << 20);
        d.page.context().newCDPSession(d.page).send("Network.emulateNetworkConditions", slow);
        d.page.setInputFiles(
                "input[type=file]",
                new FilePayload("Lantern, second version.glb", "model/gltf-binary", new byte[9 << 20]));
        d.page.waitForFunction("() => parseFloat(document.querySelector('.meter i')?.style.width) > 40");
        save(d.page, "upload");
        d.page.reload();
        d.page.click("text=Lomma floating sauna");
        settle(d);
        save(d.page, "sauna");
        d.page.keyboard().press("1");
        settle(d);
        save(d.page, "what-arrived");
        d.page.click(".entry:has-text('Panel board')");
        settle(d);
        save(d.page, "what-needs-attention");
        d.page.click("[aria-label='The stage shows'] >> text=Fronts and backs");
        settle(d);
        save(d.page, "fronts-and-backs");
        d.page.close();
    }

    /** The lantern as it comes from a printer's program: no unit, no names. */
    private static Path stl() {
        try {
            Path demo = Files.createTempDirectory("zolvan-pictures");
            DemoFiles.write(demo);
            return demo.resolve("storm-lantern.stl");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static void settle(Designer d) {
        d.page.waitForTimeout(1200);
        d.waitUntilDrawn();
        d.page.waitForTimeout(1500); // chips are painted between other work
    }

    private void save(Page page, String name) {
        page.screenshot(new Page.ScreenshotOptions().setPath(folder.resolve(name + ".png")));
    }
}

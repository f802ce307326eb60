package app.zolvan.e2e;

import app.zolvan.demo.DemoFiles;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.KeyboardModifier;
import com.microsoft.playwright.options.SelectOption;
import com.microsoft.playwright.options.WaitForSelectorState;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/** Makes the pictures in docs/screenshots from the demo data; run by {@code ./zolvan screenshots}. */
@EnabledIfSystemProperty(named = "zolvan.screenshots", matches = ".+")
class ScreenshotsIT {
    private static final double BASE_X = 0.58;
    private static final double BASE_Y = 0.84;
    private static final double PROOF_TIME = 150_000;

    private final Path folder = Path.of(System.getProperty("zolvan.screenshots", "target"));

    @Test
    void picturesOfTheMainViews() throws IOException {
        Files.createDirectories(folder);
        Page page = RunningZolvan.get().newStranger();
        page.navigate(RunningZolvan.get().address + "/sign-in");
        page.waitForSelector("[name=login]");
        page.context().close();

        Designer d = openOriginal();
        settle(d);
        d.openDrawer("Paint");
        settle(d);
        d.carry("PT-017", BASE_X, BASE_Y);
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
        library(d);
        aged(d);
        surroundings(d);
        d.page.click("nav >> text=Light");
        d.page.click("text=Workshop");
        settle(d);
        save(d.page, "light");
        d.page.click("text=Studio");
        proof(d);
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
        d.page.click(".question >> text=Call off");
        d.page.waitForSelector("text=New project from a model");
        d.page.setInputFiles(
                "input[type=file]",
                new FilePayload("Stool.glb", "model/gltf-binary", "{\"a\":1}".getBytes(StandardCharsets.UTF_8)));
        d.page.waitForSelector(".drop [role=alert]");
        save(d.page, "error");
        d.page.reload();
        d.page.click("text=Lomma floating sauna");
        settle(d);
        save(d.page, "sauna");
        d.page.click(".divider[aria-label^='C Larch']");
        d.waitUntilDrawn();
        d.page.dragAndDrop(".divider[aria-label^='C Larch']", ".divider[aria-label^='A Tarred']");
        d.page.waitForSelector("[aria-label=Differences] li");
        settle(d);
        save(d.page, "schemes");
        d.page.keyboard().press("1");
        settle(d);
        d.page.click(".entry:has-text('Panel board')");
        settle(d);
        save(d.page, "what-needs-attention");
        d.page.click("[aria-label='The stage shows'] >> text=Fronts and backs");
        settle(d);
        save(d.page, "fronts-and-backs");
        d.close();
    }

    /** What there is of a proof after a while. */
    private void proof(Designer d) {
        d.page.click("nav >> text=Assign");
        d.page.keyboard().press("p");
        d.page.waitForTimeout(PROOF_TIME);
        save(d.page, "proof");
        d.page.keyboard().press("p");
    }

    /** The tray opened to half the window, and stones side by side. */
    private void library(Designer d) {
        d.page.keyboard().press("t");
        d.openDrawer("Stone");
        d.page.waitForSelector(".sample-tray [data-code=ST-011]");
        d.page.locator(".sample-tray [data-code=ST-021]").hover();
        d.page.waitForSelector(".back >> text=Sharpness");
        settle(d);
        save(d.page, "library");
        d.page.mouse().move(600, 200);
        for (String code : List.of("ST-011", "ST-022", "ST-014", "ST-035")) {
            d.page.locator(".sample-tray [data-code=" + code + "]")
                    .click(new Locator.ClickOptions().setModifiers(List.of(KeyboardModifier.CONTROL)));
        }
        d.page.click("text=Side by side");
        settle(d);
        save(d.page, "side-by-side");
        d.page.click("text=Back to the tray");
        kept(d);
        d.openDrawer("Supplier’s samples");
        d.page.click("[data-article=BW-320]");
        d.page.waitForSelector("text=cut out and straightened");
        d.page.waitForFunction("() => [...document.querySelectorAll('.sample')].every(s => s.querySelector('img'))");
        settle(d);
        save(d.page, "supplier");
        d.openDrawer("Palette");
        d.page.keyboard().press("t");
    }

    /** The tray with a library of one's own, and a closer look at one of its materials. */
    private void kept(Designer d) {
        d.openDrawer("Palette");
        d.page.click("text=Look after libraries");
        d.page.click(".desk button[role=radio]:has-text('Drawers')");
        for (String name : List.of("Enamels", "Metals", "Soft goods")) {
            d.page.fill("[aria-label='New drawer']", name);
            d.page.keyboard().press("Enter");
            d.page.waitForSelector(".desk li:has-text('" + name + "')");
        }
        d.page.click("text=Back to the tray");
        for (String[] code : new String[][] {
            {"PT-017", "Enamels"},
            {"MT-003", "Metals"},
            {"MT-009", "Metals"},
            {"LE-002", "Soft goods"},
            {"FB-011", "Soft goods"}
        }) {
            d.page.click(".sample-tray [data-code=" + code[0] + "]");
            d.page.selectOption(".sample-tray [aria-label='Keep in …']", code[1]);
            d.page.waitForSelector("text=kept in My library › " + code[1]);
        }
        d.openDrawer("My library");
        d.page.click(".sample-tray [data-code=MT-501]");
        d.page.click("text=Look closely");
        d.page.click(".closer button:has-text('Vessel')");
        d.page.waitForSelector(".closer img");
        d.page.waitForSelector(
                ".closer [role=status]",
                new Page.WaitForSelectorOptions()
                        .setState(WaitForSelectorState.HIDDEN)
                        .setTimeout(120_000));
        settle(d);
        save(d.page, "keeping");
        d.page.click("[aria-label='Close the closer look']");
    }

    /** Brass that has corroded, beside an effect paint; as they were again afterwards. */
    private void aged(Designer d) {
        d.openDrawer("Palette");
        d.selectPart("Hood");
        d.changing(
                "/adjustments",
                () -> d.page.selectOption(
                        "[aria-label='Kind within the kind']", new SelectOption().setLabel("two-tone effect")));
        d.selectPart("Hood rim");
        d.openFold("Ageing");
        d.type("Age", "0.55");
        d.page.locator(".card [aria-label=Ageing]").evaluate("e => e.scrollIntoView({ block: 'center' })");
        settle(d);
        save(d.page, "aged");
        d.changing("/undo", () -> d.page.click("[aria-label=Undo]"));
        d.changing("/undo", () -> d.page.click("[aria-label=Undo]"));
        d.page.keyboard().press("Escape");
    }

    /** Helper forms stand by the lantern, one of them being placed; gone again afterwards. */
    private void surroundings(Designer d) {
        d.page.keyboard().press("1");
        List<String> forms = List.of("Ground", "Striped card", "Test tile");
        forms.forEach(f -> d.changing("/models", () -> d.page.click("[aria-label=Models] >> text=" + f)));
        d.page.click("[aria-label=Models] li:last-child >> text=Place");
        d.page.locator("[aria-label=Models]").evaluate("e => e.scrollIntoView()");
        settle(d);
        save(d.page, "surroundings");
        d.page.keyboard().press("Escape");
        forms.forEach(f -> d.changing("/undo", () -> d.page.click("[aria-label=Undo]")));
        d.page.click("text=Frame all");
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

    /** The demo's own lantern: its name alone is in the list of projects. */
    private static Designer openOriginal() {
        Designer d = Designer.sharpSighted().toProjects();
        d.page.click("text=Pilot storm lantern");
        return d.waitUntilDrawn();
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

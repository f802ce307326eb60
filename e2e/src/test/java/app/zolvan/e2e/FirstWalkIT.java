package app.zolvan.e2e;

import static com.microsoft.playwright.options.KeyboardModifier.CONTROL;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import com.microsoft.playwright.Download;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.SelectOption;
import com.microsoft.playwright.options.WaitForSelectorState;
import java.awt.Color;
import java.awt.image.BufferedImage;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The newcomer's first walk through Zolvan, with mouse and keyboard, from signing in to dressing a file of their own. */
class FirstWalkIT {
    /** A point on the lantern's base as it is framed at first. */
    private static final double BASE_X = 0.58;

    private static final double BASE_Y = 0.84;

    @Test
    void aWrongPasswordGetsASentenceAndTheRightOneOpensTheProjects() {
        Page page = RunningZolvan.get().newStranger();
        page.navigate(RunningZolvan.get().address + "/projects");
        page.waitForURL("**/sign-in**");
        page.fill("[name=login]", RunningZolvan.LOGIN);
        page.fill("[name=password]", "wrong");
        page.click("button[type=submit]");
        assertThat(page.textContent("[role=alert]")).contains("don’t match");
        page.fill("[name=password]", RunningZolvan.PASSWORD);
        page.keyboard().press("Enter");
        page.waitForURL("**/projects");
        page.waitForSelector("text=Pilot storm lantern");
        page.context().close();
    }

    @Test
    void aChipCarriedOverThePartShowsThereBeforeItIsLetGoAndEscLeavesItAsItWas() {
        Designer d = new Designer().openLantern().openDrawer("Paint");
        Color before = d.colourAt(BASE_X, BASE_Y);
        assertThat(before.getRed()).as("harbour red at first").isGreaterThan(2 * before.getGreen());
        d.redrawing(
                () -> d.page.waitForResponse(r -> r.url().contains("/trial"), () -> d.carry("PT-017", BASE_X, BASE_Y)));
        d.page.waitForSelector(".tag:text-is('set · 3 parts')");
        d.page.keyboard().down("Shift");
        d.page.waitForSelector(".tag:text-is('part · Base · also in B, C')");
        d.page.keyboard().up("Shift");
        d.page.keyboard().press("ArrowDown");
        d.page.waitForSelector(".tag:has-text('group Lantern')");
        d.page.keyboard().press("ArrowDown");
        d.page.waitForSelector(".tag:has-text('group Body · 8 parts')");
        d.page.keyboard().press("ArrowUp");
        d.page.waitForSelector(".tag:has-text('group Lantern')");
        d.redrawing(() -> {
            d.page.keyboard().press("ArrowUp");
            d.page.waitForSelector(".tag:text-is('set · 3 parts')");
        });
        assertThat(d.colourAt(BASE_X, BASE_Y).getRed()).isLessThan(before.getRed() - 40);
        d.redrawing(() -> d.page.keyboard().press("Escape"));
        d.page.mouse().up();
        assertThat(d.colourAt(BASE_X, BASE_Y)).is(Designer.about(before));
        assertThat(d.page.isDisabled("[aria-label=Undo]")).isTrue();
        d.close();
    }

    @Test
    void dropAdjustUndoReloadAndItIsAllStillThere() {
        Designer d = new Designer().openLantern().openDrawer("Paint");
        d.drop("PT-036", BASE_X, BASE_Y);
        assertThat(d.cardTitle()).isEqualTo("Base");
        assertThat(d.notice).contains("Cream enamel · 3 parts");
        assertThat(d.page.textContent("[aria-label='What a change touches'] .on")
                        .strip())
                .isEqualTo("All 3 parts with it");
        Color cream = d.colourAt(BASE_X, BASE_Y);
        assertThat(cream.getRed()).isGreaterThan(cream.getBlue() + 15);

        d.type("Hue", "250");
        Color blue = d.colourAt(BASE_X, BASE_Y);
        assertThat(blue.getBlue()).isGreaterThan(blue.getRed() + 10);
        d.openFold("Finish").type("Roughness", "0.9");
        d.type("Clear coat", "0");
        assertThat(d.page.textContent("section[aria-label=Finish] .head small")).isEqualTo("dead matt");
        for (int i = 0; i < 3; i++) {
            d.changing("/undo", () -> d.page.keyboard().press("Control+z"));
        }
        assertThat(d.page.inputValue("[aria-label='Hex code']")).isEqualTo("#E9DDBE");

        d.selectPart("Chimney");
        assertThat(d.page.textContent(".strata .wins")).contains("set ×2").contains("Clear flint glass");
        d.openDrawer("Glass");
        d.page.click("[data-code=GL-009]");
        d.changing("/assignments", () -> d.page.click("text=Only this part >> visible=true >> nth=-1"));
        assertThat(d.page.textContent(".strata .wins")).contains("part").contains("Sea green glass");

        d.page.reload();
        d.waitUntilDrawn();
        Color again = d.colourAt(BASE_X, BASE_Y);
        assertThat(again.getRed()).isBetween(cream.getRed() - 3, cream.getRed() + 3);
        d.selectPart("Chimney");
        assertThat(d.page.textContent(".strata .wins")).contains("Sea green glass");
        d.changing("/undo", () -> d.page.click("[aria-label=Undo]"));
        assertThat(d.page.textContent(".strata .wins")).contains("Clear flint glass");
        d.changing("/redo", () -> d.page.click("[aria-label=Redo]"));
        d.close();
    }

    @Test
    void onePartCanLeaveItsSetAndOneChipCanDressPartAfterPart() {
        Designer d = new Designer().openLantern();
        d.selectPart("Hood rim");
        d.page.click("text=Only this part >> nth=0");
        d.openFold("Finish").type("Roughness", "0.8");
        assertThat(d.page.textContent(".strata .wins")).contains("part").contains("Spun brass · Hood rim");
        d.selectPart("Base rim");
        assertThat(d.page.inputValue("[aria-label='Roughness, typed']")).isEqualTo("0.22");

        d.openDrawer("Metal").page.click("[data-code=MT-012]");
        d.page.keyboard().press("a");
        assertThat(d.page.textContent(".note")).contains("Raw copper");
        d.changing("/assignments", () -> d.page.mouse().click(610, 132)); // the knob on the cap
        d.page.keyboard().press("Escape");
        d.selectPart("Cap knob");
        assertThat(d.page.textContent(".strata .wins")).contains("Raw copper");
        findsAndCompares(d.page);
        d.close();
    }

    /** In the open tray: a misspelt word, a facet, two materials side by side. */
    private static void findsAndCompares(Page page) {
        page.keyboard().press("t");
        page.fill("#tray-search", "lether");
        page.waitForSelector("text=“lether” taken as “leather”");
        page.click("[aria-label='Narrow down by tone']");
        page.click("[role=group][aria-label=Tone] >> text=brown");
        page.waitForSelector(".sample-tray [data-code=LE-012]", hidden());
        page.keyboard().press("Escape");
        for (String code : List.of("LE-002", "LE-011")) {
            page.click(".sample-tray [data-code=" + code + "]", new Page.ClickOptions().setModifiers(List.of(CONTROL)));
        }
        page.click("text=Side by side");
        page.waitForSelector(".beside td:has-text('GU')");
        assertThat(page.textContent(".beside"))
                .contains("Saddle hide")
                .contains("px/m")
                .contains("kg/m³");
    }

    private static Page.WaitForSelectorOptions hidden() {
        return new Page.WaitForSelectorOptions().setState(WaitForSelectorState.HIDDEN);
    }

    @Test
    void aPictureHasTheAskedSizeAndNoOutline(@TempDir Path folder) throws Exception {
        Designer d = new Designer().openLantern();
        d.selectPart("Base");
        d.page.keyboard().press("5");
        d.page.fill("[aria-label='Width in pixels']", "640");
        d.page.fill("[aria-label='Height in pixels']", "480");
        Download download = d.page.waitForDownload(() -> d.page.click("text=Save picture"));
        Path file = folder.resolve("picture.png");
        download.saveAs(file);
        BufferedImage picture = Designer.picture(Files.readAllBytes(file));
        assertThat(picture.getWidth()).isEqualTo(640);
        assertThat(picture.getHeight()).isEqualTo(480);
        int accent = 0;
        for (int y = 0; y < 480; y++) {
            for (int x = 0; x < 640; x++) {
                Color c = new Color(picture.getRGB(x, y));
                accent += Math.abs(c.getRed() - 0x6B) + Math.abs(c.getGreen() - 0x2D) + Math.abs(c.getBlue() - 0x5C) < 8
                        ? 1
                        : 0;
            }
        }
        assertThat(accent).isLessThan(5);
        d.page.fill("[aria-label='Width in pixels']", "100000");
        assertThat(d.page.textContent("[role=alert]")).contains("16 to");
        d.close();
    }

    @Test
    void theDownloadedModelIsFlawlessGltfAndOpensAgainWithTheSameLooks(@TempDir Path folder) throws Exception {
        Designer d = new Designer().openLantern();
        d.page.keyboard().press("5");
        Download download = d.page.waitForDownload(() -> d.page.click("text=Download model"));
        Path file = folder.resolve("dressed.glb");
        download.saveAs(file);
        assertThat(validated(file)).isEqualTo("0 errors, 0 warnings");

        d.page.navigate(RunningZolvan.get().address + "/projects");
        d.page.setInputFiles(
                "input[type=file]", new FilePayload("My lantern.glb", "model/gltf-binary", Files.readAllBytes(file)));
        d.page.waitForURL("**/projects/*");
        d.waitUntilDrawn();
        assertThat(d.page.textContent("header .name")).contains("My lantern");
        Color red = d.colourAt(BASE_X, BASE_Y);
        assertThat(red.getRed()).as("the looks came along").isGreaterThan(2 * red.getGreen());
        d.openDrawer("Leather");
        d.drop("LE-005", BASE_X, BASE_Y);
        assertThat(d.page.textContent(".strata .wins")).contains("Black bridle leather");
        d.close();
    }

    @Test
    void lightCanBeSetBeforeMaterialsAreJudged() {
        Designer d = new Designer().openLantern();
        Color before = d.colourAt(BASE_X, BASE_Y);
        d.page.keyboard().press("4");
        d.page.locator("[aria-label='Stops, typed']").fill("2");
        d.redrawing(() -> d.page.locator("[aria-label='Stops, typed']").press("Enter"));
        Color brighter = d.colourAt(BASE_X, BASE_Y);
        assertThat(brighter.getRed()).isGreaterThan(before.getRed());
        Color backdrop = d.colourAt(0.05, 0.1);
        assertThat(backdrop.getRed())
                .as("the backdrop keeps its tone, about L* 80")
                .isBetween(185, 215);
        d.redrawing(() -> d.page.click("text=Workshop"));
        assertThat(apart(d.colourAt(BASE_X, BASE_Y), brighter))
                .as("light of another place")
                .isGreaterThan(3);
        d.close();
    }

    private static String validated(Path glb) throws Exception {
        Process process = new ProcessBuilder("node", "scripts/validate.mjs", glb.toString())
                .directory(Path.of("../web").toFile())
                .redirectErrorStream(true)
                .start();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        process.waitFor(60, TimeUnit.SECONDS);
        return said.strip();
    }

    /** A paint with flakes that ages, a leather whose picture is stained: on the stage as soon as they are set. */
    @Test
    void aPartAgesByDegreesAndAPictureIsStained() {
        Designer d = new Designer().openLantern();
        d.selectPart("Base");
        Color fresh = d.colourAt(BASE_X, BASE_Y);
        d.changing(
                "/adjustments",
                () -> d.page.selectOption(
                        "[aria-label='Kind within the kind']", new SelectOption().setLabel("two-tone effect")));
        Color twoTone = d.colourAt(BASE_X, BASE_Y);
        assertThat(apart(twoTone, fresh)).isGreaterThan(15);
        d.openFold("Ageing");
        d.type("Age", "1");
        assertThat(apart(d.colourAt(BASE_X, BASE_Y), twoTone)).isGreaterThan(10);
        assertThat(d.page.inputValue("[aria-label='Weathering, typed']")).isEqualTo("0.50");
        d.changing("/adjustments", () -> d.page.click("text=Discard"));
        assertThat(apart(d.colourAt(BASE_X, BASE_Y), fresh)).isLessThan(6);

        d.selectPart("Strap");
        d.type("Tint", "0.8");
        assertThat(d.page.isVisible("text=As it was")).isTrue();
        d.changing("/adjustments", () -> d.page.click("text=As it was"));
        assertThat(d.page.isVisible("text=As it was")).isFalse();
        d.close();
    }

    @Test
    void aMaterialIsAdjustedByItsKindComparedAndPutBack() {
        Designer d = new Designer().openLantern();
        d.selectPart("Base");
        Color before = d.colourAt(BASE_X, BASE_Y);
        String kind = d.page.inputValue("[aria-label=Kind]");
        assertThat(kind).isEqualTo("paint");
        d.changing("/adjustments", () -> d.page.selectOption("[aria-label=Kind]", "metal"));
        d.changing("/adjustments", () -> d.page.click("[aria-label=Metal] >> text=Copper"));
        d.type("Clear coat", "0");
        d.type("Gloss", "40");
        assertThat(Double.parseDouble(
                        d.page.inputValue("[aria-label='Gloss, typed']").replace(" GU", "")))
                .isCloseTo(40, within(0.5));
        Color copper = d.colourAt(BASE_X, BASE_Y);
        assertThat(apart(copper, before)).isGreaterThan(30);
        d.page.keyboard().down("b");
        d.page.waitForSelector("text=Showing before");
        d.waitUntilDrawn();
        assertThat(apart(d.colourAt(BASE_X, BASE_Y), before)).isLessThan(6);
        d.page.keyboard().up("b");
        d.page.waitForSelector("text=Hold to see before");
        d.waitUntilDrawn();
        assertThat(apart(d.colourAt(BASE_X, BASE_Y), copper)).isLessThan(6);
        d.changing("/adjustments", () -> d.page.click("text=Discard"));
        assertThat(apart(d.colourAt(BASE_X, BASE_Y), before)).isLessThan(6);
        assertThat(d.page.inputValue("[aria-label=Kind]")).isEqualTo(kind);

        d.page.click("[aria-label='Find a colour'] >> text=Palettes");
        d.page.fill("[aria-label='Name of the colour or palette']", "Quay");
        d.page.click("text=New palette");
        d.page.waitForSelector("[aria-label=Palettes] option:has-text('Quay, 0')", attached());
        d.page.click("text=Add colour");
        d.page.waitForSelector("[aria-label=Palettes] option:has-text('Quay, 1')", attached());
        d.type("Lightness", "20");
        assertThat(apart(d.colourAt(BASE_X, BASE_Y), before)).isGreaterThan(60);
        d.carryFrom("[aria-label=Palettes] .swatches button", BASE_X, BASE_Y);
        assertThat(d.page.textContent(".note")).contains("this colour alone");
        d.changing("/adjustments", () -> d.page.mouse().up());
        assertThat(apart(d.colourAt(BASE_X, BASE_Y), before)).isLessThan(6);
        assertThat(d.page.inputValue("[aria-label=Kind]")).isEqualTo(kind);
        d.page.check("[aria-label=Palettes] >> text=take out");
        d.page.click("[aria-label=Palettes] .swatches button");
        d.page.waitForSelector("[aria-label=Palettes] option:has-text('Quay, 0')", attached());
        d.page.click("[aria-label=Palettes] >> text=Delete");
        d.page.waitForSelector("[aria-label=Palettes] >> text=Copy to my own");

        d.page.selectOption("[aria-label='Set the colour by']", "hsv");
        d.type("Value", "30");
        int strongest = List.of("Red", "Green", "Blue").stream()
                .mapToInt(c -> Integer.parseInt(d.page.inputValue("[aria-label='" + c + ", 0 to 255']")))
                .max()
                .orElseThrow();
        assertThat(strongest).isBetween(76, 77); // 30 % of 255
        String hex = d.page.inputValue("[aria-label='Hex code']");
        Color dark = d.colourAt(BASE_X, BASE_Y);
        d.page.selectOption("[aria-label='Set the colour by']", "wheel");
        d.changing("/adjustments", () -> {
            for (int i = 0; i < 12; i++) { // a third of the way around
                d.page.press("[aria-label='Colour wheel']", "Shift+ArrowLeft");
            }
        });
        assertThat(d.page.inputValue("[aria-label='Hex code']")).isNotEqualTo(hex);
        assertThat(apart(d.colourAt(BASE_X, BASE_Y), dark)).isGreaterThan(10);
        d.page.selectOption("[aria-label='Set the colour by']", "lch");
        d.close();
    }

    private static Page.WaitForSelectorOptions attached() {
        return new Page.WaitForSelectorOptions().setState(WaitForSelectorState.ATTACHED);
    }

    private static int apart(Color one, Color other) {
        return Math.abs(one.getRed() - other.getRed())
                + Math.abs(one.getGreen() - other.getGreen())
                + Math.abs(one.getBlue() - other.getBlue());
    }
}

package app.zolvan.e2e;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.formats.ModelFormats;
import app.zolvan.demo.DemoFiles;
import com.google.gson.JsonObject;
import com.google.gson.JsonParser;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.WaitForSelectorState;
import java.awt.Color;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** What designers receive: files that leave things open, files that come in several pieces, and what goes out again. */
class ArrivalIT {

    @Test
    void aFileThatDoesNotSayItsUnitIsAskedAbout(@TempDir Path folder) throws Exception {
        DemoFiles.write(folder);
        Designer d = new Designer().toProjects();
        d.page.setInputFiles("input[type=file]", folder.resolve("storm-lantern.stl"));
        d.page.waitForSelector("text=How long is the longest side?");
        assertThat(d.page.textContent(".question")).contains("373 mm", "Which axis points up?", "STL files do not say");
        d.page.reload(); // the question is still there
        d.page.waitForSelector("text=How long is the longest side?");
        d.page.click(".question label:has-text('cm')");
        d.page.click(".question >> text=Import");
        d.page.waitForURL("**/projects/*");
        d.waitUntilDrawn();
        String scene = d.page.evaluate("() => fetch('/api' + location.pathname + '/scene').then((r) => r.text())")
                .toString();
        assertThat(scene).contains("You said that the file is in cm.", "\"format\":\"STL\"");
        d.page.keyboard().press("1"); // what arrived is told in the Prepare step
        d.page.waitForSelector("[aria-label='What arrived'] >> text=You said that the file is in cm.");
        assertThat(d.page.textContent("[aria-label='What arrived']")).contains("STL", "repeats kept once");
        d.page.click("[aria-label='What needs attention'] >> text=No part has texture coordinates.");
        assertThat(d.page.textContent(".advice")).contains("real size");
        prepare(d);
        d.page.setInputFiles("[aria-label='File to take materials from']", folder.resolve("storm-lantern.glb"));
        d.page.waitForSelector("text=lie in the tray of the Assign step, under As arrived.");
        d.page.keyboard().press("2");
        d.openDrawer("As arrived");
        d.page.waitForSelector(".sample-tray >> text=mat_07");
        d.close();
    }

    /** The one part of the file gets a name and a role, is turned inside out, found to be, and turned back. */
    private static void prepare(Designer d) {
        d.page.locator(".ledger .row:not(.group)").first().click();
        d.page.fill("[aria-label='Pattern']", "Lantern #");
        d.page.waitForSelector("[aria-label='New names'] >> text=Lantern 1");
        d.changing(
                "/parts/names", () -> d.page.click("[aria-label='Names of parts'] button:has-text('Rename 1 part')"));
        d.page.waitForSelector(".ledger >> text=Lantern 1");
        d.changing("/parts/roles", () -> d.page.selectOption("[aria-label='Role of the selected parts']", "LAMP"));
        d.page.fill("[aria-label='Filter parts']", "lamp");
        d.page.waitForSelector(".ledger >> text=Lantern 1");
        d.page.fill("[aria-label='Filter parts']", "");
        d.page.click("[aria-label='The stage shows'] >> text=Fronts and backs");
        d.waitUntilDrawn();
        Color outside = d.colourAt(0.5, 0.6);
        assertThat(outside.getRed() - outside.getGreen())
                .as("a front is neutral")
                .isLessThan(8);
        d.changing("/parts/sides", () -> d.page.click("[aria-label='What the stage shows'] >> text=Flip 1 part"));
        Color inside = d.colourAt(0.5, 0.6);
        assertThat(inside.getRed() - inside.getGreen())
                .as("a back is hatched in the accent")
                .isGreaterThan(10);
        d.page.click("text=Look again");
        d.page.waitForSelector("[aria-label='What needs attention'] >> text=the wrong way");
        d.changing("/parts/sides", () -> d.page.click("[aria-label='What the stage shows'] >> text=Turn them outward"));
        assertThat(d.colourAt(0.5, 0.6)).is(Designer.about(outside));
    }

    /** Two plates of one material: one is taken out of the set, the set follows without it, and a newer file brings a third. */
    @Test
    void setsAreTakenApartAndANewerFileKeepsTheDressing() {
        Designer d = new Designer().toProjects();
        String plate = "v 0 %1$s 0\nv 1 %1$s 0\nv 1 %1$s 1\nv 0 %1$s 1\nusemtl red\n";
        String first = "o Low\n" + plate.formatted("0") + "f 4 3 2 1\no High\n" + plate.formatted("1") + "f 8 7 6 5\n";
        d.page.setInputFiles("input[type=file]", obj("plates.obj", first));
        d.page.waitForSelector("text=How long is the longest side?");
        d.page.click(".question >> text=Import");
        d.page.waitForURL("**/projects/*");
        d.waitUntilDrawn();
        d.page.keyboard().press("1");
        d.page.waitForSelector("[aria-label='Source materials'] >> text=2 parts");
        d.page.locator(".ledger .row:not(.group)").first().click();
        d.page.keyboard().press("Shift+ArrowDown");
        d.page.waitForSelector("[aria-label='Selection'] >> text=2 parts");
        d.page.keyboard().press("ArrowUp");
        d.page.waitForSelector("[aria-label='Selection'] >> text=Select the 2");
        d.changing("/parts/sets", () -> d.page.click("text=Take out of set"));
        d.page.waitForSelector("[aria-label='Source materials'] >> text=red 2");
        d.page.keyboard().press("Escape");
        d.page.waitForSelector(".note", new Page.WaitForSelectorOptions().setState(WaitForSelectorState.HIDDEN));
        byte[] all = stage(d);
        d.page.hover("[aria-label='Source materials'] .chip:has-text('red 2')");
        assertThat(stage(d)).as("one plate is lit up, the other is haze").isNotEqualTo(all);
        d.page.hover("[aria-label='What arrived'] h1");
        assertThat(stage(d)).isEqualTo(all);

        String third = "o Top\n" + plate.formatted("2") + "f 12 11 10 9\n";
        d.page.setInputFiles("[aria-label='Newer file of the model']", obj("plates-2.obj", first + third));
        d.page.waitForSelector("[aria-label='Newer file'] >> text=waits for your word");
        d.page.waitForSelector("[aria-label='Newer file'] >> text=1 part new");
        d.changing("/update", () -> d.page.click("[aria-label='Newer file'] >> text=Apply"));
        d.page.waitForSelector(".ledger >> text=Top");
        d.page.waitForSelector("[aria-label='Source materials'] >> text=red 2");
        d.changing("/undo", () -> d.page.keyboard().press("Control+z"));
        d.page.waitForSelector(
                ".ledger >> text=Top", new Page.WaitForSelectorOptions().setState(WaitForSelectorState.HIDDEN));
        d.close();
    }

    /** Something is added to be seen with the design: it is placed by numbers and by hand, hidden, locked and removed. */
    @Test
    void aModelIsAddedPlacedHiddenAndRemoved() {
        Designer d = new Designer().toProjects();
        String plate = "v 0 0 %1$s\nv 1 0 %1$s\nv 1 1 %1$s\nv 0 1 %1$s\nusemtl red\no %2$s\nf 1 2 3 4\n";
        d.page.setInputFiles("input[type=file]", obj("plate.obj", plate.formatted("0", "Plate")));
        d.page.waitForSelector("text=How long is the longest side?");
        d.page.click(".question >> text=Import");
        d.page.waitForURL("**/projects/*");
        d.waitUntilDrawn();
        d.page.keyboard().press("1");
        byte[] alone = stage(d);
        d.changing("/models", () -> d.page.click("[aria-label='Models'] >> text=Ground"));
        d.page.setInputFiles(
                "[aria-label='File of the model to add']", obj("screen.obj", plate.formatted("0", "Screen")));
        d.page.click(".question >> text=Import");
        d.page.waitForSelector("[aria-label='Models'] >> text=3 models");
        String form = "[aria-label='Models'] .place";
        d.page.waitForSelector(form); // what has come is placed next
        d.changing("/place", () -> {
            d.page.fill("[aria-label='Stands at, y, up']", "1.5 m");
            d.page.keyboard().press("Enter");
        });
        d.waitUntilDrawn();
        d.changing("/rest", () -> d.page.click("text=Set down"));
        assertThat(height(d)).as("on the ground").isCloseTo(0, within(1e-3));
        BoundingBox box = d.page.locator("[data-testid=stage] canvas").boundingBox();
        d.waitUntilDrawn();
        String[] knob = d.page.getAttribute("[data-testid=stage]", "data-lift").split(" ");
        double x = box.x + Double.parseDouble(knob[0]);
        double y = box.y + Double.parseDouble(knob[1]);
        d.page.mouse().move(x, y);
        d.page.mouse().down();
        d.page.mouse().move(x, y - 60);
        d.changing("/place", () -> d.page.mouse().up());
        assertThat(height(d)).as("lifted by hand").isGreaterThan(0.05);
        d.changing("/place", () -> {
            d.page.fill("[aria-label='Turned about y, up, degrees']", "90");
            d.page.keyboard().press("Enter");
        });
        d.changing("/copies", () -> d.page.click("text=Add 3 copies"));
        d.page.waitForSelector("[aria-label='Models'] >> text=4 parts");
        assertThat(d.page.textContent("[aria-label='What arrived'] dl")).contains("1 part in");

        String own = "[aria-label='Models'] li:has(input[aria-label='Name of screen'])";
        d.changing("/models/2", () -> d.page.click(own + " >> [aria-label^='Hide']"));
        d.changing("/models/1", () -> d.page.click("[aria-label='Models'] [aria-label='Hide Ground']"));
        d.page.keyboard().press("Escape");
        d.page.click("text=Frame all");
        d.page.mouse().move(box.x + 2, box.y + box.height / 2);
        d.page.waitForSelector(".note", new Page.WaitForSelectorOptions().setState(WaitForSelectorState.HIDDEN));
        assertThat(stage(d)).as("only the design is left").isEqualTo(alone);
        d.changing("/models/0", () -> d.page.click("[aria-label='Models'] [aria-label^='Lock plate']"));
        d.page.mouse().click(box.x + box.width / 2, box.y + box.height / 2);
        d.page.waitForSelector("[aria-label='Selection'] >> text=Select");
        assertThat(d.page.locator(".ledger .row.on").count())
                .as("locked: not picked")
                .isZero();
        d.changing("/models/2", () -> d.page.click(own + " >> [aria-label^='Show']"));
        d.page.click(own + " >> text=Place");
        d.changing("/models/2", () -> d.page.click("text=Remove model"));
        d.page.waitForSelector("[aria-label='Models'] >> text=2 models");
        d.close();
    }

    /** The height at which the last model stands. */
    private static double height(Designer d) {
        return Double.parseDouble(d.page.evaluate("""
                () => fetch('/api' + location.pathname + '/scene').then((r) => r.json())
                    .then((s) => '' + s.models.at(-1).at[1])""").toString());
    }

    private static byte[] stage(Designer d) {
        d.waitUntilDrawn();
        return d.page.locator("[data-testid=stage] canvas").screenshot();
    }

    private static FilePayload[] obj(String name, String text) {
        String red = "newmtl red\nKd 1 0 0\n";
        return new FilePayload[] {
            new FilePayload(name, "model/obj", ("mtllib red.mtl\n" + text).getBytes(StandardCharsets.UTF_8)),
            new FilePayload("red.mtl", "model/mtl", red.getBytes(StandardCharsets.UTF_8))
        };
    }

    /** A sample assembly of the package that does the tessellation: 18 bodies of 5 shapes in 3 sub-assemblies. */
    @Test
    void aStepAssemblyIsCutIntoTrianglesInTheBrowserAndKeepsItsTree() {
        Designer d = new Designer().toProjects();
        d.page.setInputFiles(
                "input[type=file]", Path.of("../web/node_modules/occt-import-js/test/testfiles/cax-if/as1-tu-203.stp"));
        d.page.waitForSelector("text=18 bodies");
        int automatic = triangles(d);
        d.page.click("text=Finer");
        d.page.waitForSelector(".prepared >> text=0.025 %");
        assertThat(triangles(d)).isGreaterThan(automatic);
        d.page.click(".prepared >> text=Import");
        d.page.waitForSelector("text=Which axis points up?");
        d.page.click(".question >> text=Import");
        d.page.waitForURL("**/projects/*");
        d.waitUntilDrawn();
        JsonObject scene = JsonParser.parseString(
                        d.page.evaluate("() => fetch('/api' + location.pathname + '/scene').then((r) => r.text())")
                                .toString())
                .getAsJsonObject();
        assertThat(scene.getAsJsonArray("parts")).hasSize(18);
        assertThat(scene.getAsJsonArray("parts").asList().stream()
                        .map(p -> p.getAsJsonObject().get("mesh").getAsString())
                        .distinct())
                .hasSize(5);
        assertThat(scene.getAsJsonArray("groups").asList().stream()
                        .map(g -> g.getAsJsonObject().get("name").getAsString()))
                .containsExactly("as1", "rod-assembly", "l-bracket-assembly", "l-bracket-assembly");
        assertThat(scene.getAsJsonObject("origin").get("format").getAsString()).isEqualTo("STEP");
        assertThat(scene.getAsJsonObject("origin").get("unit").getAsString()).isEqualTo("mm");
        int fine = scene.get("triangles").getAsInt();
        d.page.keyboard().press("1"); // the surfaces are kept: they can be cut again from the open project
        d.page.click("[aria-label='What arrived'] >> text=Coarser");
        d.page.waitForFunction(
                "fine => fetch('/api' + location.pathname + '/scene').then((r) => r.json()).then((s) => s.triangles < fine)",
                fine);
        d.page.waitForSelector("[aria-label='What arrived'] dd:has-text('" + String.format("%,d", automatic) + "')");
        d.close();
    }

    private static int triangles(Designer d) {
        String said = d.page.textContent(".prepared");
        return Integer.parseInt(
                said.replaceAll("(?s).*?([\\d,]+) triangles.*", "$1").replace(",", ""));
    }

    @Test
    void severalFilesArriveTogetherAndTheModelLeavesInAnotherFormat(@TempDir Path folder) throws Exception {
        Designer d = new Designer().toProjects();
        String obj = "mtllib plate.mtl\no Plate\nv 0 0 0\nv 1 0 0\nv 1 0 1\nv 0 0 1\nusemtl red\nf 4 3 2 1\n";
        d.page.setInputFiles("input[type=file]", new FilePayload[] {
            new FilePayload("plate.obj", "model/obj", obj.getBytes(StandardCharsets.UTF_8)),
            new FilePayload("plate.mtl", "model/mtl", "newmtl red\nKd 1 0 0\n".getBytes(StandardCharsets.UTF_8))
        });
        d.page.waitForSelector("text=How long is the longest side?");
        d.page.click(".question >> text=Import");
        d.page.waitForURL("**/projects/*");
        d.waitUntilDrawn();
        d.page.keyboard().press("5");
        d.page.selectOption("[aria-label='Format of the model file']", "3mf");
        Download download = d.page.waitForDownload(() -> d.page.click("text=Download model (3MF)"));
        Path file = folder.resolve("plate.3mf");
        download.saveAs(file);
        var back = ModelFormats.read(
                "plate.3mf", ByteBuffer.wrap(Files.readAllBytes(file)), FileSet.Companions.NONE, Reading.standard());
        assertThat(back.model().parts())
                .singleElement()
                .satisfies(p -> assertThat(p.name()).isEqualTo("Plate"));
        assertThat(back.model().bounds().size().x()).isEqualTo(1);
        d.close();
    }
}

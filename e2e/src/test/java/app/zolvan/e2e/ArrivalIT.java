package app.zolvan.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.formats.ModelFormats;
import app.zolvan.demo.DemoFiles;
import com.microsoft.playwright.Download;
import com.microsoft.playwright.options.FilePayload;
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
        Designer d = new Designer().signIn();
        d.page.setInputFiles("input[type=file]", folder.resolve("storm-lantern.stl"));
        d.page.waitForSelector("text=How long is the longest side?");
        assertThat(d.page.textContent(".question")).contains("373 mm", "Which axis points up?", "STL files do not say");
        d.page.click(".question label:has-text('cm')");
        d.page.click(".question >> text=Import");
        d.page.waitForURL("**/projects/*");
        d.waitUntilDrawn();
        String scene = d.page.evaluate("() => fetch('/api' + location.pathname + '/scene').then((r) => r.text())")
                .toString();
        assertThat(scene).contains("You said that the file is in cm.", "\"format\":\"STL\"");
        d.page.close();
    }

    @Test
    void severalFilesArriveTogetherAndTheModelLeavesInAnotherFormat(@TempDir Path folder) throws Exception {
        Designer d = new Designer().signIn();
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
        d.page.close();
    }
}

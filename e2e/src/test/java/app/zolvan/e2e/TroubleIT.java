package app.zolvan.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.options.FilePayload;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.Test;

/** What a designer sees when something is wrong. */
class TroubleIT {

    @Test
    void aFileThatCannotBeReadSaysWhyWhereItWasDropped() {
        Designer d = new Designer().toProjects();
        d.page.waitForSelector("article");
        int before = d.page.locator("article").count();
        d.page.setInputFiles(
                "input[type=file]",
                new FilePayload("chair.glb", "model/gltf-binary", "{\"a\":1}".getBytes(StandardCharsets.UTF_8)));
        assertThat(d.page.textContent(".drop [role=alert]")).contains("not a glTF model");
        assertThat(d.page.locator("article").count()).isEqualTo(before);
        d.page.setInputFiles("input[type=file]", new FilePayload("huge.glb", "model/gltf-binary", new byte[21 << 20]));
        d.page.waitForFunction("() => document.querySelector('.drop [role=alert]')?.textContent.includes('20 MB')");
        d.close();
    }

    @Test
    void aProjectThatIsNotThereSaysSoAndOffersTheWayBack() {
        Designer d = new Designer().toProjects();
        d.page.navigate(RunningZolvan.get().address + "/projects/00000000-0000-0000-0000-000000000000");
        d.page.waitForSelector("text=There is no such project, or it isn’t yours.");
        d.page.click("text=All projects");
        d.page.waitForURL("**/projects");
        d.close();
    }

    @Test
    void aChangeMadeElsewhereArrivesByItself() {
        Designer one = new Designer().openLantern();
        Designer other = new Designer().join(one);
        other.selectPart("Strap");
        one.selectPart("Strap");
        one.openFold("Finish");
        other.openFold("Finish").type("Roughness", "0.33");
        one.page.waitForFunction("() => document.querySelector(\"[aria-label='Roughness, typed']\").value === '0.33'");
        other.changing("/undo", () -> other.page.click("[aria-label=Undo]"));
        one.close();
        other.close();
    }
}

package app.zolvan.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.BrowserContext;
import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.FilePayload;
import com.microsoft.playwright.options.WaitForSelectorState;
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

    private static String saved(Designer d) {
        return d.page.textContent("[data-testid=saved]").strip();
    }

    /** Types a roughness, without waiting for anybody's answer. */
    private static void typeRoughness(Designer d, String value) {
        Locator field = d.page.locator("[aria-label='Roughness, typed']");
        field.fill(value);
        field.press("Enter");
    }

    private static void waitUntilSaved(Designer d) {
        d.page.waitForFunction("() => document.querySelector('[data-testid=saved]').textContent.trim() === 'saved'");
        d.waitUntilDrawn();
    }

    @Test
    void aChangeMadeWhileNobodyAnswersIsSentWhenSomebodyDoes() {
        Designer d = new Designer().openLantern();
        d.selectPart("Strap");
        d.openFold("Finish");
        d.page.context().setOffline(true);
        typeRoughness(d, "0.42");
        d.page.waitForSelector("[role=status]:has-text('can’t be reached. 1 change waits here')");
        assertThat(saved(d)).isEqualTo("not saved yet");
        d.page.context().setOffline(false);
        waitUntilSaved(d);
        d.page.waitForSelector(
                "[role=status]:has-text('can’t be reached')",
                new Page.WaitForSelectorOptions().setState(WaitForSelectorState.HIDDEN));
        d.reopen().selectPart("Strap");
        d.openFold("Finish");
        assertThat(d.page.inputValue("[aria-label='Roughness, typed']")).isEqualTo("0.42");
        d.changing("/undo", () -> d.page.click("[aria-label=Undo]"));
        assertThat(d.page.isDisabled("[aria-label=Undo]"))
                .as("it was done once")
                .isTrue();
        d.close();
    }

    @Test
    void aSessionThatEndedIsOpenedAgainOverThePageAndNothingIsLost() {
        Designer d = new Designer().openLantern();
        d.selectPart("Strap");
        d.openFold("Finish");
        d.page.context().clearCookies(new BrowserContext.ClearCookiesOptions().setName("zolvan-session"));
        typeRoughness(d, "0.37");
        d.page.waitForSelector("[aria-label='Sign in again']:has-text('1 change will be sent')");
        d.page.fill("[aria-label='Sign in again'] [name=password]", "wrong");
        d.page.keyboard().press("Enter");
        d.page.waitForSelector("[aria-label='Sign in again'] [role=alert]:has-text('don’t match')");
        assertThat(saved(d)).isEqualTo("not saved yet");
        d.page.fill("[aria-label='Sign in again'] [name=password]", RunningZolvan.PASSWORD);
        d.page.keyboard().press("Enter");
        waitUntilSaved(d);
        assertThat(d.page.inputValue("[aria-label='Roughness, typed']")).isEqualTo("0.37");
        d.close();
    }
}

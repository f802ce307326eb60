package app.zolvan.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import com.microsoft.playwright.options.WaitForSelectorState;
import org.junit.jupiter.api.Test;

/** A designer keeps materials for the next project, looks closely at one, and takes a supplier's sample. */
class KeepingIT {
    private static final String OWN = "button.drawer:has-text('My library')";

    @Test
    void chipsAreDroppedOnDrawersPutInOrderAndLaidOutAsAKit() {
        Designer d = new Designer().openLantern();
        Page page = d.page;
        page.keyboard().press("t");
        page.waitForSelector(OWN);
        carry(page, ".sample-tray [data-code=PT-014]", OWN);
        page.waitForSelector(OWN + ":has-text('1')");
        carry(page, ".sample-tray [data-code=MT-003]", OWN);
        page.waitForSelector(OWN + ":has-text('2')");

        page.click("text=Look after libraries");
        page.click(".desk button[role=radio]:has-text('Drawers')");
        for (String name : new String[] {"Lantern fronts", "Lantern trim"}) {
            page.fill("[aria-label='New drawer']", name);
            page.keyboard().press("Enter");
            page.waitForSelector(".desk li:has-text('" + name + "')");
        }
        page.focus(".desk li:has-text('Lantern trim')");
        page.keyboard().press("Alt+ArrowUp");
        page.waitForSelector(".desk li:first-child:has-text('Lantern trim')");
        page.click(".desk button[role=radio]:has-text('Materials')");
        page.click(".desk [data-code=MT-501]");
        page.selectOption(".desk [aria-label='Move to a drawer']", "Lantern trim");
        page.waitForSelector("button.drawer:has-text('Lantern trim'):has-text('1')");
        page.click(".desk button[role=radio]:has-text('Kits')");
        page.fill("[aria-label='Name of the kit']", "House set");
        page.keyboard().press("Enter");
        page.waitForSelector(".desk .kit:has-text('House set'):has-text(' materials')");
        page.click("text=Back to the tray");

        page.fill("#tray-search", "PT-501");
        page.waitForSelector(".sample-tray [data-code=PT-501]");
        page.click(".sample-tray [data-code=PT-501]");
        page.keyboard().press("Escape");
        page.click("text=Look closely");
        page.waitForSelector(".closer img");
        page.waitForSelector(".closer [role=status]");
        page.close();
    }

    @Test
    void aSlantedSampleIsBroughtInStraight() {
        Designer d = new Designer().openLantern();
        Page page = d.page;
        page.waitForSelector(OWN);
        page.click("button.drawer:has-text('Supplier')");
        page.fill("[aria-label='Find a sample']", "honeycomb");
        page.waitForSelector("[data-article=BW-320] img");
        page.click("[data-article=BW-320]");
        page.waitForSelector("text=cut out and straightened");
        assertThat(page.textContent(".shelf .right"))
                .contains("Taken at a slant")
                .contains("340 m² in stock");
        d.changing("/supplier/BW-320", () -> page.click("text=Bring into the palette"));
        page.click("button.drawer:has-text('Palette')");
        page.waitForSelector(".sample-tray [data-code=BW-320]");
        d.changing("/undo", () -> page.keyboard().press("Control+z"));
        page.waitForSelector(".sample-tray [data-code=BW-320]", hidden());
        page.close();
    }

    private static Page.WaitForSelectorOptions hidden() {
        return new Page.WaitForSelectorOptions().setState(WaitForSelectorState.HIDDEN);
    }

    private static void carry(Page page, String chip, String onto) {
        BoundingBox from = page.locator(chip).boundingBox();
        BoundingBox to = page.locator(onto).boundingBox();
        page.mouse().move(from.x + from.width / 2, from.y + from.height / 2);
        page.mouse().down();
        page.mouse().move(to.x + to.width / 2 + 8, to.y + to.height / 2);
        page.mouse().move(to.x + to.width / 2, to.y + to.height / 2);
        page.waitForSelector("button.drawer.takes");
        page.mouse().up();
    }
}

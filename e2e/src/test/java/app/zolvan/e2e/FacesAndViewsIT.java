package app.zolvan.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import java.awt.Color;
import org.junit.jupiter.api.Test;

/** A piece of a part's surface with a look by itself, and views that are kept. */
class FacesAndViewsIT {
    private static final double BASE_X = 0.58;
    private static final double BASE_Y = 0.84;

    /** Of the hood, above which there is nothing. */
    private static final double HOOD_X = 0.47;

    private static final double HOOD_Y = 0.31;

    /** Beside the lantern. */
    private static final double CLOTH_X = 0.1;

    private static final double CLOTH_Y = 0.3;

    private final Designer d = new Designer();

    private void click(double x, double y) {
        BoundingBox stage = d.page.locator("[data-testid=stage]").boundingBox();
        d.page.mouse().click(stage.x + x * stage.width, stage.y + y * stage.height);
    }

    /** The colour of the base alone, without outlines. */
    private Color baseColour() {
        d.page.keyboard().down("j");
        Color colour = d.waitUntilDrawn().colourAt(BASE_X, BASE_Y);
        d.page.keyboard().up("j");
        d.waitUntilDrawn();
        return colour;
    }

    private String camera() {
        d.waitUntilDrawn();
        return d.page.getAttribute("[data-testid=stage]", "data-camera");
    }

    @Test
    void aFaceIsCutAndDressedAndAViewIsKeptAndGoneBackTo() {
        d.openLantern();
        Color before = baseColour();
        d.selectPart("Base");
        d.page.click("[aria-label='Cut a face']");
        d.page.click("text=Smooth areas");
        d.waitUntilDrawn();
        click(BASE_X, BASE_Y);
        d.page.waitForSelector("[aria-label='Cutting a face'] [role=status]:has-text('triangles')");
        d.page.fill("[aria-label='Name of the face']", "Wall");
        d.changing("/own-faces", () -> d.page.click("text=Make the face"));
        d.page.waitForSelector("[aria-label='Faces of this part'] .on:has-text('Wall')");
        assertThat(baseColour()).as("looks as before").is(Designer.about(before));

        d.openDrawer("Paint").carry("PT-017", BASE_X, BASE_Y);
        d.page.keyboard().down("Shift");
        d.page.waitForSelector(".tag:has-text('face Wall of Base')");
        d.changing("/assignments", () -> d.page.mouse().up());
        d.page.keyboard().up("Shift");
        Color green = baseColour();
        assertThat(green.getRed()).as("dark green in the place of red").isLessThan(before.getRed() - 40);
        assertThat(green.getGreen()).isGreaterThanOrEqualTo(green.getRed());
        assertThat(d.page.textContent(".strata .layer.wins")).contains("face").contains("Bottle enamel");
        d.changing("/join", () -> d.page.click("[aria-label='Join Wall to the part again']"));
        assertThat(baseColour()).is(Designer.about(before));
        for (int i = 0; i < 3; i++) {
            d.changing("/undo", () -> d.page.click("[aria-label=Undo]"));
        }
        assertThat(d.page.querySelector("[aria-label='Faces of this part']")).isNull();

        String first = camera();
        d.page.click(".bar >> text=Views");
        d.page.fill("[aria-label='Name of this view']", "As it comes");
        d.changing("/views", () -> d.page.click("text=Keep this view"));
        d.page.waitForSelector(".views img");
        d.page.keyboard().press("Escape");
        d.page.keyboard().press("v");
        d.page.waitForSelector(".note:has-text('Click where you stand')");
        click(HOOD_X, HOOD_Y);
        d.page.waitForSelector("[role=status]:has-text('above the floor, outside')");
        assertThat(camera()).isNotEqualTo(first);
        d.page.click(".bar >> text=Views");
        d.page.click("[aria-label='Go to As it comes']");
        d.page.waitForFunction(
                "wanted => document.querySelector('[data-testid=stage]').dataset.camera === wanted", first);
        d.changing("/undo", () -> d.page.click("[aria-label=Undo]"));
        d.close();
    }

    @Test
    void whatIsLeftOpenIsListedAndADiagramSaysWhatItsColoursStandFor() {
        d.openLantern();
        d.selectPart("Hood");
        d.page.click("[aria-label='Leave open']");
        d.page.fill("[aria-label='What is left open']", "Gloss or matt?");
        d.changing("/notes", () -> d.page.click("text=Note it"));
        d.page.click("[aria-label=History]");
        assertThat(d.page.textContent("[aria-label='Left open']"))
                .contains("Hood")
                .contains("Gloss or matt?");
        d.changing("/settled", () -> d.page.click("text=Settled"));
        d.page.waitForSelector("text=Show 1 settled");
        for (int i = 0; i < 2; i++) {
            d.changing("/undo", () -> d.page.click("[aria-label=Undo]"));
        }
        d.page.click("[aria-label=Close]");

        d.page.click(".bar >> text=Looks");
        d.page.click("[aria-label='What the stage shows'] >> text=By area");
        d.page.waitForSelector(".diagram li:has-text('Guard')");
        d.waitUntilDrawn();
        Color code = d.colourAt(BASE_X, BASE_Y);
        assertThat(baseColour()).as("the look alone").isNotEqualTo(code);
        d.page.click(".diagram li:has-text('Guard') button");
        assertThat(d.page.locator(".ledger .row.on").count()).isGreaterThan(1);

        d.page.click(".bar >> text=By area");
        d.page.click("[aria-label='What the stage shows'] >> text=By material");
        d.page.click(".diagram .edit >> nth=0");
        String[] hatches = {"Hatch 4", "Hatch 1"}; // whichever it has not
        String other = d.page.isVisible(".diagram [aria-label='Hatch 4'].on") ? hatches[1] : hatches[0];
        d.changing("/facts", () -> d.page.click(".diagram [aria-label='" + other + "']"));
        d.page.waitForSelector(".diagram [aria-label='" + other + "'].on");
        d.changing("/undo", () -> d.page.click("[aria-label=Undo]"));
        d.page.waitForSelector(".diagram [aria-label='" + other + "']:not(.on)");
        d.close();
    }

    /** needs.md R02: one switch between the quick view and the accurate picture, from the same camera. */
    @Test
    void theProofShowsTheSameViewWithItsLightTraced() {
        d.openLantern();
        Color cloth = d.colourAt(CLOTH_X, CLOTH_Y);
        d.page.keyboard().press("p");
        waitForProof();
        d.page.waitForSelector("[aria-label=Proof] a[download]");
        assertThat(apart(d.colourAt(CLOTH_X, CLOTH_Y), cloth))
                .as("before the same cloth")
                .isLessThan(8);
        assertThat(apart(d.colourAt(HOOD_X, HOOD_Y), cloth)).as("the hood").isGreaterThan(20);

        BoundingBox stage = d.page.locator("[data-testid=stage]").boundingBox();
        d.page.mouse().move(stage.x + 60, stage.y + 80);
        d.page.mouse().down();
        d.page.mouse().move(stage.x + 110, stage.y + 80);
        assertThat(d.page.locator("img.proof").count()).as("from elsewhere").isZero();
        d.page.mouse().up();
        waitForProof();
        d.page.keyboard().press("p");
        d.page.waitForCondition(
                () -> d.page.locator("img.proof, [aria-label=Proof]").count() == 0);
        d.close();
    }

    /** By how much two colours differ in the component in which they differ most. */
    private static int apart(Color one, Color other) {
        return Math.max(
                Math.abs(one.getRed() - other.getRed()),
                Math.max(Math.abs(one.getGreen() - other.getGreen()), Math.abs(one.getBlue() - other.getBlue())));
    }

    private void waitForProof() {
        d.page.waitForFunction(
                "() => document.querySelector('img.proof')?.naturalWidth > 0",
                null,
                new Page.WaitForFunctionOptions().setTimeout(120_000));
    }
}

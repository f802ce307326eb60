package app.zolvan.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.Color;
import org.junit.jupiter.api.Test;

/** Options for a client: made, looked at, compared, explained, and taken back. */
class SchemesIT {
    private static final double BASE_X = 0.58;
    private static final double BASE_Y = 0.84;

    @Test
    void aSchemeIsMadeComparedExplainedAndGoneBackFrom() {
        Designer d = new Designer().openLantern();
        Color red = d.colourAt(BASE_X, BASE_Y);
        d.changing("/state", () -> d.page.click(".divider[aria-label^='B Raw brass']"));
        assertThat(d.colourAt(BASE_X, BASE_Y).getGreen()).isGreaterThan(red.getGreen() + 20);
        d.changing("/state", () -> d.page.click(".divider[aria-label^='A Harbour red']"));
        assertThat(d.colourAt(BASE_X, BASE_Y)).is(Designer.about(red));

        d.page.click("[aria-label='New scheme'] >> nth=0");
        d.page.fill("[aria-label='Name of the new scheme']", "Bottle green");
        d.changing("/state", () -> d.page.click("text=Make scheme"));
        d.page.waitForSelector(".divider.on:has-text('Bottle green')");
        assertThat(d.page.textContent(".divider.on")).contains("D");
        d.openDrawer("Paint").drop("PT-017", BASE_X, BASE_Y);
        assertThat(d.page.isVisible(".strata"))
                .as("the look card in the place of the scheme’s")
                .isTrue();
        Color green = d.colourAt(BASE_X, BASE_Y);
        assertThat(green.getGreen()).isGreaterThan(green.getRed());

        d.page.dragAndDrop(".divider[aria-label^='D ']", ".divider[aria-label^='A ']");
        d.page.waitForSelector("[aria-label=Differences] li");
        assertThat(d.page.textContent("[aria-label=Differences] li"))
                .contains("Bottle enamel → Harbour red enamel")
                .contains("3 parts")
                .contains("ΔE");
        d.redrawing(() -> d.page.keyboard().down("c"));
        assertThat(d.colourAt(BASE_X, BASE_Y))
                .as("the other scheme while C is held")
                .is(Designer.about(red));
        d.redrawing(() -> d.page.keyboard().up("c"));
        assertThat(d.colourAt(BASE_X, BASE_Y)).is(Designer.about(green));

        d.page.hover("[data-testid=stage] canvas");
        d.page.keyboard().press("w");
        d.page.waitForSelector("[role=dialog][aria-label='Why this look?']");
        assertThat(d.page.textContent("[role=dialog] p")).contains(" because ");
        d.page.keyboard().press("Escape");

        d.page.keyboard().press("h");
        d.page.hover("[aria-label=History] li:has-text('New scheme D')");
        d.changing(
                "/return", () -> d.page.click("[aria-label=History] li:has-text('New scheme D') >> text=Back to here"));
        assertThat(d.colourAt(BASE_X, BASE_Y)).as("nothing differs any more").is(Designer.about(red));
        d.changing("/undo", () -> d.page.click("[aria-label=Undo]"));
        assertThat(d.colourAt(BASE_X, BASE_Y)).is(Designer.about(green));
        for (int i = 0; i < 2; i++) {
            d.changing("/undo", () -> d.page.click("[aria-label=Undo]"));
        }
        assertThat(d.page.textContent(".divider.on")).as("the scheme is gone").contains("Harbour red");
        d.close();
    }

    /** One looks into a part, and somebody on another page sees it at once. */
    @Test
    void whatOneDoesAndLooksAtTheOtherSees() {
        Designer d = new Designer().openLantern();
        Color red = d.colourAt(BASE_X, BASE_Y);
        Designer other = new Designer().join(d);
        d.page.waitForSelector("[aria-label='Others on this project'] [aria-label*='on another page']");
        d.selectPart("Base");
        other.page.waitForSelector("[aria-label='Others on this project'] [aria-label*='has selected Base']");

        other.redrawing(() -> d.changing("/looked-into", () -> d.page.click("[aria-label='Look inside']")));
        assertThat(other.colourAt(BASE_X, BASE_Y)).isNotEqualTo(red);
        d.changing("/undo", () -> d.page.click("[aria-label=Undo]"));
        other.close();
        d.page.waitForFunction("() => !document.querySelector(\"[aria-label='Others on this project']\")");
        d.close();
    }
}

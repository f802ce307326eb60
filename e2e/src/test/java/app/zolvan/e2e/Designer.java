package app.zolvan.e2e;

import static com.microsoft.playwright.options.WaitForSelectorState.DETACHED;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Response;
import com.microsoft.playwright.options.BoundingBox;
import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import javax.imageio.ImageIO;
import org.assertj.core.api.Condition;

/** What a designer does with mouse and keyboard, and sees. */
final class Designer {
    /** Milliseconds in which a busy machine draws a few frames. */
    private static final int DRAWING = 120_000;

    /** Most steps of 255 by which the same colour may come out otherwise. */
    private static final int MUCH = 4;

    final Page page;
    /** What the stage said of the last drop. */
    String notice = "";

    private final RunningZolvan zolvan = RunningZolvan.get();
    private final double sharpness;

    Designer() {
        this(0.25);
    }

    /** @param sharpness pixels of the screen for each that is laid out */
    Designer(double sharpness) {
        this.sharpness = sharpness;
        page = zolvan.takePage(sharpness);
        if (!page.url().endsWith("/projects")) {
            toProjects(); // while it waited, it followed somebody's import into the new project
        }
    }

    /** One whose screen is worth a look. */
    static Designer sharpSighted() {
        return new Designer(1);
    }

    /** Goes to the list of projects, where a page begins. */
    Designer toProjects() {
        go("/projects");
        page.waitForSelector("[data-testid=stage]", new Page.WaitForSelectorOptions().setState(DETACHED));
        page.waitForSelector("article");
        return this;
    }

    /** Goes somewhere as a link within the page does: what it has compiled stays. */
    private void go(String path) {
        page.evaluate(
                "path => { history.pushState(null, '', path); dispatchEvent(new PopStateEvent('popstate')) }", path);
    }

    /** Opens a lantern of one's own. */
    Designer openLantern() {
        return open("Pilot storm lantern");
    }

    /** Opens a copy of a demo project that nobody has touched. */
    Designer open(String name) {
        go("/projects/" + FreshProject.of(name));
        return waitUntilOpen();
    }

    /** Leaves the project and comes back. */
    Designer reopen() {
        String here = page.url().substring(zolvan.address.length());
        toProjects();
        go(here);
        return waitUntilOpen();
    }

    /** Opens what somebody else has open. */
    Designer join(Designer other) {
        go(other.page.url().substring(zolvan.address.length()));
        return waitUntilOpen();
    }

    private Designer waitUntilOpen() {
        page.waitForSelector(".ledger .row");
        return waitUntilDrawn();
    }

    /** Waits for the stage's own word that nothing more is on its way. */
    Designer waitUntilDrawn() {
        return waitUntilDrawnSince(0);
    }

    /** A copy after one more frame. */
    private Designer waitUntilDrawnSince(int frames) {
        page.waitForFunction(
                "frames => { const s = document.querySelector('[data-testid=stage]');"
                        + " return s && s.dataset.busy === 'false' && Number(s.dataset.drawn) > frames }",
                frames,
                new Page.WaitForFunctionOptions().setTimeout(DRAWING));
        return this;
    }

    /** Frames that the stage has drawn. */
    private int frames() {
        return Integer.parseInt(page.getAttribute("[data-testid=stage]", "data-drawn"));
    }

    /** Does something that the stage shows by itself, here or on somebody else's page, and waits until it does. */
    Designer redrawing(Runnable action) {
        int before = frames();
        action.run();
        return waitUntilDrawnSince(before);
    }

    /** Leaves the page to the next walk. */
    void close() {
        toProjects();
        zolvan.giveBack(page, sharpness);
    }

    /** Does something that the server answers, and waits for the stage to show it. */
    Response changing(String path, Runnable action) {
        Response r = page.waitForResponse(response -> response.url().contains(path), action);
        r.finished();
        page.waitForFunction("() => document.querySelector('[data-testid=saved]').textContent.trim() === 'saved'");
        page.evaluate("() => new Promise((f) => requestAnimationFrame(() => requestAnimationFrame(f)))");
        waitUntilDrawn();
        return r;
    }

    Designer openDrawer(String name) {
        page.click("button.drawer:has(> .name:text-is('" + name + "'))");
        return this;
    }

    /** Carries a chip from the tray to a point of the stage, given in shares of its width and height. */
    void carry(String code, double x, double y) {
        carryFrom(".sample-tray [data-code='" + code + "']", x, y);
    }

    /** The same of anything that can be carried. */
    void carryFrom(String what, double x, double y) {
        BoundingBox from = page.locator(what).boundingBox();
        BoundingBox stage = page.locator("[data-testid=stage]").boundingBox();
        page.mouse().move(from.x + from.width / 2, from.y + Math.min(40, from.height / 2));
        page.mouse().down();
        page.mouse().move(from.x + from.width / 2 + 20, from.y - 30, new Mouse.MoveOptions().setSteps(3));
        page.mouse().move(stage.x + x * stage.width, stage.y + y * stage.height, new Mouse.MoveOptions().setSteps(4));
        page.waitForSelector(".tag");
    }

    void drop(String code, double x, double y) {
        carry(code, x, y);
        changing("/assignments", () -> {
            page.mouse().up();
            notice = page.textContent("[role=status]"); // it goes by itself after a while
        });
    }

    void selectPart(String name) {
        page.locator(".ledger .row:not(.group)")
                .filter(new Locator.FilterOptions().setHasText(name))
                .first()
                .click();
        page.waitForSelector(".strata .layer");
        waitUntilDrawn();
    }

    /** Opens a part of the look card, if it is closed. */
    Designer openFold(String title) {
        Locator head = page.locator(".card [aria-label='" + title + "'] > .head");
        if ("false".equals(head.getAttribute("aria-expanded"))) {
            head.click();
        }
        return this;
    }

    /** Types a value into the number beside a slider. */
    void type(String slider, String value) {
        Locator field = page.locator("[aria-label='" + slider + ", typed']");
        changing("/adjustments", () -> {
            field.fill(value);
            field.press("Enter");
        });
    }

    /** The stage's mean colour around a point, given in shares. */
    Color colourAt(double x, double y) {
        page.evaluate("() => new Promise((f) => requestAnimationFrame(() => requestAnimationFrame(f)))");
        BufferedImage image = picture(page.locator("[data-testid=stage]").screenshot());
        int cx = (int) (x * image.getWidth());
        int cy = (int) (y * image.getHeight());
        int around = Math.max(1, Math.min(3, (int) (6 * sharpness)));
        int[] sum = new int[3];
        int n = 0;
        for (int dy = -around; dy <= around; dy++) {
            for (int dx = -around; dx <= around; dx++, n++) {
                Color c = new Color(image.getRGB(cx + dx, cy + dy));
                sum[0] += c.getRed();
                sum[1] += c.getGreen();
                sum[2] += c.getBlue();
            }
        }
        return new Color(sum[0] / n, sum[1] / n, sum[2] / n);
    }

    /** A colour that nobody could tell from another: drafts and fine pictures of one look differ by as little. */
    static Condition<Color> about(Color other) {
        return new Condition<>(
                c -> Math.abs(c.getRed() - other.getRed()) <= MUCH
                        && Math.abs(c.getGreen() - other.getGreen()) <= MUCH
                        && Math.abs(c.getBlue() - other.getBlue()) <= MUCH,
                "about %s",
                other);
    }

    static BufferedImage picture(byte[] png) {
        try {
            return ImageIO.read(new ByteArrayInputStream(png));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    String cardTitle() {
        return page.textContent("aside.card h1");
    }
}

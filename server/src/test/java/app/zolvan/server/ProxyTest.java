package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

/** Behind a proxy that speaks TLS, and where somebody only says so. */
class ProxyTest extends ServerTest {
    private static final String HSTS = "Strict-Transport-Security";

    @Test
    void cookiesAreSecureAndBrowsersKeepToTlsWhereTheProxyIsTrusted() {
        try (OtherServer behind =
                new OtherServer(TestDatabase.get().url(), "--server.forward-headers-strategy=native")) {
            Browser.Answer answer = behind.browser().getThroughProxy("/api/session/start");
            assertThat(answer.raw().headers().firstValue(HSTS)).isPresent();
            assertThat(cookies(answer)).isNotEmpty().allMatch(c -> c.contains("Secure"));
            assertThat(behind.browser()
                            .get("/api/session/start")
                            .raw()
                            .headers()
                            .firstValue(HSTS))
                    .isEmpty();
        }
    }

    @Test
    void whatABrowserSaysOfAProxyIsNotBelievedByDefault() {
        Browser.Answer answer = stranger().getThroughProxy("/api/session/start");
        assertThat(answer.raw().headers().firstValue(HSTS)).isEmpty();
        assertThat(cookies(answer)).isNotEmpty().noneMatch(c -> c.contains("Secure"));
    }

    private static List<String> cookies(Browser.Answer answer) {
        return answer.raw().headers().allValues("Set-Cookie");
    }
}

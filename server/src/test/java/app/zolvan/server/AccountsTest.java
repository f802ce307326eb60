package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Accounts as administrators and their owners deal with them. */
class AccountsTest extends ServerTest {
    private static final String OWN = "a-word-of-my-own";

    private String login;
    private Browser guest;

    @BeforeEach
    void makeAGuest() {
        setAdministrator(true);
        login = "guest-" + UUID.randomUUID();
        Map<String, Object> account = Map.of("login", login, "name", "Guest", "password", "long-enough-1");
        assertThat(browser.post("/api/accounts", account).status()).isEqualTo(201);
        assertThat(browser.post("/api/accounts", account).status()).as("taken").isEqualTo(422);
        guest = fresh();
        database.update("delete from failed_sign_in");
    }

    /** A browser that has been to the page and has its token against forged requests. */
    private Browser fresh() {
        Browser b = stranger();
        b.get("/api/session/start");
        return b;
    }

    @AfterEach
    void administratorNoLonger() {
        setAdministrator(false);
    }

    private void setAdministrator(boolean on) {
        database.update("update account set administrator = ? where login = ?", on, browser.login());
    }

    private JsonNode listed() {
        for (JsonNode a : browser.get("/api/accounts").json()) {
            if (a.get("login").asString().equals(login)) {
                return a;
            }
        }
        throw new AssertionError("not listed");
    }

    private String path(String rest) {
        return "/api/accounts/" + listed().get("id").asString() + rest;
    }

    private Browser.Answer signIn(String password, String next) {
        return guest.post("/api/session", Map.of("login", login, "password", password, "next", next));
    }

    @Test
    void aFirstPasswordIsForOneTimeOnly() {
        Browser.Answer due = guest.signIn(login, "long-enough-1");
        assertThat(due.status()).isEqualTo(403);
        assertThat(due.problem()).isEqualTo("password-due");
        assertThat(signIn("long-enough-1", "long-enough-1").sentence()).contains("the password you have already");
        assertThat(signIn("long-enough-1", "aaaaaaaaaaaa").sentence()).contains("anybody would try");
        assertThat(signIn("long-enough-1", "é".repeat(40)).sentence()).contains("at most 72");
        assertThat(signIn("long-enough-1", OWN).status()).isEqualTo(200);
        assertThat(stranger().signIn(login, OWN).status()).isEqualTo(200);
        assertThat(stranger().signIn(login, "long-enough-1").status()).isEqualTo(401);
        assertThat(listed().get("seen").isNull()).isFalse();
    }

    @Test
    void onlyAdministratorsLookAfterAccounts() {
        signIn("long-enough-1", OWN);
        String mine = path("");
        assertThat(guest.get("/api/accounts").status()).isEqualTo(403);
        assertThat(guest.get("/api/accounts/audit").status()).isEqualTo(403);
        assertThat(guest.get("/api/accounts/letters").status()).isEqualTo(403);
        assertThat(guest.post(mine + "/administrator", Map.of("on", true)).status())
                .isEqualTo(403);
        assertThat(guest.post(mine + "/shut", Map.of("on", true)).status()).isEqualTo(403);
        assertThat(guest.post(mine + "/password", Map.of()).status()).isEqualTo(403);
        assertThat(browser.post(path("/administrator"), Map.of("on", true)).status())
                .isEqualTo(200);
        assertThat(guest.get("/api/accounts").status()).as("a second one").isEqualTo(200);
        assertThat(browser.post(path("/shut"), Map.of("on", true)).status()).isEqualTo(200);
        assertThat(guest.get("/api/accounts").status()).as("a shut one is none").isEqualTo(401);
    }

    @Test
    void theLastAdministratorStays() {
        database.update("update account set administrator = false where login <> ?", browser.login());
        try {
            String me = "/api/accounts/"
                    + browser.get("/api/session").json().get("id").asString();
            assertThat(browser.post(me + "/shut", Map.of("on", true)).problem()).isEqualTo("last-administrator");
            assertThat(browser.post(me + "/administrator", Map.of("on", false)).problem())
                    .isEqualTo("last-administrator");
        } finally {
            database.update(
                    "update account set administrator = true where created_at = (select min(created_at) from account)");
        }
    }

    @Test
    void aShutAccountIsSignedOutEverywhereAtOnceAndComesBackWithItsWork() throws InterruptedException {
        signIn("long-enough-1", OWN);
        EventStream heard = guest.events();
        heard.next("event:hello");
        browser.post(path("/shut"), Map.of("on", true));
        assertThat(guest.get("/api/projects").status()).isEqualTo(401);
        heard.ends();
        assertThat(signIn(OWN, OWN + "2").problem()).isEqualTo("shut");
        assertThat(signIn("wrong", OWN).problem())
                .as("no word about it to others")
                .isEqualTo("wrong-password");
        browser.post(path("/shut"), Map.of("on", false));
        assertThat(guest.signIn(login, OWN).status()).isEqualTo(200);
        assertThat(browser.get("/api/accounts/audit").json().toString())
                .contains("account shut", "account opened", "account made", "signed in", login);
    }

    @Test
    void aReplacedPasswordIsToldOnceAndEndsSessions() {
        signIn("long-enough-1", OWN);
        String once =
                browser.post(path("/password"), Map.of()).json().get("password").asString();
        assertThat(once).matches("([a-z2-9]{4}-){3}[a-z2-9]{4}");
        assertThat(guest.get("/api/projects").status()).isEqualTo(401);
        assertThat(guest.signIn(login, OWN).status()).isEqualTo(401);
        assertThat(guest.signIn(login, once).problem()).isEqualTo("password-due");
        assertThat(signIn(once, "another-of-my-own").status()).isEqualTo(200);
    }

    @Test
    void oneChangesOnesOwnPasswordAndSeesWhereOneIsSignedIn() {
        signIn("long-enough-1", OWN);
        Browser other = stranger();
        other.signIn(login, OWN);
        JsonNode own = guest.get("/api/account").json();
        assertThat(own.get("sessions")).hasSize(2);
        assertThat(own.get("administrator").asBoolean()).isFalse();
        Map<String, Object> change = Map.of("present", OWN, "next", "yet-another-word");
        assertThat(guest.put("/api/account/password", Map.of("present", "wrong", "next", "yet-another-word"))
                        .status())
                .isEqualTo(422);
        assertThat(guest.put("/api/account/password", change).json().get("sessions"))
                .hasSize(1);
        assertThat(other.get("/api/projects").status()).as("ended").isEqualTo(401);
        assertThat(guest.get("/api/projects").status()).as("goes on").isEqualTo(200);
    }

    /** Whoever finds a page open does not get to the password by trying. */
    @Test
    void guessesOfThePresentPasswordMakeOneWait() {
        signIn("long-enough-1", OWN);
        Map<String, Object> guess = Map.of("present", "wrong", "next", "yet-another-word");
        for (int i = 0; i < 3; i++) {
            assertThat(guest.put("/api/account/password", guess).status()).isEqualTo(422);
        }
        Browser.Answer right = guest.put("/api/account/password", Map.of("present", OWN, "next", "yet-another-word"));
        assertThat(right.status()).isEqualTo(429);
        assertThat(right.problem()).isEqualTo("locked");
        database.update("delete from failed_sign_in where login = ?", login);
    }

    @Test
    void aLetterLetsOneChooseAPasswordOnce() {
        assertThat(guest.post("/api/session/forgotten", Map.of("login", login)).status())
                .isEqualTo(204);
        assertThat(guest.post("/api/session/forgotten", Map.of("login", "nobody-here"))
                        .status())
                .as("the same where there is nobody")
                .isEqualTo(204);
        JsonNode letter = browser.get("/api/accounts/letters?count=1").json().get(0);
        assertThat(letter.get("login").asString()).isEqualTo(login);
        String word = letter.get("text").asString().replaceAll("(?s).*word=([a-z0-9-]+).*", "$1");
        Map<String, Object> chosen = Map.of("word", word, "password", OWN);
        assertThat(guest.post("/api/session/reset", Map.of("word", "wrong", "password", OWN))
                        .problem())
                .isEqualTo("word");
        assertThat(guest.post("/api/session/reset", chosen).status()).isEqualTo(200);
        assertThat(guest.get("/api/projects").status()).as("signed in").isEqualTo(200);
        assertThat(fresh().post("/api/session/reset", chosen).problem())
                .as("once")
                .isEqualTo("word");
        assertThat(database.queryForObject("select count(*) from password_reset where word = ?", Integer.class, word))
                .as("never as it is")
                .isZero();
    }

    @Test
    void manyWrongPasswordsMakeAnAddressWaitAndTellNothing() {
        for (int i = 0; i < 3; i++) {
            assertThat(guest.signIn(login, "wrong").problem()).isEqualTo("wrong-password");
            assertThat(guest.signIn("nobody-here", "wrong").problem()).isEqualTo("wrong-password");
        }
        for (String name : new String[] {login, "nobody-here"}) {
            Browser.Answer waits = guest.signIn(name, "wrong");
            assertThat(waits.status()).as(name).isEqualTo(429);
            assertThat(waits.sentence()).contains("Try again in 15 minutes");
        }
        database.update("update failed_sign_in set address = '192.0.2.1'");
        assertThat(signIn("long-enough-1", OWN).status()).as("from elsewhere").isEqualTo(200);
        database.update("delete from failed_sign_in");
        for (int i = 0; i < 18; i++) {
            guest.signIn("nobody-" + i, "the same for all");
        }
        assertThat(guest.signIn(login, OWN).status())
                .as("one password for all names")
                .isEqualTo(429);
        database.update("delete from failed_sign_in");
    }

    @Test
    void theFirstAccountNeedsTheWordThatWasPrinted() {
        Map<String, Object> first =
                Map.of("word", "guessed", "login", "me", "displayName", "", "password", "a-word-of-my-own");
        assertThat(fresh().post("/api/session/first", first).problem()).isEqualTo("set-up-word");
    }
}

package app.zolvan.server.account;

import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.problem.Problem;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.http.HttpStatus;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.DelegatingPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;

/**
 * Hashes of passwords and what a password must be. A hash takes a core for a good while, so that no more are worked out at
 * once than half the cores can; no connection and no lock is held meanwhile.
 */
@Component
class Passwords {
    static final int SHORTEST = 10;
    /** Bytes that bcrypt takes in. */
    private static final int LONGEST = 72;

    private static final int PATIENCE_S = 4;
    private static final String BCRYPT = "bcrypt";
    private static final String LETTERS = "abcdefghjkmnpqrstuvwxyz23456789";
    private static final Set<String> COMMON = Set.of(
            "password",
            "passwort",
            "1234567890",
            "12345678901",
            "123456789012",
            "qwertyuiop",
            "qwertzuiop",
            "letmein",
            "iloveyou",
            "administrator",
            "changeme",
            "welcome",
            "sunshine",
            "princess",
            "football",
            "baseball",
            "superman",
            "abcdefghij",
            "0123456789",
            "9876543210",
            "1q2w3e4r5t",
            "harbour-lantern");

    private final PasswordEncoder encoder;
    private final SecureRandom random = new SecureRandom();
    private final Semaphore room =
            new Semaphore(Math.max(1, Runtime.getRuntime().availableProcessors() / 2), true);
    /** Compared with where there is no such account, so that the answer takes as long as for a wrong password. */
    private final String decoy;

    @Autowired
    Passwords(ZolvanProperties properties) {
        this(properties.signIn().strength());
    }

    /** @param strength bcrypt's cost */
    Passwords(int strength) {
        encoder = new DelegatingPasswordEncoder(BCRYPT, Map.of(BCRYPT, new BCryptPasswordEncoder(strength)));
        decoy = encoder.encode(UUID.randomUUID().toString());
    }

    String hash(String password) {
        return inTurn(() -> encoder.encode(password));
    }

    /** @param hash null where there is no account */
    boolean matches(String password, String hash) {
        if (bytes(password) > LONGEST) {
            return false;
        }
        return inTurn(() -> encoder.matches(password, hash == null ? decoy : hash)) && hash != null;
    }

    private <T> T inTurn(Supplier<T> work) {
        boolean mine = false;
        try {
            mine = room.tryAcquire(PATIENCE_S, TimeUnit.SECONDS);
            if (!mine) {
                throw Problem.of(
                        HttpStatus.TOO_MANY_REQUESTS,
                        "busy",
                        "More people are signing in than Zolvan can let in at once. Try again in a moment.");
            }
            return work.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        } finally {
            if (mine) {
                room.release();
            }
        }
    }

    /** Refuses, with a sentence, what is too short, too long or what everybody tries first. */
    void require(String login, String password) {
        if (password.length() < SHORTEST) {
            throw Problem.ofField("password", "A password needs at least " + SHORTEST + " characters.");
        }
        if (bytes(password) > LONGEST) {
            throw Problem.ofField(
                    "password", "A password may be at most 72 letters long; fewer with accents or signs.");
        }
        String plain = password.toLowerCase(Locale.ROOT);
        String stem = plain.replaceAll("[0-9!.?#*_-]+$", "");
        boolean guessable = COMMON.contains(plain)
                || COMMON.contains(stem)
                || stem.equals(login)
                || plain.chars().distinct().count() < 4;
        if (guessable) {
            throw Problem.ofField(
                    "password", "That password is among the first that anybody would try. Take another one.");
        }
    }

    /** Hash of a password that takes another one's place; refused with a sentence where it is that one, or unusable. */
    String replacement(String login, String present, String next) {
        require(login, next);
        if (next.equals(present)) {
            throw Problem.ofField("password", "That is the password you have already. Take another one.");
        }
        return hash(next);
    }

    /** A password to be used once: four groups of four letters. */
    String oneTime() {
        StringBuilder word = new StringBuilder();
        for (int i = 0; i < 16; i++) {
            word.append(i > 0 && i % 4 == 0 ? "-" : "").append(LETTERS.charAt(random.nextInt(LETTERS.length())));
        }
        return word.toString();
    }

    private static int bytes(String password) {
        return password.getBytes(StandardCharsets.UTF_8).length;
    }
}

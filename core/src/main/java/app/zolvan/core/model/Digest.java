package app.zolvan.core.model;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** Names immutable bytes by their SHA-256. */
public final class Digest {
    private Digest() {}

    public static MessageDigest sha256() {
        try {
            return MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java runtime has SHA-256", e);
        }
    }

    /** 64 hexadecimal digits. */
    public static String of(byte[] bytes) {
        return HexFormat.of().formatHex(sha256().digest(bytes));
    }
}

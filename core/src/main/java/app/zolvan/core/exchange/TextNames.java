package app.zolvan.core.exchange;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;

/** Names out of files that do not say how they are encoded. */
public final class TextNames {
    private static final int LONGEST = 200;

    private TextNames() {}

    /** UTF-8 where the bytes are valid UTF-8, else Latin-1. */
    public static String decode(byte[] b, int from, int to) {
        boolean plain = true;
        for (int i = from; i < to && plain; i++) {
            plain = b[i] >= 0;
        }
        if (plain) {
            return new String(b, from, to - from, StandardCharsets.ISO_8859_1);
        }
        try {
            return StandardCharsets.UTF_8
                    .newDecoder()
                    .decode(ByteBuffer.wrap(b, from, to - from))
                    .toString();
        } catch (CharacterCodingException e) {
            return new String(b, from, to - from, StandardCharsets.ISO_8859_1);
        }
    }

    /** A name fit to be shown: no control characters, no blanks around it, not endless; or the other one if none is left. */
    public static String shown(String name, String otherwise) {
        if (name == null) {
            return otherwise;
        }
        String clean = name.replaceAll("[\\p{Cntrl}\\uFFFE\\uFFFF\\uD800-\\uDFFF&&[^\\t]]", " ")
                .strip();
        if (clean.length() > LONGEST) {
            clean = clean.substring(0, LONGEST - 1) + "…";
        }
        return clean.isEmpty() ? otherwise : clean;
    }
}

package app.zolvan.core.exchange.xml;

/** Text made fit for XML 1.0. */
public final class XmlText {
    private XmlText() {}

    /** Appends a value as it may stand between double quotes; characters that XML does not have become blanks. */
    public static StringBuilder attribute(StringBuilder out, String value) {
        value.codePoints().forEach(c -> {
            switch (c) {
                case '<' -> out.append("&lt;");
                case '>' -> out.append("&gt;");
                case '&' -> out.append("&amp;");
                case '"' -> out.append("&quot;");
                default -> out.appendCodePoint(isXml(c) ? c : ' ');
            }
        });
        return out;
    }

    private static boolean isXml(int c) {
        return c >= 0x20 && (c < 0xD800 || c > 0xDFFF) && c != 0xFFFE && c != 0xFFFF;
    }
}

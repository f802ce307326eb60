package app.zolvan.core.exchange.xml;

import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.Reading;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import org.junit.jupiter.api.Test;

class XmlTreeTest {
    private static void parse(String xml, Reading reading) throws ImportException {
        XmlTree.parse(ByteBuffer.wrap(xml.getBytes(StandardCharsets.UTF_8)), "COLLADA", Set.of(), null, reading);
    }

    /** Somebody calls a reading off by an exception from what follows its progress: the file is not to blame. */
    @Test
    void aReadingThatIsCalledOffEndsAsSuch() {
        IllegalStateException off = new IllegalStateException("called off");
        Reading reading = new Reading(
                ImportLimits.STANDARD,
                (share, step) -> {
                    throw off;
                },
                null,
                null);
        String many = "<a>" + "<b/>".repeat(10_000) + "</a>";
        assertThatThrownBy(() -> parse(many, reading)).isSameAs(off);
    }

    @Test
    void whatIsNoXmlIsSaidWithItsLine() {
        assertThatThrownBy(() -> parse("<a>\n<b>\n</a>", Reading.standard()))
                .isInstanceOf(ImportException.class)
                .hasMessageContaining("line 3");
    }
}

package app.zolvan.core.exchange.json;

import java.io.ByteArrayOutputStream;
import java.util.Map;
import tools.jackson.core.JsonGenerator;
import tools.jackson.core.ObjectWriteContext;
import tools.jackson.core.json.JsonFactory;

/** Writes maps, lists, texts, numbers and booleans as JSON. Whole doubles are written without a fraction. */
public final class JsonText {
    private static final JsonFactory FACTORY = new JsonFactory();

    private JsonText() {}

    public static byte[] utf8(Object tree) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (JsonGenerator generator = FACTORY.createGenerator(ObjectWriteContext.empty(), out)) {
            write(generator, tree);
        }
        return out.toByteArray();
    }

    private static void write(JsonGenerator g, Object o) {
        if (o instanceof Map<?, ?> map) {
            g.writeStartObject();
            map.forEach((k, v) -> {
                g.writeName((String) k);
                write(g, v);
            });
            g.writeEndObject();
        } else if (o instanceof Iterable<?> list) {
            g.writeStartArray();
            list.forEach(v -> write(g, v));
            g.writeEndArray();
        } else if (o instanceof double[] numbers) {
            g.writeStartArray();
            for (double d : numbers) {
                write(g, d);
            }
            g.writeEndArray();
        } else if (o instanceof Number n) {
            double d = n.doubleValue();
            if (d == Math.rint(d) && Math.abs(d) < 1L << 53) {
                g.writeNumber((long) d);
            } else {
                g.writeNumber(d);
            }
        } else if (o instanceof Boolean b) {
            g.writeBoolean(b);
        } else if (o == null) {
            g.writeNull();
        } else {
            g.writeString(o.toString());
        }
    }
}

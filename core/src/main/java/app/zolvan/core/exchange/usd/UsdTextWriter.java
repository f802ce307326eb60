package app.zolvan.core.exchange.usd;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.text.PlainNumber;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Map;

/** A layer as text. */
final class UsdTextWriter {
    private static final int FLUSH = 1 << 20;

    private final OutputStream out;
    private StringBuilder text = new StringBuilder("#usda 1.0\n");

    private UsdTextWriter(OutputStream out) {
        this.out = out;
    }

    static void write(UsdPrim layer, OutputStream out) throws IOException {
        UsdTextWriter w = new UsdTextWriter(out);
        w.text.append("(\n");
        for (Map.Entry<String, Object> e : layer.metadata().entrySet()) {
            w.text.append("    ").append(e.getKey()).append(" = ");
            w.value("", e.getValue());
            w.text.append('\n');
        }
        w.text.append(")\n");
        for (UsdPrim child : layer.children().values()) {
            w.text.append('\n');
            w.prim(child, "");
        }
        w.flush(true);
    }

    private void flush(boolean all) throws IOException {
        if (all || text.length() > FLUSH) {
            out.write(text.toString().getBytes(StandardCharsets.UTF_8));
            text = new StringBuilder();
        }
    }

    private void prim(UsdPrim p, String indent) throws IOException {
        text.append(indent).append(p.specifier().name().toLowerCase(Locale.ROOT));
        if (!p.type().isEmpty()) {
            text.append(' ').append(p.type());
        }
        text.append(" \"").append(p.name()).append('"');
        String inner = indent + "    ";
        if (!p.metadata().isEmpty() || !p.arcs().isEmpty()) {
            text.append(" (\n");
            for (Map.Entry<String, Object> e : p.metadata().entrySet()) {
                text.append(inner)
                        .append(e.getValue() instanceof String[] ? "prepend " : "")
                        .append(e.getKey())
                        .append(" = ");
                value("", e.getValue());
                text.append('\n');
            }
            for (UsdPrim.Arc arc : p.arcs()) {
                text.append(inner)
                        .append("prepend references = <")
                        .append(arc.path())
                        .append(">\n");
            }
            text.append(indent).append(')');
        }
        text.append('\n').append(indent).append("{\n");
        for (UsdProperty property : p.properties().values()) {
            property(property, inner);
        }
        for (UsdPrim child : p.children().values()) {
            prim(child, inner);
        }
        text.append(indent).append("}\n");
        flush(false);
    }

    private void property(UsdProperty p, String indent) throws IOException {
        text.append(indent);
        if (UsdWriter.isUniform(p.name())) {
            text.append("uniform ");
        }
        text.append(p.type()).append(' ').append(p.name());
        if (!p.targets().isEmpty()) {
            text.append(p.isRelationship() ? " = <" : ".connect = <")
                    .append(p.targets().get(0))
                    .append('>');
        } else if (p.speaks()) {
            text.append(" = ");
            value(p.type(), valueOf(p));
        }
        if (!p.metadata().isEmpty()) {
            text.append(" (");
            for (Map.Entry<String, Object> e : p.metadata().entrySet()) {
                text.append(' ').append(e.getKey()).append(" = ");
                value("", e.getValue());
            }
            text.append(" )");
        }
        text.append('\n');
    }

    static Object valueOf(UsdProperty p) {
        try {
            return p.value();
        } catch (ImportException e) {
            throw new IllegalStateException(e); // only values read from files can fail
        }
    }

    private void value(String type, Object v) throws IOException {
        if (v instanceof String s) {
            quoted(s);
        } else if (v instanceof UsdProperty.Asset a) {
            text.append('@').append(a.path()).append('@');
        } else if (v instanceof String[] words) {
            text.append('[');
            for (int i = 0; i < words.length; i++) {
                text.append(i > 0 ? ", " : "");
                quoted(words[i]);
            }
            text.append(']');
        } else if (v instanceof int[] ints) {
            text.append('[');
            for (int i = 0; i < ints.length; i++) {
                text.append(i > 0 ? ", " : "").append(ints[i]);
                flush(false);
            }
            text.append(']');
        } else if (v instanceof float[] floats) {
            int width = CrateType.named(type.substring(0, type.length() - 2)).width;
            text.append('[');
            for (int i = 0; i < floats.length; i++) {
                text.append(i == 0 ? "" : ", ").append(width > 1 && i % width == 0 ? "(" : "");
                PlainNumber.append(text, floats[i]);
                text.append(width > 1 && i % width == width - 1 ? ")" : "");
                flush(false);
            }
            text.append(']');
        } else if (v instanceof double[] numbers) {
            tuple(numbers);
        } else {
            text.append(v);
        }
    }

    private void tuple(double[] v) {
        if (v.length == 1) {
            text.append(PlainNumber.of(v[0]));
            return;
        }
        int row = v.length == 16 ? 4 : v.length;
        text.append(v.length == 16 ? "( " : "");
        for (int i = 0; i < v.length; i++) {
            text.append(i % row == 0 ? (i > 0 ? ", (" : "(") : ", ").append(PlainNumber.of(v[i]));
            text.append(i % row == row - 1 ? ")" : "");
        }
        text.append(v.length == 16 ? " )" : "");
    }

    private void quoted(String s) {
        text.append('"');
        for (int i = 0; i < s.length(); i++) {
            char c = s.charAt(i);
            if (c == '"' || c == '\\') {
                text.append('\\').append(c);
            } else {
                text.append(c < ' ' ? ' ' : c);
            }
        }
        text.append('"');
    }
}

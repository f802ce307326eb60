package app.zolvan.core.exchange.xml;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.text.Numbers;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.ByteBuffer;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;

/**
 * An XML document as a light tree of elements. Document types and entities of the document's own are not supported, so
 * that a file can't name another file or grow when read; names are without their prefix. Long lists of numbers go
 * straight into arrays.
 */
public final class XmlTree {
    private static final Pattern ENCODING = Pattern.compile("<\\?xml[^>]*encoding=[\"']([\\w.-]+)");
    private static final int DEEPEST = 300;
    private static final int MOST_ELEMENTS = 4_000_000;

    private final String name;
    private final Map<String, String> attributes;
    private final List<XmlTree> children = new ArrayList<>(2);
    private StringBuilder text;
    private NumberList numbers;

    private XmlTree(String name, Map<String, String> attributes) {
        this.name = name;
        this.attributes = attributes;
    }

    /** Called for elements that a reader takes in as they pass, so that they need not be kept. */
    public interface Taker {
        /** @return true when the element is done with and does not go into the tree */
        boolean take(XmlTree parent, String name, XMLStreamReader at) throws ImportException, XMLStreamException;
    }

    /** @param numberLists names of elements whose text is a list of numbers */
    public static XmlTree parse(ByteBuffer bytes, String format, Set<String> numberLists, Taker taker, Reading reading)
            throws ImportException {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        factory.setProperty(XMLInputFactory.IS_REPLACING_ENTITY_REFERENCES, false);
        factory.setProperty(XMLInputFactory.IS_COALESCING, false);
        factory.setXMLReporter((message, type, information, location) -> {}); // not to the console
        factory.setXMLResolver((publicId, systemId, base, namespace) -> InputStream.nullInputStream());
        ByteBuffer text = bytes.slice();
        boolean marked = text.remaining() > 3 && text.get(0) == (byte) 0xEF && text.get(1) == (byte) 0xBB;
        BufferStream stream = new BufferStream(text.position(marked ? 3 : 0).slice());
        XMLStreamReader in = null;
        try {
            in = factory.createXMLStreamReader(new InputStreamReader(stream, charset(bytes)));
            return build(in, format, numberLists, taker, reading, stream);
        } catch (XMLStreamException e) {
            int line = e.getLocation() == null ? 0 : e.getLocation().getLineNumber();
            throw notXml(format, line);
        } catch (RuntimeException e) { // the JDK's parser throws several kinds on malformed input
            if (reading.isEndedBy(e)) {
                throw e;
            }
            throw notXml(format, in == null ? 0 : in.getLocation().getLineNumber());
        }
    }

    /** What the declaration says, else UTF-8; bytes that are not text in it are replaced rather than refused. */
    private static Charset charset(ByteBuffer bytes) {
        byte[] head = new byte[Math.min(200, bytes.remaining())];
        bytes.slice().get(head);
        boolean wide =
                head.length > 3 && (head[0] == 0 || head[1] == 0 || head[0] == (byte) 0xFE || head[0] == (byte) 0xFF);
        Matcher m = ENCODING.matcher(new String(head, StandardCharsets.ISO_8859_1));
        try {
            return wide ? StandardCharsets.UTF_16 : m.find() ? Charset.forName(m.group(1)) : StandardCharsets.UTF_8;
        } catch (IllegalArgumentException e) {
            return StandardCharsets.UTF_8;
        }
    }

    private static ImportException notXml(String format, int line) {
        return new ImportException(
                "not-xml",
                "The " + format + " file is not valid XML (line " + line
                        + "). It may be cut off or damaged; export it again.");
    }

    private static XmlTree build(
            XMLStreamReader in,
            String format,
            Set<String> numberLists,
            Taker taker,
            Reading reading,
            BufferStream stream)
            throws XMLStreamException, ImportException {
        Deque<XmlTree> open = new ArrayDeque<>();
        XmlTree root = null;
        int count = 0;
        while (in.hasNext()) {
            switch (in.next()) {
                case XMLStreamConstants.START_ELEMENT -> {
                    String name = in.getLocalName();
                    if (taker != null && !open.isEmpty() && taker.take(open.peek(), name, in)) {
                        continue;
                    }
                    if (++count > MOST_ELEMENTS || open.size() > DEEPEST) {
                        throw new ImportException(
                                "too-large",
                                "The " + format + " file has more or deeper entries than Zolvan takes. Export a smaller"
                                        + " part.");
                    }
                    if ((count & 0x3FF) == 0) {
                        reading.charge(0x400 * 200L);
                        reading.progress(0.5 * stream.share(), "Reading the description");
                    }
                    XmlTree e = new XmlTree(name, attributes(in));
                    e.numbers = numberLists.contains(name) ? new NumberList(reading) : null;
                    if (open.isEmpty()) {
                        root = e;
                    } else {
                        open.peek().children.add(e);
                    }
                    open.push(e);
                }
                case XMLStreamConstants.END_ELEMENT -> {
                    XmlTree e = open.pop();
                    if (e.numbers != null) {
                        e.numbers.end();
                    }
                }
                case XMLStreamConstants.CHARACTERS, XMLStreamConstants.CDATA -> {
                    XmlTree e = open.peek();
                    if (e == null) {
                        continue;
                    }
                    if (e.numbers != null) {
                        e.numbers.take(in.getTextCharacters(), in.getTextStart(), in.getTextLength());
                    } else if (!in.isWhiteSpace()) {
                        e.text = e.text == null ? new StringBuilder() : e.text;
                        if (e.text.length() < 1 << 20) {
                            e.text.append(in.getTextCharacters(), in.getTextStart(), in.getTextLength());
                        }
                    }
                }
                default -> {
                    // comments and instructions say nothing
                }
            }
        }
        if (root == null || !open.isEmpty()) {
            throw notXml(format, in.getLocation().getLineNumber());
        }
        return root;
    }

    private static Map<String, String> attributes(XMLStreamReader in) {
        int n = in.getAttributeCount();
        if (n == 0) {
            return Map.of();
        }
        Map<String, String> out = new HashMap<>(2 * n);
        for (int i = 0; i < n; i++) {
            out.put(in.getAttributeLocalName(i), in.getAttributeValue(i));
        }
        return out;
    }

    public String name() {
        return name;
    }

    /** The attribute, or null. */
    public String attribute(String key) {
        return attributes.get(key);
    }

    public String attribute(String key, String otherwise) {
        return attributes.getOrDefault(key, otherwise);
    }

    /** The attribute as a number; NaN when it is none. */
    public double number(String key, double otherwise) {
        String v = attributes.get(key);
        return v == null ? otherwise : parse(v);
    }

    /** A number; some exporters write the decimal comma of their machine's language. */
    public static double parse(String v) {
        byte[] b = v.strip().replace(',', '.').getBytes(StandardCharsets.ISO_8859_1);
        return Numbers.parse(b, 0, b.length);
    }

    public List<XmlTree> children() {
        return children;
    }

    public List<XmlTree> all(String childName) {
        return children.stream().filter(c -> c.name.equals(childName)).toList();
    }

    /** The first child of that name, or null. */
    public XmlTree first(String childName) {
        for (XmlTree c : children) {
            if (c.name.equals(childName)) {
                return c;
            }
        }
        return null;
    }

    /** The element at the end of a chain of first children, or null. */
    public XmlTree path(String... names) {
        XmlTree at = this;
        for (String n : names) {
            at = at == null ? null : at.first(n);
        }
        return at;
    }

    public String text() {
        return text == null ? "" : text.toString().strip();
    }

    /** The numbers of a list element; empty for others. */
    public double[] numbers() {
        return numbers == null ? new double[0] : numbers.toArray();
    }

    /** The numbers in the element's text, for short lists. */
    public double[] textNumbers() {
        return numbers != null
                ? numbers.toArray()
                : Arrays.stream(text().split("\\s+"))
                        .filter(w -> !w.isEmpty())
                        .mapToDouble(XmlTree::parse)
                        .toArray();
    }

    public void forget() {
        numbers = null;
    }

    /** Numbers out of pieces of text that may be cut within a number. */
    private static final class NumberList {
        private final Reading reading;
        private double[] values = new double[16];
        private int size;
        private byte[] word = new byte[64];
        private int length;

        NumberList(Reading reading) {
            this.reading = reading;
        }

        void take(char[] c, int from, int n) throws ImportException {
            for (int i = from; i < from + n; i++) {
                if (c[i] <= ' ') {
                    end();
                } else if (length < word.length) {
                    // some exporters write the decimal comma of their machine's language
                    word[length++] = c[i] == ',' ? (byte) '.' : c[i] < 128 ? (byte) c[i] : (byte) '?';
                }
            }
        }

        void end() throws ImportException {
            if (length > 0) {
                if (size == values.length) {
                    reading.charge(4L * size);
                    values = Arrays.copyOf(values, size + (size >> 1));
                }
                values[size++] = Numbers.parse(word, 0, length);
                length = 0;
            }
        }

        double[] toArray() {
            return Arrays.copyOf(values, size);
        }
    }

    private static final class BufferStream extends InputStream {
        private final ByteBuffer in;
        private final int size;

        BufferStream(ByteBuffer in) {
            this.in = in;
            this.size = Math.max(1, in.remaining());
        }

        double share() {
            return (double) in.position() / size;
        }

        @Override
        public int read() {
            return in.hasRemaining() ? in.get() & 0xFF : -1;
        }

        @Override
        public int read(byte[] b, int off, int len) {
            if (!in.hasRemaining()) {
                return -1;
            }
            int n = Math.min(len, in.remaining());
            in.get(b, off, n);
            return n;
        }
    }
}

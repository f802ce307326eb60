package app.zolvan.demo;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.Straighten;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.random.RandomGenerator;
import javax.imageio.ImageIO;

/**
 * Stands in for the catalogue of a supplier of samples, behind HTTP on this machine alone. As real ones are, it is sometimes slow
 * and sometimes fails, some real sizes and figures are missing, and photographs are as they happened to be taken: good, out of
 * focus, tiny, of a single piece, at a slant, or of a surface that goes on beyond the frame in light that falls off.
 *
 * <p>{@code GET /articles?words=&kind=&from=}, {@code GET /articles/NUMBER}, {@code GET /photos/NUMBER}.
 */
public final class SupplierCatalogue {
    private static final int PAGE = 24;
    private static final int PIXELS = 512;
    private static final int TINY = 96;
    private static final int GROUND = 0xF1F0EC;
    private static final int BLUR = 6;
    private static final double GRAIN = 0.05;
    /** Share of a repeat that lies within the frame, each way. */
    private static final double FRAME = 0.83;

    /** Shares of answers that fail, and that are slow. */
    private static final double FAILING = 0.05;

    private static final double SLOW = 0.08;
    private static final int SLOWEST = 2_500;

    private static final System.Logger LOG = System.getLogger(SupplierCatalogue.class.getName());

    private final RandomGenerator random;
    private final String supplier;
    private final List<JsonValue> articles;
    private final Map<String, byte[]> photos = new ConcurrentHashMap<>();

    /** @param random null for one that is always quick and never fails */
    public SupplierCatalogue(RandomGenerator random) {
        this.random = random;
        try (InputStream in = SupplierCatalogue.class.getResourceAsStream("supplier.json")) {
            JsonValue all = JsonValue.parseTrusted(in);
            supplier = all.require("supplier").text();
            articles = all.list("articles");
        } catch (ImportException | IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private void handle(HttpExchange e) throws IOException {
        try (e) {
            if (random != null && random.nextDouble() < SLOW) {
                Thread.sleep(random.nextInt(SLOWEST));
            }
            if (random != null && random.nextDouble() < FAILING) {
                answer(e, 503, "text/plain", "try again".getBytes(StandardCharsets.US_ASCII));
                return;
            }
            String path = e.getRequestURI().getPath();
            String last = path.substring(path.lastIndexOf('/') + 1);
            if (path.equals("/articles")) {
                answer(e, 200, "application/json", JsonText.utf8(search(query(e))));
            } else if (find(last) == null) {
                answer(e, 404, "text/plain", new byte[0]);
            } else if (path.startsWith("/articles/")) {
                answer(e, 200, "application/json", JsonText.utf8(told(find(last))));
            } else {
                answer(e, 200, "image/png", photos.computeIfAbsent(last, n -> photo(find(n))));
            }
        } catch (InterruptedException stop) {
            Thread.currentThread().interrupt();
        } catch (RuntimeException bad) {
            LOG.log(System.Logger.Level.ERROR, "the catalogue could not answer", bad);
            throw bad;
        }
    }

    private static Map<String, String> query(HttpExchange e) {
        Map<String, String> all = new LinkedHashMap<>();
        String raw = e.getRequestURI().getRawQuery();
        for (String pair : raw == null ? new String[0] : raw.split("&")) {
            int at = pair.indexOf('=');
            if (at > 0) {
                all.put(pair.substring(0, at), URLDecoder.decode(pair.substring(at + 1), StandardCharsets.UTF_8));
            }
        }
        return all;
    }

    private JsonValue find(String number) {
        return articles.stream()
                .filter(a -> text(a, "article").equals(number))
                .findFirst()
                .orElse(null);
    }

    private Map<String, Object> search(Map<String, String> q) {
        String[] words =
                q.getOrDefault("words", "").toLowerCase(Locale.ROOT).strip().split("\\s+");
        List<JsonValue> named = articles.stream()
                .filter(a -> Arrays.stream(words).allMatch(w -> texts(a).contains(w)))
                .toList();
        Map<String, Integer> kinds = new LinkedHashMap<>();
        named.forEach(a -> kinds.merge(text(a, "kind"), 1, Integer::sum));
        String kind = q.getOrDefault("kind", "");
        List<JsonValue> fit = named.stream()
                .filter(a -> kind.isEmpty() || text(a, "kind").equals(kind))
                .toList();
        int from = q.getOrDefault("from", "").matches("\\d{1,6}") ? Integer.parseInt(q.get("from")) : 0;
        Map<String, Object> out = new LinkedHashMap<>();
        out.put("supplier", supplier);
        out.put("total", fit.size());
        out.put("kinds", kinds);
        out.put("articles", fit.stream().skip(from).limit(PAGE).map(this::told).toList());
        return out;
    }

    private static String texts(JsonValue a) {
        try {
            StringBuilder all = new StringBuilder();
            all.append(text(a, "article"))
                    .append(' ')
                    .append(text(a, "name"))
                    .append(' ')
                    .append(text(a, "kind"));
            for (JsonValue w : a.list("words")) {
                all.append(' ').append(w.text());
            }
            return all.toString().toLowerCase(Locale.ROOT);
        } catch (ImportException e) {
            throw new IllegalStateException(e);
        }
    }

    private static String text(JsonValue a, String name) {
        try {
            return a.text(name, "");
        } catch (ImportException e) {
            throw new IllegalStateException(e);
        }
    }

    /** What the catalogue tells of an article; what it does not know is left out. */
    private Map<String, Object> told(JsonValue a) {
        Map<String, Object> out = new LinkedHashMap<>();
        try {
            for (String name : List.of("article", "name", "kind", "licence")) {
                out.put(name, text(a, name));
            }
            List<String> words = new ArrayList<>();
            for (JsonValue w : a.list("words")) {
                words.add(w.text());
            }
            out.put("words", words);
            out.put("supplier", supplier);
            if (a.flag("sizeKnown", false)) {
                out.put("size", shown(a));
            }
            for (String name : List.of("price", "stock", "leadDays", "density", "waste", "carbon")) {
                if (a.has(name)) {
                    out.put(name, a.get(name).number());
                }
            }
        } catch (ImportException e) {
            throw new IllegalStateException(e);
        }
        return out;
    }

    /** The photograph as somebody took it. */
    static byte[] photo(JsonValue a) {
        try {
            BufferedImage surface =
                    grained(ImageFile.decode(ShippedLibrary.colours(a.get("pattern"), PIXELS), (long) PIXELS * PIXELS));
            BufferedImage taken = switch (text(a, "photo")) {
                case "soft" -> blurred(surface);
                case "tiny" -> smaller(surface, TINY);
                case "framed" -> framed(surface);
                case "piece" -> onGround(surface, new double[][] {{64, 88}, {448, 88}, {448, 424}, {64, 424}});
                case "tilted" -> onGround(surface, new double[][] {{120, 72}, {460, 112}, {424, 448}, {48, 400}});
                default -> surface;
            };
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            ImageIO.write(taken, "png", out);
            return out.toByteArray();
        } catch (ImportException | IOException e) {
            throw new IllegalStateException(e);
        }
    }

    /** With the grain that every real surface has under a sharp lens. */
    private static BufferedImage grained(BufferedImage image) {
        Random grain = new Random(GROUND);
        BufferedImage out = new BufferedImage(image.getWidth(), image.getHeight(), BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < image.getHeight(); y++) {
            for (int x = 0; x < image.getWidth(); x++) {
                int rgb = image.getRGB(x, y);
                double more = 1 + GRAIN * grain.nextGaussian();
                int packed = 0;
                for (int shift = 16; shift >= 0; shift -= 8) {
                    int v = (int) Math.round((rgb >> shift & 255) * more);
                    packed |= Math.max(0, Math.min(255, v)) << shift;
                }
                out.setRGB(x, y, packed);
            }
        }
        return out;
    }

    /** Width and height of what a photograph shows, in metres. */
    private static double[] shown(JsonValue a) throws ImportException {
        double[] size = a.get("pattern").numbers("real_size", 1, 1);
        return text(a, "photo").equals("framed") ? new double[] {FRAME * size[0], FRAME * size[1]} : size;
    }

    /** Part of a surface, with the light from the upper left. */
    private static BufferedImage framed(BufferedImage image) {
        int w = (int) Math.round(FRAME * image.getWidth());
        int h = (int) Math.round(FRAME * image.getHeight());
        BufferedImage out = new BufferedImage(w, h, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                double light = 1.06 - 0.12 * (x + y) / (w + h);
                int packed = 0;
                for (int shift = 16; shift >= 0; shift -= 8) {
                    int v = (int) Math.round((image.getRGB(x, y) >> shift & 255) * light);
                    packed |= Math.min(255, v) << shift;
                }
                out.setRGB(x, y, packed);
            }
        }
        return out;
    }

    private static BufferedImage smaller(BufferedImage image, int side) {
        int high = Math.max(1, side * image.getHeight() / image.getWidth());
        BufferedImage out = new BufferedImage(side, high, BufferedImage.TYPE_INT_RGB);
        var g = out.createGraphics();
        g.drawImage(image.getScaledInstance(side, high, java.awt.Image.SCALE_AREA_AVERAGING), 0, 0, null);
        g.dispose();
        return out;
    }

    /** Averages over a square, around the edges, so that it still fits together. */
    private static BufferedImage blurred(BufferedImage image) {
        return blurred(blurred(image, 1, 0), 0, 1);
    }

    private static BufferedImage blurred(BufferedImage image, int dx, int dy) {
        int w = image.getWidth();
        int h = image.getHeight();
        BufferedImage out = new BufferedImage(w, h, BufferedImage.TYPE_INT_RGB);
        int n = 2 * BLUR + 1;
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                int[] sum = new int[3];
                for (int k = -BLUR; k <= BLUR; k++) {
                    int rgb = image.getRGB(Math.floorMod(x + k * dx, w), Math.floorMod(y + k * dy, h));
                    sum[0] += rgb >> 16 & 255;
                    sum[1] += rgb >> 8 & 255;
                    sum[2] += rgb & 255;
                }
                out.setRGB(x, y, ((sum[0] / n) << 16) | ((sum[1] / n) << 8) | (sum[2] / n));
            }
        }
        return out;
    }

    /** A piece on a light table, its corners where they are said to be. */
    private static BufferedImage onGround(BufferedImage piece, double[][] corners) {
        double[] to = Straighten.projection(corners);
        BufferedImage out = new BufferedImage(PIXELS, PIXELS, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < PIXELS; y++) {
            for (int x = 0; x < PIXELS; x++) {
                double[] uv = Straighten.inverse(to, x, y);
                boolean in = uv[0] >= 0 && uv[0] < 1 && uv[1] >= 0 && uv[1] < 1;
                out.setRGB(
                        x,
                        y,
                        in
                                ? piece.getRGB((int) (uv[0] * piece.getWidth()), (int) (uv[1] * piece.getHeight()))
                                : GROUND);
            }
        }
        return out;
    }

    private static void answer(HttpExchange e, int status, String type, byte[] body) throws IOException {
        e.getResponseHeaders().set("Content-Type", type);
        e.sendResponseHeaders(status, body.length == 0 ? -1 : body.length);
        e.getResponseBody().write(body);
    }

    /** Starts answering on a port of the loopback address; 0 takes a free one. */
    public HttpServer serve(int port) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        server.createContext("/", this::handle);
        server.setExecutor(Executors.newFixedThreadPool(4, work -> {
            Thread t = new Thread(work, "catalogue");
            t.setDaemon(true);
            return t;
        }));
        server.start();
        return server;
    }

    /** @param args the port */
    public static void main(String[] args) throws IOException {
        new SupplierCatalogue(RandomGenerator.getDefault()).serve(Integer.parseInt(args[0]));
    }
}

package app.zolvan.core.exchange.imageset;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelAssembly;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.TextNames;
import app.zolvan.core.exchange.imageset.PictureRole.Named;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.model.Model;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.ImageHeader;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.IntUnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Materials from sets of pictures: one a set, its pictures told apart by the common words in their names. Colours are read
 * as sRGB, everything else as numbers, whatever a file says; gloss becomes roughness; a normal map whose green points down
 * is turned.
 */
public final class ImageSet {
    private static final Pattern PICTURE = Pattern.compile("(?i).*\\.(png|jpe?g|webp)");
    /** A size in a name, such as 2m, 60cm or 600mm. */
    private static final Pattern SIZE = Pattern.compile("(?i)(\\d+(?:[.,]\\d+)?)(mm|cm|m)");

    private static final double USUAL = 1;
    private static final double RELIEF = 0.002;
    private static final long MOST_PIXELS = 64_000_000;

    /** So many pixels tell whether a picture can be read. */
    private static final long GLANCE = 10_000;

    private final Reading reading;
    private final ModelAssembly model;

    private ImageSet(Reading reading) {
        this.reading = reading;
        model = new ModelAssembly("Pictures", reading);
    }

    /** One picture of a set. */
    private record Member(String path, Named named) {}

    /** @return a model without parts; without materials where the names tell of no set; a picture that comes alone is one */
    public static Model read(FileSet.Companions files, Reading reading) throws ImportException {
        Map<String, List<Member>> sets = new TreeMap<>();
        for (String path : files.paths()) {
            String file = path.substring(path.lastIndexOf('/') + 1);
            if (path.startsWith("__MACOSX")
                    || file.startsWith(".")
                    || !PICTURE.matcher(file).matches()) {
                continue;
            }
            boolean alone = files.paths().size() == 1; // then it is a colour, whatever it is called
            PictureRole.of(file)
                    .or(() -> alone ? Optional.of(colour(file)) : Optional.empty())
                    .ifPresentOrElse(
                            n -> sets.computeIfAbsent(n.set(), k -> new ArrayList<>())
                                    .add(new Member(path, n)),
                            () -> reading.note(
                                    "“" + file + "”: its name does not say what it is for; it was left out."));
        }
        ImageSet set = new ImageSet(reading);
        for (Map.Entry<String, List<Member>> e : sets.entrySet()) {
            set.material(e.getKey(), e.getValue(), files);
        }
        return set.model.materials();
    }

    private static Named colour(String file) {
        return new Named(PictureRole.COLOUR, file.substring(0, file.lastIndexOf('.')), List.of());
    }

    private void material(String name, List<Member> members, FileSet.Companions files) throws ImportException {
        Map<PictureRole, Member> by = new EnumMap<>(PictureRole.class);
        for (Member m : members) {
            if (by.putIfAbsent(m.named.role(), m) != null) {
                reading.note("“" + m.path + "” is the second of its kind in the set and was left out.");
            }
        }
        String shown = TextNames.shown(sentenceCase(name), "Pictures");
        RealSize size = size(name, shown);
        Surface s = Surface.STANDARD.with(Parameter.SPECULAR_ROUGHNESS, 0.5);
        for (Map.Entry<PictureRole, Member> e : by.entrySet()) {
            ByteBuffer bytes = files.open(e.getValue().path, reading).orElseThrow();
            s = with(s, e.getKey(), e.getValue(), bytes, size, by);
        }
        model.source(new Material("", shown, null, s));
    }

    private Surface with(
            Surface s, PictureRole role, Member m, ByteBuffer bytes, RealSize size, Map<PictureRole, Member> by)
            throws ImportException {
        return switch (role) {
            case COLOUR ->
                use(s.with(Parameter.BASE_COLOR, LinearRgb.WHITE), Parameter.BASE_COLOR, Channel.RGB, m, bytes, size);
            case NORMAL -> use(s, Parameter.GEOMETRY_NORMAL, Channel.RGB, m, upright(m, bytes), size);
            case ROUGHNESS ->
                use(s.with(Parameter.SPECULAR_ROUGHNESS, 1), Parameter.SPECULAR_ROUGHNESS, Channel.G, m, bytes, size);
            case GLOSS -> {
                if (by.containsKey(PictureRole.ROUGHNESS)) {
                    reading.note("“" + m.path + "” tells gloss, which the roughness tells already; it was left out.");
                    yield s;
                }
                reading.note("“" + m.path + "” tells gloss; it was turned into roughness.");
                ByteBuffer rough = changed(bytes, p -> (p & 0xFF000000) | (~p & 0xFFFFFF));
                yield use(
                        s.with(Parameter.SPECULAR_ROUGHNESS, 1),
                        Parameter.SPECULAR_ROUGHNESS,
                        Channel.G,
                        m,
                        rough,
                        size);
            }
            case METALNESS ->
                use(s.with(Parameter.BASE_METALNESS, 1), Parameter.BASE_METALNESS, Channel.B, m, bytes, size);
            case PACKED -> {
                if (by.containsKey(PictureRole.ROUGHNESS) || by.containsKey(PictureRole.METALNESS)) {
                    reading.note(
                            "“" + m.path + "” tells what other pictures of the set tell already; it was left out.");
                    yield s;
                }
                Surface rough = use(
                        s.with(Parameter.SPECULAR_ROUGHNESS, 1),
                        Parameter.SPECULAR_ROUGHNESS,
                        Channel.G,
                        m,
                        bytes,
                        size);
                yield use(rough.with(Parameter.BASE_METALNESS, 1), Parameter.BASE_METALNESS, Channel.B, m, bytes, size);
            }
            case HEIGHT -> {
                yield use(
                        s.with(Parameter.GEOMETRY_HEIGHT, RELIEF),
                        Parameter.GEOMETRY_HEIGHT,
                        Channel.R,
                        m,
                        bytes,
                        size);
            }
            case OCCLUSION -> {
                reading.note("“" + m.path + "” tells occlusion; shading is computed instead, so it was left out.");
                yield s;
            }
            case OPACITY -> use(s, Parameter.GEOMETRY_OPACITY, Channel.R, m, bytes, size);
            case GLOW ->
                use(
                        s.with(Parameter.EMISSION_LUMINANCE, 1000).with(Parameter.EMISSION_COLOR, LinearRgb.WHITE),
                        Parameter.EMISSION_COLOR,
                        Channel.RGB,
                        m,
                        bytes,
                        size);
        };
    }

    private Surface use(Surface s, Parameter p, Channel channel, Member m, ByteBuffer bytes, RealSize size)
            throws ImportException {
        String file = m.path.substring(m.path.lastIndexOf('/') + 1);
        String digest = model.picture(file, bytes);
        if (digest != null && !isReadable(bytes)) {
            reading.note("“" + file + "” can’t be read: it is damaged, or made for print. It was left out.");
            return s;
        }
        return digest == null ? s : s.withTexture(p, TextureUse.repeating(digest, channel, size));
    }

    /** Whether a PNG or JPEG can be decoded; of others nobody here can tell. */
    private static boolean isReadable(ByteBuffer bytes) {
        byte[] file = new byte[bytes.remaining()];
        bytes.slice().get(file);
        boolean ours = ImageHeader.read(ByteBuffer.wrap(file))
                .filter(h -> !h.mediaType().equals("image/webp"))
                .isPresent();
        try {
            return !ours || ImageFile.decode(file, GLANCE) != null;
        } catch (IOException e) {
            return false;
        }
    }

    /** The normal map with green up, as glTF has it. */
    private ByteBuffer upright(Member m, ByteBuffer bytes) throws ImportException {
        if (!PictureRole.saysGreenDown(m.named.words()) && !NormalMaps.isGreenDown(image(bytes))) {
            return bytes;
        }
        reading.note("“" + m.path + "”: its green points down; it was turned to point up.");
        return changed(bytes, p -> (p & 0xFFFF00FF) | (0xFF00 - (p & 0xFF00)));
    }

    private static BufferedImage image(ByteBuffer bytes) throws ImportException {
        byte[] file = new byte[bytes.remaining()];
        bytes.slice().get(file);
        try {
            return ImageFile.decode(file, MOST_PIXELS);
        } catch (IOException e) {
            throw new ImportException(
                    "invalid", "A picture of the set can’t be read. Save it again as PNG or JPEG.", e);
        }
    }

    private static ByteBuffer changed(ByteBuffer bytes, IntUnaryOperator pixel) throws ImportException {
        BufferedImage from = image(bytes);
        BufferedImage to = new BufferedImage(from.getWidth(), from.getHeight(), BufferedImage.TYPE_INT_RGB);
        int w = from.getWidth();
        int[] row = new int[w];
        for (int y = 0; y < from.getHeight(); y++) {
            from.getRGB(0, y, w, 1, row, 0, w);
            for (int x = 0; x < w; x++) {
                row[x] = pixel.applyAsInt(row[x]);
            }
            to.setRGB(0, y, w, 1, row, 0, w);
        }
        try {
            return ByteBuffer.wrap(ImageFile.png(to));
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private RealSize size(String name, String shown) {
        for (String word : name.split(" ")) {
            Matcher m = SIZE.matcher(word);
            if (m.matches()) {
                double unit = switch (m.group(2).toLowerCase(Locale.ROOT)) {
                    case "mm" -> 0.001;
                    case "cm" -> 0.01;
                    default -> 1;
                };
                double metres = Double.parseDouble(m.group(1).replace(',', '.')) * unit;
                if (metres > 0 && metres < 1000) {
                    return new RealSize(metres, metres);
                }
            }
        }
        reading.note("“" + shown + "”: no real size came with the pictures; one repeat is taken as 1 m.");
        return new RealSize(USUAL, USUAL);
    }

    private static String sentenceCase(String name) {
        String plain = name.strip().toLowerCase(Locale.ROOT);
        return plain.isEmpty() ? plain : Character.toUpperCase(plain.charAt(0)) + plain.substring(1);
    }
}

package app.zolvan.core.adjust;

import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.measure.PictureMeasure;
import app.zolvan.core.model.Digest;
import app.zolvan.core.texture.EdgeFit;
import app.zolvan.core.texture.EdgeFit.Holds;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.ImageHeader;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;

/**
 * A surface whose pictures meet at their edges. Pictures of one real size lie over one another, and are cut alike; a repeat is
 * as much smaller as was cut off, so that nothing on them changes its size.
 *
 * @param surface  with the new pictures
 * @param pictures the new ones, encoded, by their digests
 */
public record EdgesMet(Surface surface, Map<String, byte[]> pictures) {
    private static final long MOST_PIXELS = 16L << 20;

    private record Laid(Parameter parameter, TextureUse use, byte[] file, BufferedImage image) {
        Holds holds() {
            return parameter == Parameter.GEOMETRY_NORMAL
                    ? Holds.NORMALS
                    : parameter.shape() == Parameter.Shape.COLOUR ? Holds.COLOURS : Holds.NUMBERS;
        }

        boolean meets() {
            return PictureMeasure.of(parameter, use, image).tiles();
        }
    }

    /**
     * @param images bytes of the surface's pictures by their digests
     * @throws ParameterException where there is nothing to mend, or a picture can't be cut
     */
    public static EdgesMet of(Surface s, Function<String, byte[]> images) throws IOException {
        Map<RealSize, List<Laid>> together = new LinkedHashMap<>();
        for (Map.Entry<Parameter, TextureUse> e : s.textures().entrySet()) {
            byte[] file = images.apply(e.getValue().image());
            if (e.getValue().placement() instanceof RealSize size && file != null) {
                BufferedImage image = decoded(file);
                together.computeIfAbsent(size, k -> new ArrayList<>())
                        .add(new Laid(e.getKey(), e.getValue(), file, image));
            }
        }
        Surface met = s;
        Map<String, byte[]> pictures = new HashMap<>();
        for (Map.Entry<RealSize, List<Laid>> e : together.entrySet()) {
            if (!e.getValue().stream().allMatch(Laid::meets)) {
                met = met(met, e.getKey(), e.getValue(), pictures);
            }
        }
        if (pictures.isEmpty()) {
            throw new ParameterException("picture", "Its pictures meet at their edges; there is nothing to mend.");
        }
        return new EdgesMet(met, pictures);
    }

    private static BufferedImage decoded(byte[] file) {
        ImageHeader header = ImageHeader.read(ByteBuffer.wrap(file)).orElseThrow(EdgesMet::unreadable);
        if ((long) header.width() * header.height() > MOST_PIXELS) {
            throw new ParameterException(
                    "picture",
                    String.format(
                            Locale.ROOT,
                            "A picture of %,d × %,d pixels is too large to be cut. Bring one of at most 4,096 a side.",
                            header.width(),
                            header.height()));
        }
        try {
            return ImageFile.decode(file, MOST_PIXELS);
        } catch (IOException e) {
            throw unreadable();
        }
    }

    /** All that lie together are cut together, or none. */
    private static ParameterException unreadable() {
        return new ParameterException(
                "picture", "One of its pictures is damaged or neither PNG nor JPEG; only these can be cut.");
    }

    private static Surface met(Surface s, RealSize size, List<Laid> all, Map<String, byte[]> pictures)
            throws IOException {
        BufferedImage guide = all.stream()
                .filter(l -> l.parameter == Parameter.BASE_COLOR)
                .findFirst()
                .orElse(all.get(0))
                .image;
        EdgeFit fit = EdgeFit.of(guide);
        RealSize left = fit.left(size);
        Map<String, String> done = new HashMap<>(); // one picture may drive several parameters
        Surface met = s;
        for (Laid l : all) {
            String digest = done.get(l.use.image());
            if (digest == null) {
                byte[] file = ImageFile.like(l.file, fit.cut(l.image, l.holds()));
                digest = Digest.of(file);
                pictures.put(digest, file);
                done.put(l.use.image(), digest);
            }
            TextureUse u = l.use;
            met = met.withTexture(
                    l.parameter,
                    new TextureUse(digest, u.channel(), left, u.wrapU(), u.wrapV(), u.strength(), u.tone()));
        }
        return met;
    }
}

package app.zolvan.server.library;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.PictureColours;
import app.zolvan.core.material.MainColour;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.server.asset.AssetService;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.io.IOException;
import java.util.Comparator;
import java.util.List;
import org.springframework.stereotype.Component;

/** The mean colour of materials: the colour a designer means, times the mean of its picture. */
@Component
class MeanColours {
    private static final long PIXELS = 250_000;
    private final AssetService assets;
    private final Cache<String, LinearRgb> pictures =
            Caffeine.newBuilder().maximumSize(10_000).build();

    MeanColours(AssetService assets) {
        this.assets = assets;
    }

    record Near(MaterialRow material, double difference) {}

    /** The materials whose mean colours are nearest to one by CIEDE2000, the nearest first. */
    List<Near> nearest(List<MaterialRow> materials, LinearRgb sought, int count) {
        CieLab to = CieLab.of(sought);
        return materials.stream()
                .map(m -> new Near(m, CieLab.of(of(m.toSurface())).difference(to)))
                .sorted(Comparator.comparingDouble(Near::difference))
                .limit(count)
                .toList();
    }

    LinearRgb of(Surface s) {
        Parameter main = MainColour.of(s);
        LinearRgb colour = s.colour(main);
        TextureUse picture = s.textures().get(main);
        if (picture == null) {
            return colour;
        }
        LinearRgb mean = ofPicture(picture.image());
        return colour.times(
                picture.tone() == null ? mean : picture.tone().of(mean).clamped());
    }

    /** The mean of a picture's colours. */
    LinearRgb ofPicture(String sha256) {
        return pictures.get(sha256, this::mean);
    }

    private LinearRgb mean(String sha256) {
        try {
            return new PictureColours(ImageFile.decode(assets.bytes(sha256), PIXELS))
                    .whole()
                    .mean();
        } catch (IOException e) {
            return LinearRgb.WHITE; // a picture that can't be read shows as none
        }
    }
}

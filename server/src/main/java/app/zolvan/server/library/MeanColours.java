package app.zolvan.server.library;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.PictureColours;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.server.asset.AssetService;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.io.IOException;
import org.springframework.stereotype.Component;

/** The mean colours of pictures, kept. */
@Component
class MeanColours {
    private static final long PIXELS = 250_000;
    private final AssetService assets;
    private final Cache<String, LinearRgb> pictures =
            Caffeine.newBuilder().maximumSize(10_000).build();

    MeanColours(AssetService assets) {
        this.assets = assets;
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

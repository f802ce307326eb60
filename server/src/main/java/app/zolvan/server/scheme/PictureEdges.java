package app.zolvan.server.scheme;

import app.zolvan.core.adjust.EdgesMet;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.measure.Photograph;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.supplier.SupplierService;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.io.UncheckedIOException;
import org.springframework.stereotype.Component;

/** Pictures that are cut, so that they can be laid side by side; one after another, as a large one takes hundreds of megabytes. */
@Component
class PictureEdges {
    private final AssetService assets;

    PictureEdges(AssetService assets) {
        this.assets = assets;
    }

    /** A surface whose pictures meet. */
    synchronized EdgesMet met(Surface surface) {
        try {
            return EdgesMet.of(surface, assets::bytes);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** @param repeat of the picture, in metres */
    record Sample(byte[] picture, RealSize repeat) {}

    /**
     * A photograph as it is laid.
     *
     * @param shown width and height of what it shows
     * @param meet  whether its edges are made to meet
     */
    synchronized Sample sample(SupplierService.Photo photo, RealSize shown, boolean meet) {
        if (!photo.judged().isMended() && !meet) {
            return new Sample(photo.bytes(), shown);
        }
        try {
            BufferedImage image = ImageFile.decode(photo.bytes(), SupplierService.MOST_PIXELS);
            Photograph.Laid laid = photo.judged().laid(image, shown, meet);
            return new Sample(ImageFile.like(photo.bytes(), laid.image()), laid.repeat());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}

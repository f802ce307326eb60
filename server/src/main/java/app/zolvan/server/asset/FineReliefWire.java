package app.zolvan.server.asset;

import app.zolvan.core.texture.Picture;
import java.util.Arrays;
import java.util.List;

/**
 * What a picture of normals loses where it is seen from afar.
 *
 * @param width   in pixels, as it was looked at; likewise {@code height}
 * @param spreads how far slopes spread within a pixel of the picture and of each of its halved copies, as standard
 *                deviation along one axis
 */
record FineReliefWire(int width, int height, List<Double> spreads) {
    static FineReliefWire of(Picture normals) {
        return new FineReliefWire(
                normals.width(),
                normals.height(),
                Arrays.stream(normals.spreads()).boxed().toList());
    }
}

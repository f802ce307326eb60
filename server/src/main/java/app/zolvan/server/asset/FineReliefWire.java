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
 * @param along   the share of their variance along the picture's width
 */
record FineReliefWire(int width, int height, List<Double> spreads, double along) {
    static FineReliefWire of(Picture normals) {
        return new FineReliefWire(
                normals.width(),
                normals.height(),
                Arrays.stream(normals.spreads()).boxed().toList(),
                normals.slopesAlong());
    }
}

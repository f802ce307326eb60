package app.zolvan.server.asset;

import app.zolvan.core.texture.ImageHeader;
import app.zolvan.server.problem.Problem;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.ByteBuffer;

/** A small JPEG of the stage that came as a request's body, for lists. */
public final class SmallPicture {
    private static final int MOST_BYTES = 1 << 20;
    private static final int LONGEST_SIDE = 1024;

    private SmallPicture() {}

    /** @throws Problem where it is anything else, or larger */
    public static byte[] of(HttpServletRequest request) throws IOException {
        byte[] jpeg = request.getInputStream().readNBytes(MOST_BYTES + 1);
        if (jpeg.length > MOST_BYTES) {
            throw AssetService.tooLarge(MOST_BYTES);
        }
        boolean fits = ImageHeader.read(ByteBuffer.wrap(jpeg))
                .filter(h -> h.mediaType().equals("image/jpeg") && Math.max(h.width(), h.height()) <= LONGEST_SIDE)
                .isPresent();
        if (!fits) {
            throw Problem.ofField("picture", "The small picture must be a JPEG of up to 1024 pixels.");
        }
        return jpeg;
    }
}

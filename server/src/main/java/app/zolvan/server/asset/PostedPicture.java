package app.zolvan.server.asset;

import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.ImageHeader;
import app.zolvan.server.problem.Problem;
import jakarta.servlet.http.HttpServletRequest;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.nio.ByteBuffer;
import org.springframework.http.HttpStatus;

/**
 * A picture that came as a request's body: a PNG or JPEG that can be read.
 *
 * @param image it, or every second, third … pixel of it
 */
public record PostedPicture(byte[] bytes, ImageHeader header, BufferedImage image) {
    private static final int LONGEST_SIDE = 8192;

    /**
     * @param mostBytes  that it may weigh
     * @param mostPixels that are looked at
     * @throws Problem where it is too large or can't be read
     */
    public static PostedPicture of(HttpServletRequest request, int mostBytes, long mostPixels) throws IOException {
        byte[] bytes = request.getInputStream().readNBytes(mostBytes + 1);
        if (bytes.length > mostBytes) {
            throw AssetService.tooLarge(mostBytes);
        }
        ImageHeader header = ImageHeader.read(ByteBuffer.wrap(bytes)).orElseThrow(PostedPicture::unreadable);
        if (Math.max(header.width(), header.height()) > LONGEST_SIDE) {
            throw Problem.of(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "too-wide",
                    "The picture is " + header.width() + " × " + header.height() + " pixels; " + LONGEST_SIDE
                            + " along a side is the most. Save it smaller.");
        }
        try {
            return new PostedPicture(bytes, header, ImageFile.decode(bytes, mostPixels));
        } catch (IOException e) {
            throw unreadable();
        }
    }

    private static Problem unreadable() {
        return Problem.of(
                HttpStatus.UNPROCESSABLE_CONTENT,
                "damaged",
                "This is no PNG or JPEG that can be read. Save the picture anew and choose it again.");
    }
}

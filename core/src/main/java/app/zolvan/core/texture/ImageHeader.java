package app.zolvan.core.texture;

import java.nio.ByteBuffer;
import java.util.Optional;

/**
 * Format and size of an encoded image, read from its first bytes without decoding it, so that an absurd size can be
 * refused before anything is allocated.
 */
public record ImageHeader(String mediaType, int width, int height) {

    /** Where a picture goes among a written model's files: named by its content, with the ending of its format. */
    public static String fileName(String sha256, byte[] bytes) {
        String type = read(ByteBuffer.wrap(bytes)).map(ImageHeader::mediaType).orElse("image/png");
        String ending = type.equals("image/jpeg") ? "jpg" : type.substring("image/".length());
        return "textures/" + sha256.substring(0, 16) + "." + ending;
    }

    /** What the picture takes in a renderer's memory: four bytes a pixel and every halved copy down to one pixel. */
    public long memory() {
        long sum = 0;
        for (int w = width, h = height; ; w = Math.max(1, w / 2), h = Math.max(1, h / 2)) {
            sum += 4L * w * h;
            if (w == 1 && h == 1) {
                return sum;
            }
        }
    }

    /** @return empty when the bytes are no PNG, JPEG or WebP */
    public static Optional<ImageHeader> read(ByteBuffer bytes) {
        ByteBuffer b = bytes.slice();
        if (b.remaining() >= 24 && b.getInt(0) == 0x89504E47 && b.getInt(12) == 0x49484452) {
            return size("image/png", b.getInt(16), b.getInt(20));
        }
        if (b.remaining() >= 4 && (b.getShort(0) & 0xFFFF) == 0xFFD8) {
            return jpeg(b);
        }
        if (b.remaining() >= 30 && b.getInt(0) == 0x52494646 && b.getInt(8) == 0x57454250) {
            return webp(b);
        }
        return Optional.empty();
    }

    private static Optional<ImageHeader> size(String mediaType, int width, int height) {
        return width > 0 && height > 0 ? Optional.of(new ImageHeader(mediaType, width, height)) : Optional.empty();
    }

    private static Optional<ImageHeader> jpeg(ByteBuffer b) {
        int at = 2;
        while (at + 9 < b.remaining()) {
            if ((b.get(at) & 0xFF) != 0xFF) {
                return Optional.empty();
            }
            int marker = b.get(at + 1) & 0xFF;
            if (marker == 0xFF) {
                at++;
                continue;
            }
            boolean frame = marker >= 0xC0 && marker <= 0xCF && marker != 0xC4 && marker != 0xC8 && marker != 0xCC;
            if (frame) {
                return size("image/jpeg", b.getShort(at + 7) & 0xFFFF, b.getShort(at + 5) & 0xFFFF);
            }
            at += 2 + (b.getShort(at + 2) & 0xFFFF);
        }
        return Optional.empty();
    }

    private static Optional<ImageHeader> webp(ByteBuffer b) {
        return switch (b.getInt(12)) {
            case 0x56503858 -> size("image/webp", 1 + little24(b, 24), 1 + little24(b, 27)); // extended
            case 0x5650384C -> { // lossless
                int bits = Integer.reverseBytes(b.getInt(21));
                yield size("image/webp", (bits & 0x3FFF) + 1, ((bits >>> 14) & 0x3FFF) + 1);
            }
            case 0x56503820 ->
                size( // lossy
                        "image/webp",
                        Short.reverseBytes(b.getShort(26)) & 0x3FFF,
                        Short.reverseBytes(b.getShort(28)) & 0x3FFF);
            default -> Optional.empty();
        };
    }

    private static int little24(ByteBuffer b, int at) {
        return (b.get(at) & 0xFF) | (b.get(at + 1) & 0xFF) << 8 | (b.get(at + 2) & 0xFF) << 16;
    }
}

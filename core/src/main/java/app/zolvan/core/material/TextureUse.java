package app.zolvan.core.material;

/**
 * An image that drives one parameter. The image's value multiplies the parameter's own; for colour parameters it is
 * decoded from sRGB, for all others it is linear data.
 *
 * @param image     SHA-256 of the image's bytes, 64 hexadecimal digits
 * @param channel   which of the image's channels is read
 * @param placement how large one repeat is, or which of the model's coordinates to follow
 * @param wrapU     what lies beyond the image's edges along u
 * @param wrapV     likewise along v
 * @param strength  multiplies the slope of a normal map; 1 for all other uses
 */
public record TextureUse(String image, Channel channel, Placement placement, Wrap wrapU, Wrap wrapV, double strength) {

    public enum Channel {
        RGB,
        R,
        G,
        B,
        A
    }

    public enum Wrap {
        REPEAT,
        MIRROR,
        ONCE
    }

    /** Where the image lies, before a mapping says otherwise. */
    public sealed interface Placement permits RealSize, ModelUv {
        /** What takes the coordinates that the image is laid by (metres, or the model's own) to the image. */
        ModelUv toImage();
    }

    /** One repeat is {@code width} × {@code height} metres, laid by projection. */
    public record RealSize(double width, double height) implements Placement {
        @Override
        public ModelUv toImage() {
            return new ModelUv(0, 0, 0, 1 / width, 1 / height);
        }
    }

    /** The model's own coordinates, after the transform of KHR_texture_transform: scale, then turn, then offset. */
    public record ModelUv(double offsetU, double offsetV, double rotation, double scaleU, double scaleV)
            implements Placement {
        public static final ModelUv PLAIN = new ModelUv(0, 0, 0, 1, 1);

        @Override
        public ModelUv toImage() {
            return this;
        }
    }

    public static TextureUse repeating(String image, Channel channel, Placement placement) {
        return new TextureUse(image, channel, placement, Wrap.REPEAT, Wrap.REPEAT, 1);
    }
}

package app.zolvan.core.material;

import app.zolvan.core.colour.Tone;
import java.io.Serializable;

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
 * @param tone      how its colours are changed; null for not at all
 */
public record TextureUse(
        String image, Channel channel, Placement placement, Wrap wrapU, Wrap wrapV, double strength, Tone tone)
        implements Serializable {

    public TextureUse(String image, Channel channel, Placement placement, Wrap wrapU, Wrap wrapV, double strength) {
        this(image, channel, placement, wrapU, wrapV, strength, null);
    }

    /** The same picture with its colours changed otherwise; as they are for a plain tone or null. */
    public TextureUse toned(Tone other) {
        Tone changed = other == null || other.isPlain() ? null : other;
        return new TextureUse(image, channel, placement, wrapU, wrapV, strength, changed);
    }

    /** Another picture in its place, which lies the same way. */
    public TextureUse withImage(String other) {
        return new TextureUse(other, channel, placement, wrapU, wrapV, strength, tone);
    }

    /** The same picture, read by another of its channels. */
    public TextureUse onChannel(Channel other) {
        return new TextureUse(image, other, placement, wrapU, wrapV, strength, tone);
    }

    /** Whether both lie at the same place in the same size. */
    public boolean liesLike(TextureUse o) {
        return placement.equals(o.placement) && wrapU == o.wrapU && wrapV == o.wrapV;
    }

    /** Whether this is the alpha of a picture that is there anyway: the one way of cutting out that glTF knows. */
    public boolean isAlphaOf(TextureUse colours) {
        return colours != null && image.equals(colours.image) && channel == Channel.A && liesLike(colours);
    }

    public enum Channel {
        /** Of numbers: as bright as it is (ITU-R BT.709 weights). */
        RGB(0.2126, 0.7152, 0.0722, 0),
        R(1, 0, 0, 0),
        G(0, 1, 0, 0),
        B(0, 0, 1, 0),
        A(0, 0, 0, 1);

        private final double[] shares;

        Channel(double... shares) {
            this.shares = shares;
        }

        /** The number that is read from red, green, blue and alpha. */
        public double of(double r, double g, double b, double a) {
            return shares[0] * r + shares[1] * g + shares[2] * b + shares[3] * a;
        }

        /** What red, green, blue and alpha contribute to it. */
        public double[] shares() {
            return shares.clone();
        }
    }

    public enum Wrap {
        REPEAT,
        MIRROR,
        ONCE
    }

    /** Where the image lies, before a mapping says otherwise. */
    public sealed interface Placement extends Serializable permits RealSize, ModelUv {
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

    /** The same picture laid by what it is asked for alone, from 0 to 1: as one of surroundings is. */
    public TextureUse plain() {
        return new TextureUse(image, channel, ModelUv.PLAIN, Wrap.REPEAT, Wrap.MIRROR, strength, tone);
    }

    public static TextureUse repeating(String image, Channel channel, Placement placement) {
        return new TextureUse(image, channel, placement, Wrap.REPEAT, Wrap.REPEAT, 1);
    }

    /** The channel that a parameter usually reads: numbers where glTF packs them, colours all three. */
    public static Channel usualChannel(Parameter p) {
        return switch (p) {
            case SPECULAR_ROUGHNESS -> Channel.G;
            case BASE_METALNESS -> Channel.B;
            case GEOMETRY_OPACITY -> Channel.A;
            default -> p.shape() == Parameter.Shape.NUMBER ? Channel.R : Channel.RGB;
        };
    }
}

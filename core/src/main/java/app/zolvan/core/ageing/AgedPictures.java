package app.zolvan.core.ageing;

import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.mapping.Atlas;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.Picture;
import app.zolvan.core.texture.Picture.Holds;
import app.zolvan.core.texture.Texture;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.util.function.Function;

/**
 * A part's aged look as pictures over its atlas, for files that know of no ageing: the base colour (sRGB), and in one
 * picture what is left uncovered (red), roughness (green) and metalness (blue).
 *
 * @param colour a PNG
 * @param rough  a PNG
 */
public record AgedPictures(byte[] colour, byte[] rough) {
    private static final int MOST_PIXELS = 16 << 20;

    /**
     * @param mesh   what the fields were worked out for
     * @param images gives the encoded bytes of an image by its digest
     */
    public static AgedPictures of(Mesh mesh, int span, Look look, AgeFields fields, Function<String, byte[]> images) {
        PhysicalMaterial p = look.physical();
        float[] uv = look.mapping() instanceof Mapping.ModelUvs ? mesh.uv() : mesh.metricUv();
        Texture base = uv == null ? null : laid(p.baseColorTexture(), Holds.COLOURS, images);
        TextureUse ofRoughness = p.beyond().roughness();
        TextureUse ofMetalness = p.beyond().metalness();
        Texture rough = uv == null ? null : laid(ofRoughness, Holds.NUMBERS, images);
        Texture metal = uv == null ? null : laid(ofMetalness, Holds.NUMBERS, images);
        Atlas atlas = fields.atlas();
        Spot spot = new Spot(mesh, uv, atlas);
        int w = atlas.width();
        int[] owners = atlas.owners();
        byte[] colours = new byte[4 * owners.length];
        byte[] others = new byte[4 * owners.length];
        double[] four = new double[4];
        for (int i = 0; i < owners.length; i++) {
            int t = owners[i];
            if (t < mesh.spanStarts()[span] || t >= mesh.spanStarts()[span + 1]) {
                owners[i] = -1;
                continue;
            }
            double[] b = atlas.weights(t, i % w, i / w);
            LinearRgb c = p.baseColor();
            double r = p.roughness();
            double m = p.metallic();
            if (base != null || rough != null || metal != null) {
                spot.at(t, b);
            }
            if (base != null) {
                c = c.times(LinearRgb.of(spot.of(base)));
            }
            if (rough != null) {
                r *= number(spot.of(rough), ofRoughness);
            }
            if (metal != null) {
                m *= number(spot.of(metal), ofMetalness);
            }
            int y = i / w;
            fields.at((i % w + 0.5) / w, (y + 0.5) / atlas.height(), four);
            put(colours, others, i, Ageing.Laid.over(p.beyond().ageing(), four, c, r, m));
        }
        atlas.spread(owners, colours);
        atlas.spread(owners, others);
        return new AgedPictures(png(colours, w, atlas.height()), png(others, w, atlas.height()));
    }

    private static void put(byte[] colours, byte[] others, int i, Ageing.Laid l) {
        int[] codes = Srgb.toCodes(l.colour());
        for (int k = 0; k < 3; k++) {
            colours[4 * i + k] = (byte) codes[k];
        }
        others[4 * i] = (byte) Math.round(255 * l.bare());
        others[4 * i + 1] = (byte) Math.round(255 * l.roughness());
        others[4 * i + 2] = (byte) Math.round(255 * l.metalness());
    }

    private static byte[] png(byte[] rgb, int width, int height) {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        for (int i = 0; i < width * height; i++) {
            int code = (rgb[4 * i] & 0xFF) << 16 | (rgb[4 * i + 1] & 0xFF) << 8 | (rgb[4 * i + 2] & 0xFF);
            image.setRGB(i % width, i / width, code);
        }
        try {
            return ImageFile.png(image);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private static double number(double[] texel, TextureUse use) {
        return use.channel().of(texel[0], texel[1], texel[2], texel[3]);
    }

    /** A picture that lies on the surface already; null where there is none that can be shown. */
    private static Texture laid(TextureUse use, Holds holds, Function<String, byte[]> images) {
        byte[] file = use == null ? null : images.apply(use.image());
        try {
            return file == null ? null : new Texture(Picture.decode(file, holds, MOST_PIXELS), use);
        } catch (IOException e) {
            return null; // as on the stage
        }
    }

    /** Where a texel lies in a mesh's own coordinates, and how wide it is there. */
    private static final class Spot {
        private final Mesh mesh;
        private final float[] uv;
        private final Atlas atlas;
        final double[] rgba = new double[4];
        private double u;
        private double v;
        private double width;

        Spot(Mesh mesh, float[] uv, Atlas atlas) {
            this.mesh = mesh;
            this.uv = uv;
            this.atlas = atlas;
        }

        void at(int triangle, double[] weights) {
            int[] c = mesh.indices();
            u = 0;
            v = 0;
            for (int k = 0; k < 3; k++) {
                u += weights[k] * uv[2 * c[3 * triangle + k]];
                v += weights[k] * uv[2 * c[3 * triangle + k] + 1];
            }
            float[] own = atlas.uv();
            int i = 6 * triangle;
            double texels = doubleArea(own[i], own[i + 1], own[i + 2], own[i + 3], own[i + 4], own[i + 5])
                    * atlas.width()
                    * atlas.height();
            int a = 2 * c[3 * triangle];
            int b = 2 * c[3 * triangle + 1];
            int d = 2 * c[3 * triangle + 2];
            double there = doubleArea(uv[a], uv[a + 1], uv[b], uv[b + 1], uv[d], uv[d + 1]);
            width = texels > 0 ? Math.sqrt(there / texels) : 0;
        }

        private static double doubleArea(double ax, double ay, double bx, double by, double cx, double cy) {
            return Math.abs((bx - ax) * (cy - ay) - (cx - ax) * (by - ay));
        }

        double[] of(Texture texture) {
            texture.at(u, v, width, rgba);
            return rgba;
        }
    }
}

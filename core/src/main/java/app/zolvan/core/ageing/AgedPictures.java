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
    private static final long MOST_PIXELS = 16L << 20;
    /** Samples of a picture across a texel. */
    private static final int FINE = 3;

    /**
     * @param mesh   what the fields were worked out for
     * @param images gives the encoded bytes of an image by its digest
     */
    public static AgedPictures of(Mesh mesh, int span, Look look, AgeFields fields, Function<String, byte[]> images) {
        PhysicalMaterial p = look.physical();
        float[] uv = look.mapping() instanceof Mapping.ModelUvs ? mesh.uv() : mesh.metricUv();
        Sampled base = uv == null ? null : Sampled.of(p.baseColorTexture(), images, true);
        Sampled rough = uv == null ? null : Sampled.of(p.metallicRoughnessTexture(), images, false);
        Atlas atlas = fields.atlas();
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
            if (base != null) {
                c = c.times(base.at(mesh, uv, t, b, atlas.texel()));
            }
            if (rough != null) {
                LinearRgb orm = rough.at(mesh, uv, t, b, atlas.texel());
                r *= orm.g();
                m *= orm.b();
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

    /** A picture that lies on the surface already. */
    private record Sampled(BufferedImage image, double[] linear, double[] transform) {

        static Sampled of(TextureUse use, Function<String, byte[]> images, boolean colour) {
            byte[] file = use == null ? null : images.apply(use.image());
            if (file == null) {
                return null;
            }
            double[] linear = new double[256];
            for (int i = 0; i < linear.length; i++) {
                linear[i] = colour ? Srgb.decode(i / 255.0) : i / 255.0;
            }
            try {
                TextureUse.ModelUv t = use.placement().toImage();
                double cos = StrictMath.cos(t.rotation());
                double sin = StrictMath.sin(t.rotation());
                return new Sampled(ImageFile.decode(file, MOST_PIXELS), linear, new double[] {
                    cos * t.scaleU(), sin * t.scaleV(), t.offsetU(), -sin * t.scaleU(), cos * t.scaleV(), t.offsetV()
                });
            } catch (IOException e) {
                return null; // shown without, as on the stage
            }
        }

        /** The mean over a texel about a place on a triangle. */
        LinearRgb at(Mesh mesh, float[] uv, int t, double[] b, double texel) {
            int[] c = {mesh.indices()[3 * t], mesh.indices()[3 * t + 1], mesh.indices()[3 * t + 2]};
            double u = b[0] * uv[2 * c[0]] + b[1] * uv[2 * c[1]] + b[2] * uv[2 * c[2]];
            double v = b[0] * uv[2 * c[0] + 1] + b[1] * uv[2 * c[1] + 1] + b[2] * uv[2 * c[2] + 1];
            double width = texel * growth(mesh, uv, c);
            LinearRgb sum = LinearRgb.BLACK;
            for (int i = 0; i < FINE * FINE; i++) {
                double du = width * ((i % FINE + 0.5) / FINE - 0.5);
                double dv = width * (((double) (i - i % FINE) / FINE + 0.5) / FINE - 0.5);
                sum = sum.plus(pixel(u + du, v + dv));
            }
            return sum.times(1.0 / (FINE * FINE));
        }

        /** How much the coordinates grow per unit of the mesh. */
        private static double growth(Mesh mesh, float[] uv, int[] c) {
            float[] p = mesh.positions();
            double du = uv[2 * c[1]] - uv[2 * c[0]];
            double dv = uv[2 * c[1] + 1] - uv[2 * c[0] + 1];
            double dx = p[3 * c[1]] - p[3 * c[0]];
            double dy = p[3 * c[1] + 1] - p[3 * c[0] + 1];
            double dz = p[3 * c[1] + 2] - p[3 * c[0] + 2];
            double length = Math.sqrt(dx * dx + dy * dy + dz * dz);
            return length > 0 ? Math.sqrt(du * du + dv * dv) / length : 0;
        }

        private LinearRgb pixel(double u, double v) {
            double x = transform[0] * u + transform[1] * v + transform[2];
            double y = transform[3] * u + transform[4] * v + transform[5];
            int px = (int) ((x - Math.floor(x)) * image.getWidth());
            int py = (int) ((y - Math.floor(y)) * image.getHeight());
            int code = image.getRGB(Math.min(px, image.getWidth() - 1), Math.min(py, image.getHeight() - 1));
            return new LinearRgb(linear[code >> 16 & 0xFF], linear[code >> 8 & 0xFF], linear[code & 0xFF]);
        }
    }
}

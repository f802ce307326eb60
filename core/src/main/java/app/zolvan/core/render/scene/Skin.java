package app.zolvan.core.render.scene;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.surface.Bsdf;
import app.zolvan.core.render.surface.SurfaceValues;
import app.zolvan.core.texture.Texture;
import java.util.Arrays;
import java.util.Map;
import java.util.Set;

/** A span's look made ready for rays: its numbers, the pictures that change them from point to point, and its media. */
final class Skin {
    /** Pictures that do not multiply a number of the surface. */
    private static final Set<Parameter> APART =
            Set.of(Parameter.GEOMETRY_NORMAL, Parameter.GEOMETRY_HEIGHT, Parameter.REFLECTED_SURROUNDINGS);

    final SurfaceValues values;
    final int priority;
    final int circuit;
    final int material;
    final boolean isBoundary;
    /** Null for air. */
    final SurfaceValues front;

    final SurfaceValues back;
    private final boolean metric;
    private final boolean painted;
    private final Parameter[] parameters;
    private final Texture[] textures;
    private final Ageing ageing;
    /** Null where it looks new. */
    private final AgeFields age;

    private final Texture normal;
    private final double normalStrength;
    private final Texture height;
    /** Null where it mirrors what is around. */
    final OwnReflection reflection;

    /** What the backs of its triangles wear; null for the same. */
    private final Skin behind;

    private final boolean letsThrough;

    Skin(
            Dress dress,
            int material,
            SurfaceValues values,
            SurfaceValues front,
            SurfaceValues back,
            Map<Parameter, Texture> textures,
            Skin behind) {
        this.behind = behind;
        this.material = material;
        this.values = values;
        this.priority = dress.priority();
        this.circuit = dress.circuit();
        this.isBoundary = dress.boundary() != null;
        this.front = front;
        this.back = back;
        this.metric = dress.metric();
        this.painted = dress.painted();
        ageing = Ageing.of(dress.surface());
        age = ageing.isNone() ? null : dress.age();
        normal = textures.get(Parameter.GEOMETRY_NORMAL);
        normalStrength = normal == null ? 1 : normal.use().strength();
        // a picture of normals shows the same relief
        height = values.height > 0 && normal == null ? textures.get(Parameter.GEOMETRY_HEIGHT) : null;
        parameters = textures.keySet().stream().filter(p -> !APART.contains(p)).toArray(Parameter[]::new);
        this.textures = new Texture[parameters.length];
        for (int i = 0; i < parameters.length; i++) {
            this.textures[i] = textures.get(parameters[i]);
        }
        Texture around = textures.get(Parameter.REFLECTED_SURROUNDINGS);
        reflection = around == null ? null : reflection(around, dress.surface());
        letsThrough = isSeeThrough() || (behind != null && behind.letsThrough);
    }

    private static OwnReflection reflection(Texture around, Surface s) {
        LinearRgb colour = s.colour(Parameter.REFLECTED_SURROUNDINGS).times(s.number(Parameter.REFLECTED_STRENGTH));
        return new OwnReflection(around, colour.r(), colour.g(), colour.b());
    }

    /** Whether it is the same everywhere and has no grain direction, so that a hit needs no coordinates. */
    boolean isPlain() {
        return parameters.length == 0
                && normal == null
                && height == null
                && !painted
                && values.anisotropy == 0
                && values.coatAnisotropy == 0
                && values.flakes == 0
                && age == null;
    }

    /** What it wears on one of its sides. */
    Skin side(boolean back) {
        return back && behind != null ? behind : this;
    }

    boolean hasTwoSides() {
        return behind != null;
    }

    /** True where light may go straight on through it somewhere, seen from either side. */
    boolean letsThrough() {
        return letsThrough;
    }

    /** A thin wall that is rough or metallic on the whole may be a smooth pane where its pictures or its age say so. */
    private boolean isSeeThrough() {
        boolean varies = parameters.length > 0 || age != null;
        return values.opacity < 1
                || Arrays.asList(parameters).contains(Parameter.GEOMETRY_OPACITY)
                || values.isPane()
                || (varies && values.thinWalled && values.transmission > 0);
    }

    /** Whether it throws patches of light: mirrors or bends it in one direction, or nearly. */
    boolean isFocusing() {
        boolean base = values.polished || (values.roughnessUnderCoat() < Bsdf.SMOOTH && values.specularWeight > 0);
        boolean coat = values.coat > 0 && values.coatRoughness < Bsdf.SMOOTH;
        return ((base || coat) && !values.isPane()) || (behind != null && behind.isFocusing());
    }

    private float[] coordinates(Mesh mesh) {
        return metric ? mesh.metricUv() : mesh.uv();
    }

    /**
     * Sets a hit's surface to what it is at that point, and its tangent and normal.
     *
     * @param toWorld   the placement, 16 numbers
     * @param footprint width of what the ray sees there, in metres
     */
    void apply(Mesh mesh, double[] toWorld, Hit hit, double footprint) {
        int a = mesh.indices()[3 * hit.primitive];
        int b = mesh.indices()[3 * hit.primitive + 1];
        int c = mesh.indices()[3 * hit.primitive + 2];
        float[] uv = coordinates(mesh);
        SurfaceValues s = hit.own;
        boolean changes = values.flakes > 0
                || age != null
                || (parameters.length > 0 && uv != null)
                || ((normal != null || height != null) && uv != null)
                || (painted && mesh.colours() != null);
        if (changes) {
            s.copy(values);
            hit.surface = s;
        }
        double k = 1 - hit.b1 - hit.b2;
        if (painted && mesh.colours() != null) {
            s.baseR *= paint(mesh, a, b, c, 0, k, hit);
            s.baseG *= paint(mesh, a, b, c, 1, k, hit);
            s.baseB *= paint(mesh, a, b, c, 2, k, hit);
        }
        if (uv != null) {
            lay(mesh, uv, a, b, c, toWorld, hit, footprint);
        }
        if (age != null) {
            weather(hit);
        }
        if (s.flakes > 0 && values.flakes > 0) {
            Flakes.lay(s, hit.x, hit.y, hit.z, footprint);
        }
    }

    private void weather(Hit hit) {
        float[] at = age.atlas().uv();
        int i = 6 * hit.primitive;
        double k = 1 - hit.b1 - hit.b2;
        age.at(
                k * at[i] + hit.b1 * at[i + 2] + hit.b2 * at[i + 4],
                k * at[i + 1] + hit.b1 * at[i + 3] + hit.b2 * at[i + 5],
                hit.texel);
        hit.own.age(ageing, hit.texel);
    }

    /** Lays the pictures over the surface. */
    private void lay(Mesh mesh, float[] uv, int a, int b, int c, double[] toWorld, Hit hit, double footprint) {
        SurfaceValues s = hit.own;
        double k = 1 - hit.b1 - hit.b2;
        double u = k * uv[2 * a] + hit.b1 * uv[2 * b] + hit.b2 * uv[2 * c];
        double v = k * uv[2 * a + 1] + hit.b1 * uv[2 * b + 1] + hit.b2 * uv[2 * c + 1];
        double perMetre = tangent(mesh, uv, a, b, c, toWorld, hit, height != null);
        double width = footprint * perMetre;
        for (int i = 0; i < textures.length; i++) {
            textures[i].at(u, v, width, hit.texel);
            s.multiply(parameters[i], hit.texel, textures[i].channel(hit.texel));
        }
        if (height != null && hit.hasTangent) {
            raise(u, v, width, hit);
        }
        if (normal != null && hit.hasTangent) {
            normal.at(u, v, width, hit.texel);
            s.roughen(normal.spread(hit.texel), normal.slopesAlong());
            for (int i = 0; i < 3; i++) {
                hit.texel[i] = 2 * hit.texel[i] - 1;
            }
            normal.turn(hit.texel);
            hit.bend(normalStrength * hit.texel[0], normalStrength * hit.texel[1], hit.texel[2]);
        }
    }

    /** Tilts the normal as a relief of the picture's height would: n − ∇h, the slope taken over a pixel or the footprint. */
    private void raise(double u, double v, double width, Hit hit) {
        double step = Math.max(width, height.pixel());
        double du = (heightAt(u + step, v, width, hit) - heightAt(u - step, v, width, hit)) / (2 * step);
        double dv = (heightAt(u, v + step, width, hit) - heightAt(u, v - step, width, hit)) / (2 * step);
        hit.tilt(
                du * hit.uGrowth[0] + dv * hit.vGrowth[0],
                du * hit.uGrowth[1] + dv * hit.vGrowth[1],
                du * hit.uGrowth[2] + dv * hit.vGrowth[2]);
    }

    private double heightAt(double u, double v, double width, Hit hit) {
        height.at(u, v, width, hit.texel);
        return values.height * height.channel(hit.texel);
    }

    private static double paint(Mesh mesh, int a, int b, int c, int channel, double k, Hit hit) {
        byte[] p = mesh.colours();
        return k * decode(p[4 * a + channel])
                + hit.b1 * decode(p[4 * b + channel])
                + hit.b2 * decode(p[4 * c + channel]);
    }

    private static double decode(byte code) {
        return Srgb.decode((code & 0xFF) / 255.0);
    }

    /**
     * Sets the hit's tangent (where u grows, in the world) and which side of it v's upward direction lies on.
     *
     * @param relief whether the hit is to know how the coordinates grow
     * @return how much the coordinates grow per metre
     */
    private static double tangent(Mesh mesh, float[] uv, int a, int b, int c, double[] w, Hit hit, boolean relief) {
        float[] p = mesh.positions();
        double u1 = uv[2 * b] - uv[2 * a];
        double v1 = uv[2 * b + 1] - uv[2 * a + 1];
        double u2 = uv[2 * c] - uv[2 * a];
        double v2 = uv[2 * c + 1] - uv[2 * a + 1];
        double area = u1 * v2 - u2 * v1;
        hit.hasTangent = false;
        double e1x = edge(p, a, b, w, 0);
        double e1y = edge(p, a, b, w, 1);
        double e1z = edge(p, a, b, w, 2);
        double e2x = edge(p, a, c, w, 0);
        double e2y = edge(p, a, c, w, 1);
        double e2z = edge(p, a, c, w, 2);
        double nx = e1y * e2z - e1z * e2y;
        double ny = e1z * e2x - e1x * e2z;
        double nz = e1x * e2y - e1y * e2x;
        double world = Math.sqrt(nx * nx + ny * ny + nz * nz);
        if (area == 0 || world == 0) {
            return 0;
        }
        if (relief) { // the weight of the second corner grows by e2 × n / |n|² per metre, that of the third by n × e1 /
            // |n|²
            double k = 1 / (world * world);
            Arrays.fill(hit.uGrowth, 0);
            Arrays.fill(hit.vGrowth, 0);
            hit.addGrowth(k * u1, k * v1, e2y * nz - e2z * ny, e2z * nx - e2x * nz, e2x * ny - e2y * nx);
            hit.addGrowth(k * u2, k * v2, ny * e1z - nz * e1y, nz * e1x - nx * e1z, nx * e1y - ny * e1x);
        }
        double s = Math.signum(area);
        // ∂p/∂u and −∂p/∂v: v runs downwards in an image
        hit.setTangent(
                s * (v2 * e1x - v1 * e2x),
                s * (v2 * e1y - v1 * e2y),
                s * (v2 * e1z - v1 * e2z),
                s * (u2 * e1x - u1 * e2x),
                s * (u2 * e1y - u1 * e2y),
                s * (u2 * e1z - u1 * e2z));
        return Math.sqrt(Math.abs(area) / world);
    }

    private static double edge(float[] p, int from, int to, double[] w, int row) {
        double x = (double) p[3 * to] - p[3 * from];
        double y = (double) p[3 * to + 1] - p[3 * from + 1];
        double z = (double) p[3 * to + 2] - p[3 * from + 2];
        return w[row] * x + w[row + 4] * y + w[row + 8] * z;
    }
}

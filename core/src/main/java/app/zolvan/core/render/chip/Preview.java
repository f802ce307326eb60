package app.zolvan.core.render.chip;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.scene.Dress;
import app.zolvan.core.render.trace.Kernel;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.BooleanSupplier;
import java.util.function.Function;

/**
 * A material seen closely, traced where chips are: on a form, or on a part of a model as it stands, with all of it in view.
 *
 * @param thickness mean, in metres
 * @param metric    whether pictures lie by the mesh's metric coordinates
 * @param age       how readily it ages; null where that is not known: it looks new then
 */
public record Preview(Mesh mesh, Transform toWorld, double thickness, boolean metric, AgeFields age) {
    public static final int WIDTH = 480;
    public static final int HEIGHT = 400;
    private static final Quality COARSE = Quality.samples(8);
    private static final Quality FINE = new Quality(0.012, 96);
    /** Raised when forms, light or tracing change, so that kept pictures are made anew. */
    public static final int EDITION = 1;

    private static final Vec3 FROM = new Vec3(0.38, 0.56, 0.86);
    private static final double ANGLE = Math.toRadians(25);
    private static final double MARGIN = 1.12;
    /** The diagonal of what stands on the table where bars are 12 mm wide, in metres. */
    private static final double USUAL = 0.21;

    private static final Map<SampleForm, Map<Boolean, AgeFields>> AGES = new ConcurrentHashMap<>();

    /** Of a form, with its age where the surface has aged. */
    public static Preview of(SampleForm form, Surface surface) {
        Ageing ageing = Ageing.of(surface);
        Mesh mesh = form.mesh();
        AgeFields age = ageing.isNone()
                ? null
                : AGES.computeIfAbsent(form, f -> new ConcurrentHashMap<>())
                        .computeIfAbsent(
                                ageing.corrodes(),
                                corrodes -> Booth.age(
                                        mesh,
                                        form.thickness(),
                                        mesh.bounds().min().y(),
                                        corrodes));
        return new Preview(mesh, Transform.IDENTITY, form.thickness(), true, age);
    }

    /**
     * Traces the picture, the same each time.
     *
     * @param images bytes of the surface's images by digest
     * @param goOn   asked now and then; false ends the work
     * @return a PNG of {@link #WIDTH} × {@link #HEIGHT} pixels; null where the work was ended
     */
    public byte[] picture(
            Surface surface, Function<String, byte[]> images, int threads, Kernel.Kind kind, BooleanSupplier goOn) {
        return picture(surface, images, threads, kind, 1, FINE, goOn);
    }

    /** What is there first: half as large, and coarse. */
    public byte[] coarse(Surface surface, Function<String, byte[]> images, int threads, Kernel.Kind kind) {
        return picture(surface, images, threads, kind, 2, COARSE, () -> true);
    }

    private byte[] picture(
            Surface surface,
            Function<String, byte[]> images,
            int threads,
            Kernel.Kind kind,
            int less,
            Quality quality,
            BooleanSupplier goOn) {
        Box3 box = mesh.bounds(toWorld);
        double size = box.size().length();
        Dress dress = Dress.of(surface).metric(metric).aged(age);
        Vec3 middle = box.min().plus(box.max()).times(0.5);
        Transform here =
                Transform.translation(-middle.x(), -middle.y(), -middle.z()).after(toWorld);
        List<Dress> all = Collections.nCopies(mesh.spanCount(), dress);
        return new Booth(-box.size().y() / 2, size / USUAL)
                .picture(
                        mesh,
                        here,
                        all,
                        images,
                        camera(here),
                        WIDTH / less,
                        HEIGHT / less,
                        threads,
                        kind,
                        quality,
                        goOn);
    }

    /** From the front, the right and above, as near to the origin as shows every vertex. */
    private Camera camera(Transform here) {
        Vec3 from = FROM.normalised();
        Vec3 right = Vec3.axis(1).cross(from).normalised();
        Vec3 up = from.cross(right);
        double high = StrictMath.tan(ANGLE / 2) / MARGIN;
        double wide = high * WIDTH / HEIGHT;
        double away = 0;
        for (int i = 0; i < mesh.vertexCount(); i++) {
            Vec3 v = here.point(mesh.position(i));
            double beside = Math.max(Math.abs(v.dot(right)) / wide, Math.abs(v.dot(up)) / high);
            away = Math.max(away, v.dot(from) + beside);
        }
        return new Camera(from.times(away), Vec3.ZERO, Vec3.axis(1), ANGLE);
    }
}

package app.zolvan.core.render.trace;

import java.lang.reflect.InvocationTargetException;
import java.util.Locale;

/**
 * Finds where rays meet the triangles of one shape. Two kernels do the same work: one takes eight boxes and four triangles
 * at a time by the JDK's vector module, one is plain Java. A ray that meets an edge or a corner shared by triangles
 * meets at least one of them: in the ray's sheared frame both sides compute the same edge function with exactly the
 * opposite sign (Woop, Benthin & Wald 2013), and a zero counts as inside.
 */
public interface Kernel {

    /** The nearest hit within (tMin, tMax): sets the ray's tMax and primitive, and tells whether there was one. */
    boolean closest(Ray ray);

    /** Whether anything lies within (tMin, tMax). */
    boolean occluded(Ray ray);

    /** Which kernels there are. */
    enum Kind {
        VECTOR,
        SCALAR;

        /** The quicker of those that this Java offers. */
        public static Kind best() {
            return ModuleLayer.boot().findModule("jdk.incubator.vector").isPresent() ? VECTOR : SCALAR;
        }

        public String word() {
            return name().toLowerCase(Locale.ROOT);
        }
    }

    /**
     * @param vertices x, y, z of each vertex; all finite
     * @param indices  three vertices a triangle, at least one triangle
     */
    static Kernel of(Kind kind, float[] vertices, int[] indices) {
        int leaf = kind == Kind.SCALAR ? ScalarKernel.LEAF : 4;
        BoundsTree tree = BoundsTree.of(boxes(vertices, indices), indices.length / 3, leaf);
        if (kind == Kind.SCALAR) {
            return new ScalarKernel(tree, vertices, indices);
        }
        try { // by name: its class only loads where the module is there
            return Class.forName("app.zolvan.core.render.trace.VectorKernel")
                    .asSubclass(Kernel.class)
                    .getDeclaredConstructor(BoundsTree.class, float[].class, int[].class)
                    .newInstance(tree, vertices, indices);
        } catch (InvocationTargetException e) {
            throw e.getCause() instanceof RuntimeException r ? r : new IllegalStateException(e.getCause());
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException("This Java runs without its vector module; use the scalar kernel.", e);
        }
    }

    /** Boxes widened by what single precision may lose on the way to them, so that no hit is passed over. */
    private static float[] boxes(float[] vertices, int[] indices) {
        int n = indices.length / 3;
        float[] boxes = new float[6 * n];
        float farthest = 0;
        for (float v : vertices) {
            farthest = Math.max(farthest, Math.abs(v));
        }
        float pad = 1e-6f * farthest;
        for (int t = 0; t < n; t++) {
            int a = 3 * indices[3 * t];
            int b = 3 * indices[3 * t + 1];
            int c = 3 * indices[3 * t + 2];
            for (int k = 0; k < 3; k++) {
                float p = vertices[a + k];
                float q = vertices[b + k];
                float r = vertices[c + k];
                boxes[6 * t + k] = (p < q ? (p < r ? p : r) : (q < r ? q : r)) - pad;
                boxes[6 * t + 3 + k] = (p > q ? (p > r ? p : r) : (q > r ? q : r)) + pad;
            }
        }
        return boxes;
    }
}

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
        Pieces pieces = Pieces.of(vertices, indices, Pieces.SPARE);
        if (kind == Kind.SCALAR) {
            return new ScalarKernel(pieces.tree(ScalarKernel.LEAF, Bins::new), vertices, indices);
        }
        try { // by name: its class only loads where the module is there
            return (Kernel) Class.forName("app.zolvan.core.render.trace.VectorKernel")
                    .getDeclaredMethod("of", Pieces.class, float[].class, int[].class)
                    .invoke(null, pieces, vertices, indices);
        } catch (InvocationTargetException e) {
            throw e.getCause() instanceof RuntimeException r ? r : new IllegalStateException(e.getCause());
        } catch (ReflectiveOperationException e) {
            throw new IllegalStateException("This Java runs without its vector module; use the scalar kernel.", e);
        }
    }
}

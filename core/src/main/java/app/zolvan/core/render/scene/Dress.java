package app.zolvan.core.render.scene;

import app.zolvan.core.material.Surface;

/**
 * What a span of a placed mesh wears.
 *
 * @param metric   whether its pictures lie by the mesh's metric coordinates rather than by those of the file
 * @param painted  whether the mesh's painted colours multiply the base colour
 * @param priority of its medium where clear bodies overlap; the higher one fills the place
 * @param circuit  which lamps it is switched with, should it glow
 * @param boundary the media on its two sides where it is an open boundary surface; null for a body's own surface
 */
public record Dress(Surface surface, boolean metric, boolean painted, int priority, int circuit, Boundary boundary) {

    /**
     * The media in front of a boundary (where its normal points) and behind it; null for air. Index of refraction and
     * absorption are theirs, all else is the surface's.
     */
    public record Boundary(Surface front, Surface back) {}

    public static Dress of(Surface surface) {
        return new Dress(surface, false, false, 0, 0, null);
    }

    public Dress priority(int p) {
        return new Dress(surface, metric, painted, p, circuit, boundary);
    }

    public Dress circuit(int c) {
        return new Dress(surface, metric, painted, priority, c, boundary);
    }

    public Dress between(Surface front, Surface back) {
        return new Dress(surface, metric, painted, priority, circuit, new Boundary(front, back));
    }

    public Dress metric(boolean is) {
        return new Dress(surface, is, painted, priority, circuit, boundary);
    }

    public Dress painted(boolean is) {
        return new Dress(surface, metric, is, priority, circuit, boundary);
    }
}

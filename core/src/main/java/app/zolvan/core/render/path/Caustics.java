package app.zolvan.core.render.path;

/**
 * How light that lamps and suns send through glass and off mirrors is gathered.
 *
 * @param photons  how many are sent out for each pass over the picture
 * @param radius   within which they are gathered at first, in metres: how soft the patches are; it shrinks from pass to pass
 * @param strength multiplies their light; 1 is what physics says
 */
public record Caustics(int photons, double radius, double strength) {
    public Caustics {
        if (!(photons >= 1 && photons <= 50_000_000 && radius > 0 && strength >= 0)) {
            throw new IllegalArgumentException("Caustics need photons (up to 50 million) and a radius above 0.");
        }
    }
}

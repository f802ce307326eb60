package app.zolvan.core.texture;

/**
 * What a generated pattern is made by.
 *
 * @param name   of the pattern, see {@link Patterns#NAMES}
 * @param width  metres of one repeat across
 * @param height metres of one repeat down
 * @param seed   another one gives another piece of the same stuff
 * @param count  how many of what it consists of lie across one repeat: pebbles, threads, bricks, rings
 * @param rows   likewise down; the same as across where it is square
 * @param joint  width of what lies between pieces, in metres
 * @param share  0 … 1: what is meant depends on the pattern: a bond's shift, holes, chips, veins
 * @param inner  what pieces are made of; null for plain ones
 * @param pixel  width of a pixel in metres, over which edges are blurred
 */
public record Recipe(
        String name,
        double width,
        double height,
        int seed,
        int count,
        int rows,
        double joint,
        double share,
        Recipe inner,
        double pixel) {

    public Recipe(String name, double width, double height, int seed, int count) {
        this(name, width, height, seed, count, count, 0, 0.5, null, width / 512);
    }
}

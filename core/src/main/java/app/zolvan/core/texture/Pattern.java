package app.zolvan.core.texture;

/** A pattern that repeats exactly: it is defined for all u and v and has period 1 in both. */
@FunctionalInterface
public interface Pattern {
    /** What a pattern is at a place. All but {@link #piece} lie in [0, 1]. */
    final class Point {
        /** Where between its first and its last colour it is. */
        public double tone;
        /** How far it stands out. */
        public double height;
        /** How much of the place is joint, binder or background, in a colour of its own. */
        public double joint;
        /** Chance in [0, 1) that belongs to the piece that lies there; 0 where there are no pieces. */
        public double piece;
        /** How much of the place is there at all. */
        public double cover;

        void set(double grey) {
            tone = grey;
            height = grey;
            joint = 0;
            piece = 0;
            cover = 1;
        }
    }

    void at(double u, double v, Point out);

    /** A pattern whose tone is its height. */
    @FunctionalInterface
    interface Grey {
        double at(double u, double v);
    }

    static Pattern grey(Grey grey) {
        return (u, v, out) -> out.set(grey.at(u, v));
    }
}

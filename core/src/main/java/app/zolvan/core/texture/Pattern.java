package app.zolvan.core.texture;

/**
 * A grey pattern that repeats exactly: {@code at(u, v)} is defined for all u and v and has period 1 in both; values lie
 * in [0, 1].
 */
@FunctionalInterface
public interface Pattern {
    double at(double u, double v);
}

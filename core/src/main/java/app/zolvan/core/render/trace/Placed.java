package app.zolvan.core.render.trace;

import app.zolvan.core.geometry.Box3;

/**
 * A shape somewhere in the world.
 *
 * @param toObject column-major matrix from the world to the shape's own space
 * @param bounds   in the world
 */
public record Placed(Kernel kernel, double[] toObject, Box3 bounds) {}

package app.zolvan.server.proof;

import app.zolvan.server.problem.Problem;

/**
 * The grey behind the model, scene-linear before exposure.
 *
 * @param top    at the picture's upper edge
 * @param bottom at its lower edge
 */
record Backdrop(double top, double bottom) {
    private static final double BRIGHTEST = 100;

    /** @throws Problem where it is out of range */
    void require() {
        if (!(top >= 0 && top <= BRIGHTEST && bottom >= 0 && bottom <= BRIGHTEST)) {
            throw Problem.ofField("backdrop", "A backdrop is between 0 and 100 times as bright as white.");
        }
    }
}

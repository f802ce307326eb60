package app.zolvan.server.job;

import app.zolvan.core.exchange.ModelReader;

/**
 * Progress of a run of a job. Every call throws once the job was begun again elsewhere; those that tell how far it is also once
 * it was called off or paused.
 */
public interface JobProgress extends ModelReader.Progress {
    /**
     * Says from where another run may go on.
     *
     * @param asset SHA-256 of stored bytes that the job reads again
     */
    void keep(String asset);

    /**
     * Adds a file to what came of the job; one of the same number is replaced.
     *
     * @param number from 0
     * @param asset  SHA-256 of stored bytes
     */
    void result(int number, String name, String mediaType, String asset);
}

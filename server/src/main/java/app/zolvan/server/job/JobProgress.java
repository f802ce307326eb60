package app.zolvan.server.job;

import app.zolvan.core.exchange.ModelReader;

/** What a run of a job tells while it works. Every call throws once the job was called off, paused, or begun again elsewhere. */
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

package app.zolvan.server.job;

/**
 * A file that came of a job.
 *
 * @param number from 0
 */
public record JobResult(int number, String name, String mediaType, long bytes) {}

package app.zolvan.server.job;

import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * What a job is to do.
 *
 * @param job     its identity; a second run after a crash gets the same
 * @param title   what the designer knows it by
 * @param asset   SHA-256 of the bytes it works on
 * @param subject the project it changes; null where it makes one
 * @param answer  what the designer said when asked; null before
 */
public record JobOrder(
        UUID job,
        UUID account,
        String title,
        String asset,
        @Nullable UUID subject,
        @Nullable JobAnswer answer) {}

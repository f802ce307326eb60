package app.zolvan.server.job;

import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * What a job is to do.
 *
 * @param job     its identity; a second run after a crash gets the same
 * @param title   what the designer knows it by
 * @param asset   SHA-256 of the bytes it works on; null for none
 * @param subject the project it changes; null where it makes one
 * @param parameters what exactly is wanted, as JSON; null where the kind says it all
 * @param kept    SHA-256 of what an earlier run kept; null for none
 * @param answer  what the designer said when asked; null before
 */
public record JobOrder(
        UUID job,
        UUID account,
        String title,
        @Nullable String asset,
        @Nullable UUID subject,
        @Nullable String parameters,
        @Nullable String kept,
        @Nullable JobAnswer answer) {}

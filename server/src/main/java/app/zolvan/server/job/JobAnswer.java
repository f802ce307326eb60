package app.zolvan.server.job;

import jakarta.validation.constraints.Size;
import org.jspecify.annotations.Nullable;

/**
 * The designer's word where a file does not say.
 *
 * @param unit   symbol of a length unit, such as mm
 * @param upAxis X, Y or Z
 */
public record JobAnswer(
        @Nullable @Size(max = 8) String unit,
        @Nullable @Size(max = 1) String upAxis) {}

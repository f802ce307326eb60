package app.zolvan.server.job;

import jakarta.validation.constraints.Pattern;
import org.jspecify.annotations.Nullable;

/** The designer's word where a file does not say. */
public record JobAnswer(
        @Nullable @Pattern(regexp = "mm|cm|m|in|ft", message = "The unit is mm, cm, m, in or ft.")
        String unit,

        @Nullable @Pattern(regexp = "[XYZ]", message = "The axis that points up is X, Y or Z.")
        String upAxis) {}

package app.zolvan.server.job;

import java.util.List;

/**
 * What an import needs to know because its file does not say.
 *
 * @param units      what one unit in the file may be, most plausible first; empty when that is known
 * @param unitReason why the first is proposed
 * @param upAxes     which axis may point up, most plausible first; empty when that is known
 * @param upReason   why the first is proposed
 */
public record JobQuestion(List<UnitChoice> units, String unitReason, List<String> upAxes, String upReason) {

    /** @param longestSide of the whole model in metres if the file were in this unit */
    public record UnitChoice(String unit, double longestSide) {}
}

package org.transitum.core.sizing;

import org.transitum.core.InvalidValue;

/**
 * What the lead sets for the whole programme.
 *
 * @param percentile 50 to 100
 * @param headroomPercent 0 to 200, added to every dimension
 * @param horizonMonths 0 to 60, how far ahead storage is extrapolated
 * @param lookBackDays 1 to 400, how many days before the last sample count
 * @param growthPercentPerYear assumed where fewer than 8 days of sizes are known
 */
public record SizingSettings(
    double percentile,
    int headroomPercent,
    int horizonMonths,
    int lookBackDays,
    double growthPercentPerYear) {

  public static final SizingSettings DEFAULT = new SizingSettings(95, 20, 18, 30, 10);

  public SizingSettings {
    require(percentile >= 50 && percentile <= 100, "percentile", percentile, "50 to 100");
    require(
        headroomPercent >= 0 && headroomPercent <= 200, "headroom", headroomPercent, "0 to 200");
    require(horizonMonths >= 0 && horizonMonths <= 60, "horizon", horizonMonths, "0 to 60 months");
    require(lookBackDays >= 1 && lookBackDays <= 400, "look-back", lookBackDays, "1 to 400 days");
    require(
        growthPercentPerYear >= 0 && growthPercentPerYear <= 300,
        "growth",
        growthPercentPerYear,
        "0 to 300 % a year");
  }

  private static void require(boolean holds, String what, double value, String bounds) {
    if (!holds) {
      throw new InvalidValue("The %s (%s) must be %s.".formatted(what, value, bounds));
    }
  }

  public double headroomFactor() {
    return 1 + headroomPercent / 100.0;
  }
}

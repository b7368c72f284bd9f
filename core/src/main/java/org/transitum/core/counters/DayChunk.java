package org.transitum.core.counters;

/**
 * One UTC day of an aligned series.
 *
 * @param dayEpoch days since 1970-01-01
 * @param stepSeconds the grid, a divisor of a day
 * @param values one value per bucket in the measure's unit; {@code NaN} is a missing bucket
 */
public record DayChunk(long dayEpoch, int stepSeconds, double[] values) {

  public static final int SECONDS_PER_DAY = 86_400;

  /** Later buckets win over these; what the later one misses stays. */
  public DayChunk mergedWith(DayChunk later) {
    if (later.stepSeconds != stepSeconds || later.dayEpoch != dayEpoch) {
      throw new IllegalArgumentException(
          "Day %d at %d s cannot take day %d at %d s."
              .formatted(dayEpoch, stepSeconds, later.dayEpoch, later.stepSeconds));
    }
    double[] merged = values.clone();
    for (int i = 0; i < merged.length; i++) {
      if (!Double.isNaN(later.values[i])) {
        merged[i] = later.values[i];
      }
    }
    return new DayChunk(dayEpoch, stepSeconds, merged);
  }

  public int present() {
    int count = 0;
    for (double value : values) {
      if (!Double.isNaN(value)) {
        count++;
      }
    }
    return count;
  }
}

package org.transitum.core.counters;

/**
 * How much of a window has samples.
 *
 * @param present buckets that are there
 * @param expected buckets of the window
 */
public record Coverage(int present, int expected) {

  /** From 0 to 1; an empty window is covered for nothing. */
  public double ratio() {
    return expected == 0 ? 0 : present / (double) expected;
  }

  /**
   * Coverage of the last {@code windowSeconds} before {@code endSeconds}, whether or not the series
   * reaches as far back.
   */
  public static Coverage of(AlignedSeries series, long endSeconds, long windowSeconds) {
    AlignedSeries part = series.between(endSeconds - windowSeconds, endSeconds);
    return new Coverage(
        part.sortedPresent().length, Math.toIntExact(windowSeconds / series.stepSeconds()));
  }
}

package org.transitum.core.sizing;

import java.util.OptionalDouble;

/**
 * Hyndman and Fan's sample quantile of type 7 (Hyndman, Fan: Sample quantiles in statistical
 * packages, The American Statistician 50, 1996), the inclusive percentile of spreadsheets.
 */
public final class Percentile {
  private Percentile() {}

  /**
   * @param ascending sorted values without {@code NaN}
   * @param percent from 0 to 100
   * @return empty for no values, never 0
   */
  public static OptionalDouble of(double[] ascending, double percent) {
    if (!(percent >= 0 && percent <= 100)) {
      throw new IllegalArgumentException(
          "The percentile (%s) must be from 0 to 100.".formatted(percent));
    }
    if (ascending.length == 0) {
      return OptionalDouble.empty();
    }
    double h = (ascending.length - 1) * percent / 100.0;
    int floor = (int) h;
    if (floor + 1 >= ascending.length) {
      return OptionalDouble.of(ascending[ascending.length - 1]);
    }
    return OptionalDouble.of(
        ascending[floor] + (h - floor) * (ascending[floor + 1] - ascending[floor]));
  }
}

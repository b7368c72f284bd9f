package org.transitum.core.sizing;

import java.util.Arrays;
import java.util.Optional;

/**
 * A robust line: the median of the slopes between all pairs of points, and the median intercept (P.
 * K. Sen: Estimates of the regression coefficient based on Kendall's tau, JASA 63, 1968).
 *
 * @param slope y per x
 * @param intercept y at x = 0
 */
public record TheilSen(double slope, double intercept) {

  /** O(n²) pairs; empty for fewer than two distinct x. */
  public static Optional<TheilSen> through(double[] x, double[] y) {
    double[] slopes = new double[x.length * (x.length - 1) / 2];
    int count = 0;
    for (int i = 0; i < x.length; i++) {
      for (int j = i + 1; j < x.length; j++) {
        if (x[i] != x[j]) {
          slopes[count++] = (y[j] - y[i]) / (x[j] - x[i]);
        }
      }
    }
    if (count == 0) {
      return Optional.empty();
    }
    double slope = median(Arrays.copyOf(slopes, count));
    double[] rest = new double[x.length];
    for (int i = 0; i < x.length; i++) {
      rest[i] = y[i] - slope * x[i];
    }
    return Optional.of(new TheilSen(slope, median(rest)));
  }

  public double at(double x) {
    return intercept + slope * x;
  }

  private static double median(double[] values) {
    Arrays.sort(values);
    return Percentile.of(values, 50).orElseThrow();
  }
}

package org.transitum.server.sizing;

import java.util.Arrays;
import org.transitum.core.counters.AlignedSeries;

/** Thins a series for drawing: the maximum of neighbours, so that no peak is lost. */
final class Thinning {
  private static final int MOST_POINTS = 1_500;

  private Thinning() {}

  static AlignedSeries thin(AlignedSeries series) {
    double[] values = series.values();
    int by = (values.length + MOST_POINTS - 1) / MOST_POINTS;
    if (by <= 1) {
      return series;
    }
    double[] thin = new double[(values.length + by - 1) / by];
    Arrays.fill(thin, Double.NaN);
    for (int i = 0; i < values.length; i++) {
      if (!Double.isNaN(values[i]) && !(thin[i / by] >= values[i])) {
        thin[i / by] = values[i];
      }
    }
    return new AlignedSeries(series.startSeconds(), series.stepSeconds() * by, thin);
  }
}

package org.transitum.core.sizing;

import java.util.OptionalDouble;
import org.transitum.core.sizing.SourceProfile.Quantiles;

/**
 * A series' percentiles at fixed stops: every whole percent from 50 to 99 and every tenth from 99
 * to 100. At a stop the answer is exact; between two stops it is interpolated and lies between
 * their exact values. 60 numbers stand for a series of any length.
 */
public final class QuantileSketch implements Quantiles {
  private static final int STOPS = 60;

  private final double[] at;

  private QuantileSketch(double[] at) {
    this.at = at;
  }

  /**
   * @param ascending sorted values without {@code NaN}
   */
  public static QuantileSketch of(double[] ascending) {
    if (ascending.length == 0) {
      return new QuantileSketch(new double[0]);
    }
    double[] at = new double[STOPS];
    for (int i = 0; i < STOPS; i++) {
      at[i] = Percentile.of(ascending, percentAt(i)).orElseThrow();
    }
    return new QuantileSketch(at);
  }

  private static double percentAt(int stop) {
    return stop <= 49 ? 50 + stop : 99 + (stop - 49) / 10.0;
  }

  @Override
  public OptionalDouble percentile(double percent) {
    if (at.length == 0) {
      return OptionalDouble.empty();
    }
    if (percent < 50) {
      throw new IllegalArgumentException(
          "The sketch answers from P50 up, not P%s.".formatted(percent));
    }
    double stop = percent <= 99 ? percent - 50 : 49 + (percent - 99) * 10;
    double nearest = Math.rint(stop);
    if (Math.abs(stop - nearest) < 1e-9) {
      return OptionalDouble.of(at[(int) Math.min(nearest, STOPS - 1)]);
    }
    int below = (int) stop;
    return OptionalDouble.of(at[below] + (stop - below) * (at[below + 1] - at[below]));
  }
}

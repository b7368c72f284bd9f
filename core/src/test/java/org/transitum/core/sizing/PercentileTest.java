package org.transitum.core.sizing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

class PercentileTest {

  @Test
  void agreesWithASpreadsheet() {
    double[] values = {15, 20, 35, 40, 50};
    assertThat(Percentile.of(values, 40).orElseThrow()).isCloseTo(29, within(1e-12));
    assertThat(Percentile.of(values, 50)).hasValue(35);
    assertThat(Percentile.of(values, 95).orElseThrow()).isCloseTo(48, within(1e-12));
    assertThat(Percentile.of(new double[] {3}, 7)).hasValue(3);
  }

  @Test
  void nothingHasNoPercentile() {
    assertThat(Percentile.of(new double[0], 95)).isEmpty();
  }

  @Test
  void refusesWhatIsNoPercentage() {
    assertThatThrownBy(() -> Percentile.of(new double[] {1}, 101)).hasMessageContaining("101");
    assertThatThrownBy(() -> Percentile.of(new double[] {1}, Double.NaN)).isNotNull();
  }

  @Test
  void agreesWithAnIndependentDefinitionOnRandomData() {
    Random random = new Random(4);
    for (int round = 0; round < 300; round++) {
      double[] values = random.doubles(1 + random.nextInt(400), 0, 1e9).sorted().toArray();
      double percent = random.nextInt(1001) / 10.0;
      double expected = byWeights(values, percent);
      assertThat(Percentile.of(values, percent).orElseThrow())
          .isCloseTo(expected, within(1e-9 * Math.max(1, expected)));
    }
  }

  /**
   * The same quantile as the value where a piecewise linear function through (k/(n-1), x) stands.
   */
  private static double byWeights(double[] sorted, double percent) {
    double result = 0;
    int n = sorted.length;
    for (int k = 0; k < n; k++) {
      double distance = n == 1 ? 0 : Math.abs(percent / 100 * (n - 1) - k);
      result += Math.max(0, 1 - distance) * sorted[k];
    }
    return result;
  }

  @Test
  void theSketchIsExactAtItsStopsAndBoundedBetween() {
    double[] values = new Random(5).doubles(5_000, 0, 100).toArray();
    Arrays.sort(values);
    QuantileSketch sketch = QuantileSketch.of(values);
    for (double stop : new double[] {50, 73, 95, 99, 99.1, 99.9, 100}) {
      assertThat(sketch.percentile(stop).orElseThrow())
          .isEqualTo(Percentile.of(values, stop).orElseThrow());
    }
    assertThat(sketch.percentile(95.5).orElseThrow())
        .isBetween(
            Percentile.of(values, 95).orElseThrow(), Percentile.of(values, 96).orElseThrow());
    assertThat(QuantileSketch.of(new double[0]).percentile(95)).isEmpty();
  }
}

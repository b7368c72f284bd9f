package org.transitum.core.sizing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class QuantileSketchTest {

  private static double[] sorted(int seed, int count) {
    double[] values = new SplittableRandom(seed).doubles(count, 0, 1_000).toArray();
    Arrays.sort(values);
    return values;
  }

  @Test
  void atItsStopsTheSketchIsExact() {
    for (int seed = 0; seed < 40; seed++) {
      double[] values = sorted(seed, 1 + seed * 37);
      QuantileSketch sketch = QuantileSketch.of(values);
      for (int percent = 50; percent <= 99; percent++) {
        assertThat(sketch.percentile(percent)).isEqualTo(Percentile.of(values, percent));
      }
      for (int tenths = 990; tenths <= 1000; tenths++) {
        assertThat(sketch.percentile(tenths / 10.0).orElseThrow())
            .isEqualTo(Percentile.of(values, tenths / 10.0).orElseThrow());
      }
    }
  }

  @Test
  void betweenTwoStopsItLiesBetweenTheirExactValues() {
    double[] values = sorted(7, 900);
    QuantileSketch sketch = QuantileSketch.of(values);
    for (double percent = 50.1; percent < 99; percent += 0.37) {
      assertThat(sketch.percentile(percent).orElseThrow())
          .isBetween(
              Percentile.of(values, Math.floor(percent)).orElseThrow(),
              Percentile.of(values, Math.ceil(percent)).orElseThrow());
    }
  }

  @Test
  void noValueHasNoPercentileAndBelowTheMedianItDoesNotAnswer() {
    assertThat(QuantileSketch.of(new double[0]).percentile(95)).isEmpty();
    assertThat(QuantileSketch.of(new double[] {3}).percentile(100)).hasValue(3);
    assertThatThrownBy(() -> QuantileSketch.of(new double[] {3}).percentile(49))
        .hasMessageContaining("P49");
  }
}

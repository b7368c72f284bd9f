package org.transitum.core.sizing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;

class TheilSenTest {

  @Test
  void oneOutlierDoesNotBendTheLine() {
    double[] x = {0, 1, 2, 3, 4, 5, 6};
    double[] y = {10, 12, 14, 900, 18, 20, 22};
    TheilSen line = TheilSen.through(x, y).orElseThrow();
    assertThat(line.slope()).isCloseTo(2, within(1e-9));
    assertThat(line.at(10)).isCloseTo(30, within(1e-9));
  }

  @Test
  void onePointMakesNoLine() {
    assertThat(TheilSen.through(new double[] {1}, new double[] {1})).isEmpty();
    assertThat(TheilSen.through(new double[] {1, 1}, new double[] {1, 2})).isEmpty();
  }
}

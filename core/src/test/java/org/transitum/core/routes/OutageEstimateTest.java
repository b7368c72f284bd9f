package org.transitum.core.routes;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class OutageEstimateTest {
  private static final long GIGABIT = 125_000_000;

  @Test
  void smallGoesOfflineAndLargeFollows() {
    OutageEstimate small = OutageEstimate.of(10L << 30, 240, GIGABIT);
    assertThat(small.following()).isFalse();
    assertThat(small.outageMinutes()).isEqualTo(33);
    OutageEstimate large = OutageEstimate.of(4L << 40, 240, GIGABIT);
    assertThat(large.following()).isTrue();
    assertThat(large.outageMinutes()).isEqualTo(45);
    assertThat(large.copyMinutes()).isEqualTo(1173);
  }
}

package org.transitum.core.sizing;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.LocalDate;
import java.util.Arrays;
import org.junit.jupiter.api.Test;
import org.transitum.core.counters.AlignedSeries;

class SourceProfilesTest {
  private static AlignedSeries days(LocalDate from, int days, double filled) {
    double[] values = new double[days * 24];
    Arrays.fill(values, Double.NaN);
    for (int i = 0; i < values.length * filled; i++) {
      values[i] = 100 + Math.floor(i / 24.0);
    }
    return new AlignedSeries(from.toEpochDay() * 86_400, 3_600, values);
  }

  @Test
  void aWholeMonthWithItsEndIsTrusted() {
    Confidence confidence = SourceProfiles.confidence(days(LocalDate.of(2026, 10, 20), 30, 1), 30);
    assertThat(confidence.level()).isEqualTo(Confidence.Level.HIGH);
    assertThat(confidence.reason()).contains("month end seen");
  }

  @Test
  void withoutAMonthEndItIsOnlyFairAndAFewDaysAreWeak() {
    assertThat(SourceProfiles.confidence(days(LocalDate.of(2026, 11, 1), 25, 1), 30).level())
        .isEqualTo(Confidence.Level.FAIR);
    assertThat(SourceProfiles.confidence(days(LocalDate.of(2026, 11, 1), 5, 1), 30).level())
        .isEqualTo(Confidence.Level.LOW);
    assertThat(SourceProfiles.confidence(days(LocalDate.of(2026, 10, 20), 30, 0.4), 30).level())
        .isEqualTo(Confidence.Level.LOW);
  }

  @Test
  void lessThanTwoDaysAreToldInHours() {
    assertThat(SourceProfiles.confidence(days(LocalDate.of(2026, 11, 1), 1, 1), 30).reason())
        .startsWith("24 hours, coverage 100.0%");
  }

  @Test
  void sizesGiveALineOnlyFromEightDaysOn() {
    assertThat(
            SourceProfiles.sizeTrend(days(LocalDate.of(2026, 11, 1), 7, 1))
                .orElseThrow()
                .bytesPerDay())
        .isNull();
    assertThat(
            SourceProfiles.sizeTrend(days(LocalDate.of(2026, 11, 1), 12, 1))
                .orElseThrow()
                .bytesPerDay())
        .isEqualTo(1.0);
  }
}

package org.transitum.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.time.LocalDate;
import java.time.ZonedDateTime;
import org.junit.jupiter.api.Test;

class DemoEstateTest {
  private final DemoEstate estate = new DemoEstate(LocalDate.of(2026, 3, 28));

  @Test
  void relativeTimesFollowTheZoneOverTheClockChange() {
    assertThat(estate.expand("{+0d 22:00},{+1d 04:00}"))
        .isEqualTo("2026-03-28T22:00:00Z,2026-03-29T04:00:00+01:00");
  }

  @Test
  void theSameSeedGivesTheSameCounters() throws IOException {
    ZonedDateTime now = ZonedDateTime.of(2026, 3, 28, 15, 42, 0, 0, DemoEstate.ZONE);
    try (InputStream one = estate.counters(now, 7);
        InputStream same = estate.counters(now, 7);
        InputStream other = estate.counters(now, 8)) {
      byte[] first = one.readNBytes(200_000);
      assertThat(same.readNBytes(200_000)).isEqualTo(first);
      assertThat(other.readNBytes(200_000)).isNotEqualTo(first);
    }
  }

  @Test
  void theBillingRunPeaksAtTheMonthEnd() throws IOException {
    ZonedDateTime now = ZonedDateTime.of(2026, 3, 28, 15, 0, 0, 0, DemoEstate.ZONE);
    long monthEnd = ZonedDateTime.of(2026, 2, 27, 0, 0, 0, 0, DemoEstate.ZONE).toEpochSecond();
    long march = ZonedDateTime.of(2026, 3, 1, 0, 0, 0, 0, DemoEstate.ZONE).toEpochSecond();
    double inRun = 0;
    double after = 0;
    try (BufferedReader lines =
        new BufferedReader(
            new InputStreamReader(estate.counters(now, 1), StandardCharsets.US_ASCII))) {
      for (String line = lines.readLine(); line != null; line = lines.readLine()) {
        if (line.startsWith("HEAD-MS-04/billing,cpu_cores,")) {
          String[] cells = line.split(",");
          long at = Long.parseLong(cells[2]);
          double value = Double.parseDouble(cells[3]);
          if (at >= monthEnd && at < march) {
            inRun = Math.max(inRun, value);
          } else if (at >= march) {
            after = Math.max(after, value);
          }
        }
      }
    }
    assertThat(inRun).isGreaterThan(1.5 * after);
  }
}

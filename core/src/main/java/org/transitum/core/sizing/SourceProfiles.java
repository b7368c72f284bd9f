package org.transitum.core.sizing;

import java.time.Instant;
import java.time.LocalDate;
import java.time.YearMonth;
import java.time.ZoneOffset;
import java.util.Optional;
import org.transitum.core.counters.AlignedSeries;
import org.transitum.core.counters.Coverage;
import org.transitum.core.counters.DayChunk;
import org.transitum.core.sizing.SourceProfile.SizeTrend;

/** What can be read off a database's series beside their percentiles. */
public final class SourceProfiles {
  private static final int LEAST_DAYS_FOR_A_TREND = 8;

  private SourceProfiles() {}

  /**
   * The latest size and the robust line through the daily maxima; empty for a series of nothing.
   */
  public static Optional<SizeTrend> sizeTrend(AlignedSeries sizes) {
    int perDay = DayChunk.SECONDS_PER_DAY / sizes.stepSeconds();
    double[] values = sizes.values();
    int days = (values.length + perDay - 1) / perDay;
    double[] x = new double[days];
    double[] y = new double[days];
    int count = 0;
    double latest = Double.NaN;
    for (int day = 0; day < days; day++) {
      double most = Double.NaN;
      for (int i = day * perDay; i < Math.min(values.length, (day + 1) * perDay); i++) {
        if (!Double.isNaN(values[i])) {
          most = Double.isNaN(most) ? values[i] : Math.max(most, values[i]);
          latest = values[i];
        }
      }
      if (!Double.isNaN(most)) {
        x[count] = day;
        y[count++] = most;
      }
    }
    if (count == 0) {
      return Optional.empty();
    }
    Double slope =
        count < LEAST_DAYS_FOR_A_TREND
            ? null
            : TheilSen.through(java.util.Arrays.copyOf(x, count), java.util.Arrays.copyOf(y, count))
                .map(TheilSen::slope)
                .orElse(null);
    return Optional.of(new SizeTrend(latest, slope));
  }

  /** Confidence of the look-back that ends with the series' last bucket. */
  public static Confidence confidence(AlignedSeries series, int lookBackDays) {
    if (series.values().length == 0) {
      return new Confidence(Confidence.Level.NONE, "no counters yet");
    }
    long window = (long) lookBackDays * DayChunk.SECONDS_PER_DAY;
    AlignedSeries part = series.between(series.endSeconds() - window, series.endSeconds());
    Coverage coverage =
        Coverage.of(part, part.endSeconds(), (long) part.values().length * part.stepSeconds());
    double days = part.values().length * (double) part.stepSeconds() / DayChunk.SECONDS_PER_DAY;
    return Confidence.of(days, coverage.ratio(), sawMonthEnd(part));
  }

  private static boolean sawMonthEnd(AlignedSeries part) {
    LocalDate from = day(part.startSeconds());
    LocalDate to = day(part.endSeconds() - 1);
    for (LocalDate at = from; !at.isAfter(to); at = at.plusDays(1)) {
      if (at.equals(YearMonth.from(at).atEndOfMonth())) {
        return true;
      }
    }
    return false;
  }

  private static LocalDate day(long epochSeconds) {
    return LocalDate.ofInstant(Instant.ofEpochSecond(epochSeconds), ZoneOffset.UTC);
  }
}

package org.transitum.server.sizing;

import java.time.Instant;
import java.time.ZoneId;
import java.time.ZonedDateTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;
import org.transitum.core.counters.AlignedSeries;
import org.transitum.core.sizing.Percentile;

/** A percentile for every weekday and hour of the programme's zone. */
final class HeatGrid {
  private static final int HOURS = 24;
  private static final int WEEKDAYS = 7;

  private final ZoneId zone;

  HeatGrid(String zone) {
    this.zone = ZoneId.of(zone);
  }

  /** Seven rows from Monday of 24 hours each; null where no sample fell. */
  List<List<Double>> of(AlignedSeries series, double percentile) {
    double[][] cells = new double[WEEKDAYS * HOURS][16];
    int[] counts = new int[WEEKDAYS * HOURS];
    double[] values = series.values();
    int cell = 0;
    for (int i = 0; i < values.length; i++) {
      long at = series.startSeconds() + (long) i * series.stepSeconds();
      // zones shift by quarter hours at most, so the cell can change only there
      if (i == 0 || at % 900 < series.stepSeconds()) {
        ZonedDateTime local = Instant.ofEpochSecond(at).atZone(zone);
        cell = (local.getDayOfWeek().getValue() - 1) * HOURS + local.getHour();
      }
      if (!Double.isNaN(values[i])) {
        if (counts[cell] == cells[cell].length) {
          cells[cell] = Arrays.copyOf(cells[cell], counts[cell] * 2);
        }
        cells[cell][counts[cell]++] = values[i];
      }
    }
    List<List<Double>> grid = new ArrayList<>();
    for (int weekday = 0; weekday < WEEKDAYS; weekday++) {
      List<Double> row = new ArrayList<>();
      for (int hour = 0; hour < HOURS; hour++) {
        int at = weekday * HOURS + hour;
        double[] sorted = Arrays.copyOf(cells[at], counts[at]);
        Arrays.sort(sorted);
        OptionalDouble value = Percentile.of(sorted, percentile);
        row.add(value.isPresent() ? value.getAsDouble() : null);
      }
      grid.add(row);
    }
    return grid;
  }
}

package org.transitum.demo;

import java.time.DayOfWeek;
import java.time.YearMonth;
import java.time.ZonedDateTime;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * How busy one demo database is over time.
 *
 * @param peaks counter name to its value at full load
 */
record Rhythm(
    String object,
    String shape,
    Map<String, Double> peaks,
    double sizeBytes,
    double growthPerWeek,
    int days) {

  private static final List<String> PEAKS =
      List.of(
          "cpu_cores",
          "working_set_bytes",
          "reads_per_s",
          "writes_per_s",
          "io_bytes_per_s",
          "log_bytes_per_s",
          "connections");

  static List<Rhythm> readAll(String csv) {
    return csv.lines().skip(1).map(Rhythm::read).toList();
  }

  private static Rhythm read(String line) {
    String[] cells = line.split(",");
    Map<String, Double> peaks = new LinkedHashMap<>();
    for (int i = 0; i < PEAKS.size(); i++) {
      peaks.put(PEAKS.get(i), Double.valueOf(cells[i + 2]));
    }
    return new Rhythm(
        cells[0],
        cells[1],
        peaks,
        Double.parseDouble(cells[9]),
        Double.parseDouble(cells[10]),
        Integer.parseInt(cells[11]));
  }

  /** Share of the full load at a time, 0 to 1, before noise. */
  double load(ZonedDateTime at) {
    double hour = at.getHour() + at.getMinute() / 60.0;
    boolean weekend = at.getDayOfWeek().getValue() >= DayOfWeek.SATURDAY.getValue();
    double office = weekend ? 0.08 : bump(hour, 7.5, 18) * (hour > 12 && hour < 13.2 ? 0.75 : 1);
    return switch (shape) {
      case "office" -> 0.06 + 0.84 * office;
      case "evening" -> 0.12 + 0.4 * office + 0.5 * bump(hour, 16.5, 23);
      case "night" -> 0.35 + 0.6 * (hour >= 22 || hour < 6 ? 1 : 0.1) + (weekend ? 0 : 0.05);
      case "batch" -> 0.07 + 0.15 * office + 0.85 * bump(hour, 0.8, 4.2);
      case "ledger" -> 0.08 + 0.5 * office + 0.75 * bump(hour, 1, 3.6);
      case "month_end" -> lastTwoDays(at) ? 0.9 : 0.05 + 0.36 * office;
      case "steady" -> 0.62 + 0.18 * Math.sin((hour - 8) / 24 * 2 * Math.PI);
      default -> 0.04;
    };
  }

  private static boolean lastTwoDays(ZonedDateTime at) {
    return at.getDayOfMonth() > YearMonth.from(at).lengthOfMonth() - 2;
  }

  /** Rises within an hour after {@code from} and falls within one before {@code to}. */
  private static double bump(double hour, double from, double to) {
    return Math.max(0, Math.min(1, Math.min(hour - from, to - hour)));
  }
}

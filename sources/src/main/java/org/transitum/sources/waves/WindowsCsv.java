package org.transitum.sources.waves;

import java.io.InputStream;
import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.transitum.sources.files.CsvTable;
import org.transitum.sources.files.CsvTable.Row;
import org.transitum.sources.files.Problems;

/** Reads windows and freezes, the format of docs/formats/waves.md. */
public final class WindowsCsv {
  private static final long GIB = 1L << 30;
  private static final Duration LONGEST = Duration.ofDays(14);

  /** A window that becomes a wave. */
  public record WindowRow(
      String wave, String name, Instant start, Instant end, int maxDatabases, long maxBytes) {}

  /** A period in which nothing crosses. */
  public record FreezeRow(String name, Instant start, Instant end) {}

  /** The content of one file. */
  public record Windows(List<WindowRow> windows, List<FreezeRow> freezes) {}

  private WindowsCsv() {}

  /**
   * @throws org.transitum.sources.files.BadFile with everything that is wrong
   */
  public static Windows read(String file, InputStream content) {
    CsvTable table = CsvTable.read(file, content);
    table.requireColumns(
        Set.of("kind", "name", "starts_at", "ends_at"),
        Set.of("kind", "wave", "name", "starts_at", "ends_at", "max_databases", "max_gib"));
    Problems problems = new Problems(file);
    Set<String> keys = new HashSet<>();
    List<WindowRow> windows = new ArrayList<>();
    List<FreezeRow> freezes = new ArrayList<>();
    for (Row row : table.rows()) {
      Instant start = time(row, "starts_at", problems);
      Instant end = time(row, "ends_at", problems);
      if (start == null || end == null) {
        continue;
      }
      if (!end.isAfter(start)) {
        problems.add(
            row.number(), "ends_at", "It must end after it starts; maybe they are swapped.");
        continue;
      }
      switch (row.text("kind")) {
        case "window" -> {
          WindowRow window = window(row, start, end, keys, problems);
          if (window != null) {
            windows.add(window);
          }
        }
        case "freeze" -> freezes.add(new FreezeRow(row.text("name"), start, end));
        default ->
            problems.add(
                row.number(),
                "kind",
                "\"%s\" is not one of window, freeze.".formatted(row.text("kind")));
      }
    }
    problems.throwIfAny();
    return new Windows(windows, freezes);
  }

  private static @Nullable WindowRow window(
      Row row, Instant start, Instant end, Set<String> keys, Problems problems) {
    String key = row.text("wave");
    if (!key.matches("W\\d{2,4}")) {
      problems.add(
          row.number(), "wave", "\"%s\" is no wave key; write W01 to W9999.".formatted(key));
      return null;
    }
    if (!keys.add(key)) {
      problems.add(row.number(), "wave", "\"%s\" stands in the file twice.".formatted(key));
      return null;
    }
    if (Duration.between(start, end).compareTo(LONGEST) > 0) {
      problems.add(
          row.number(), "ends_at", "A window of more than 14 days is no window; check the dates.");
      return null;
    }
    Long databases = whole(row, "max_databases", 1, 10_000, problems);
    Long gib = whole(row, "max_gib", 1, 10_000_000, problems);
    return databases == null || gib == null
        ? null
        : new WindowRow(key, row.text("name"), start, end, databases.intValue(), gib * GIB);
  }

  private static @Nullable Instant time(Row row, String column, Problems problems) {
    try {
      return OffsetDateTime.parse(row.text(column)).toInstant();
    } catch (DateTimeParseException e) {
      problems.add(
          row.number(),
          column,
          "\"%s\" is not a time with its offset; write 2026-11-24T22:00+00:00."
              .formatted(row.text(column)));
      return null;
    }
  }

  private static @Nullable Long whole(
      Row row, String column, long least, long most, Problems problems) {
    try {
      long value = Long.parseLong(row.text(column));
      if (value >= least && value <= most) {
        return value;
      }
    } catch (NumberFormatException e) {
      // reported below with the same words
    }
    problems.add(
        row.number(),
        column,
        "\"%s\" is not a whole number from %,d to %,d.".formatted(row.text(column), least, most));
    return null;
  }
}

package org.transitum.sources.dependencies;

import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.transitum.core.dependencies.Tie;
import org.transitum.core.dependencies.TieKind;
import org.transitum.sources.files.CsvTable;
import org.transitum.sources.files.CsvTable.Row;
import org.transitum.sources.files.Problems;

/** Reads ties between databases, the format of docs/formats/dependencies.md. */
public final class TiesCsv {

  /** A tie with what is written beside it. */
  public record TieRow(Tie tie, String evidence, long row) {}

  private TiesCsv() {}

  /**
   * @param isDatabase whether a key names a database of the estate
   * @throws org.transitum.sources.files.BadFile with everything that is wrong
   */
  public static List<TieRow> read(String file, InputStream content, Predicate<String> isDatabase) {
    CsvTable table = CsvTable.read(file, content);
    table.requireColumns(
        Set.of("from", "to", "kind"), Set.of("from", "to", "kind", "weight", "evidence"));
    Problems problems = new Problems(file);
    Map<String, Long> rows = new HashMap<>();
    List<TieRow> ties = new ArrayList<>();
    for (Row row : table.rows()) {
      Tie tie = tie(row, isDatabase, problems);
      if (tie == null) {
        continue;
      }
      Long before = rows.putIfAbsent(tie.from() + "\n" + tie.to(), row.number());
      if (before != null) {
        problems.add(
            row.number(),
            "to",
            "This pair stands in row %,d already. Keep the stronger tie.".formatted(before));
      } else {
        ties.add(new TieRow(tie, row.text("evidence"), row.number()));
      }
    }
    problems.throwIfAny();
    return ties;
  }

  private static @Nullable Tie tie(Row row, Predicate<String> isDatabase, Problems problems) {
    String from = row.text("from");
    String to = row.text("to");
    boolean sound = true;
    for (String column : List.of("from", "to")) {
      String key = row.text(column);
      if (!isDatabase.test(key)) {
        problems.add(
            row.number(),
            column,
            "\"%s\" is no database of the inventory. Write INSTANCE/database as listed there, or read its inventory first."
                .formatted(key));
        sound = false;
      }
    }
    if (sound && from.equals(to)) {
      problems.add(row.number(), "to", "A database cannot be tied to itself.");
      sound = false;
    }
    TieKind kind = null;
    try {
      kind = TieKind.valueOf(row.text("kind").toUpperCase(Locale.ROOT));
    } catch (IllegalArgumentException e) {
      problems.add(
          row.number(),
          "kind",
          "\"%s\" is not one of bound, ordered, loose.".formatted(row.text("kind")));
    }
    Double weight = weight(row, problems);
    return sound && kind != null && weight != null ? new Tie(from, to, kind, weight) : null;
  }

  private static @Nullable Double weight(Row row, Problems problems) {
    String written = row.text("weight");
    if (written.isEmpty()) {
      return 1.0;
    }
    try {
      double weight = Double.parseDouble(written);
      if (weight >= 0 && weight <= 1_000) {
        return weight;
      }
    } catch (NumberFormatException e) {
      // reported below with the same words
    }
    problems.add(
        row.number(), "weight", "\"%s\" is not a number from 0 to 1,000.".formatted(written));
    return null;
  }
}

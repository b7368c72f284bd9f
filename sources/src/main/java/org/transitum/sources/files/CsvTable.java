package org.transitum.sources.files;

import java.io.InputStream;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * A CSV file of our own format, read whole: header names in lower case, and rows that know where
 * they stand. Counters, which can be huge, have a streaming reader of their own.
 */
public final class CsvTable {
  /**
   * @param number as in the file, the header being row 1
   * @param values by column; empty cells are absent
   */
  public record Row(long number, Map<String, String> values) {
    public String text(String column) {
      return values.getOrDefault(column, "");
    }
  }

  private final String file;
  private final List<String> columns;
  private final List<Row> rows;

  private CsvTable(String file, List<String> columns, List<Row> rows) {
    this.file = file;
    this.columns = columns;
    this.rows = rows;
  }

  /**
   * @throws BadFile when it cannot be read as a table
   */
  public static CsvTable read(String file, InputStream content) {
    byte[] bytes = FileBytes.read(file, content);
    if (FileBytes.isZip(bytes)) {
      throw BadFile.whole(
          file,
          "This is a zip archive (a workbook, perhaps), not a CSV. Unpack it, or save the sheet as CSV.");
    }
    List<FileTable.Row> read = CsvRows.read(file, FileBytes.decode(file, bytes).text());
    if (read.isEmpty()) {
      throw BadFile.whole(file, "The file is empty. Choose a file with a header row and data.");
    }
    List<String> columns = header(file, read.get(0));
    Problems problems = new Problems(file);
    List<Row> rows = new ArrayList<>();
    read.stream().skip(1).forEach(row -> add(rows, columns, row, problems));
    problems.throwIfAny();
    return new CsvTable(file, columns, rows);
  }

  private static List<String> header(String file, FileTable.Row row) {
    List<String> columns = row.cells().stream().map(name -> name.toLowerCase(Locale.ROOT)).toList();
    Set<String> seen = new HashSet<>();
    for (String column : columns) {
      if (!column.isEmpty() && !seen.add(column)) {
        throw new BadFile(
            List.of(
                new FileProblem(
                    file,
                    row.number(),
                    column,
                    "The header names this column twice. Rename or remove one.")),
            1);
      }
    }
    return columns;
  }

  private static void add(
      List<Row> rows, List<String> columns, FileTable.Row row, Problems problems) {
    if (row.cells().size() > columns.size()) {
      problems.add(
          row.number(),
          null,
          "The row has %d values, the header %d. A delimiter inside a value needs quotes around it."
              .formatted(row.cells().size(), columns.size()));
      return;
    }
    Map<String, String> values = new LinkedHashMap<>();
    for (int i = 0; i < row.cells().size(); i++) {
      if (!row.cell(i).isEmpty() && !columns.get(i).isEmpty()) {
        values.put(columns.get(i), row.cell(i));
      }
    }
    rows.add(new Row(row.number(), values));
  }

  public String file() {
    return file;
  }

  public List<String> columns() {
    return columns;
  }

  public List<Row> rows() {
    return rows;
  }

  /**
   * @throws BadFile when a column is missing or not known
   */
  public void requireColumns(Set<String> required, Set<String> known) {
    Problems problems = new Problems(file);
    for (String column : required.stream().sorted().toList()) {
      if (!columns.contains(column)) {
        problems.add(
            1L,
            column,
            "The header lacks this column. It has: " + String.join(", ", columns) + ".");
      }
    }
    for (String column : columns) {
      if (!column.isEmpty() && !known.contains(column)) {
        problems.add(
            1L,
            column,
            "This column is not known here. Known are: "
                + String.join(", ", known.stream().sorted().toList())
                + ".");
      }
    }
    problems.throwIfAny();
  }
}

package org.transitum.sources.files;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.apache.commons.csv.CSVException;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;

/**
 * A CSV file of people's size, read whole: header names in lower case, and rows that know where
 * they stand. Counters, which can be huge, have a streaming reader of their own.
 */
public final class CsvTable {
  static final long MOST_BYTES = 64L << 20;
  static final int MOST_ROWS = 200_000;

  /**
   * @param number as in the file, the header being row 1; a quoted line break does not count
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
    try {
      return parse(file, new Bounded(file, content));
    } catch (CharacterCodingException e) {
      throw BadFile.whole(
          file, "The file is not UTF-8 text. Save it again with the encoding UTF-8.");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static CsvTable parse(String file, InputStream content) throws IOException {
    TextSource source = TextSource.open(file, content);
    CSVFormat format =
        CSVFormat.RFC4180
            .builder()
            .setDelimiter(source.delimiter())
            .setIgnoreEmptyLines(true)
            .get();
    List<String> columns = List.of();
    List<Row> rows = new ArrayList<>();
    Problems problems = new Problems(file);
    long number = 0;
    try (CSVParser parser = CSVParser.parse(source.reader(), format)) {
      for (CSVRecord record : parser) {
        number++;
        if (number == 1) {
          columns = header(file, record);
        } else {
          add(rows, columns, record, number, problems);
        }
      }
    } catch (UncheckedIOException | CSVException e) {
      if (e.getCause() instanceof CharacterCodingException coding) {
        throw coding;
      }
      throw new BadFile(
          List.of(
              new FileProblem(
                  file,
                  number + 1,
                  null,
                  "A quote opens here and is never closed, or text follows a closing quote. Write a quote inside a value twice.")),
          1);
    }
    problems.throwIfAny();
    return new CsvTable(file, columns, rows);
  }

  private static List<String> header(String file, CSVRecord record) {
    List<String> columns =
        record.stream().map(name -> name.strip().toLowerCase(Locale.ROOT)).toList();
    Set<String> seen = new HashSet<>();
    for (String column : columns) {
      if (!column.isEmpty() && !seen.add(column)) {
        throw new BadFile(
            List.of(
                new FileProblem(
                    file, 1L, column, "The header names this column twice. Rename or remove one.")),
            1);
      }
    }
    return columns;
  }

  private static void add(
      List<Row> rows, List<String> columns, CSVRecord record, long number, Problems problems) {
    if (rows.size() == MOST_ROWS) {
      throw BadFile.whole(
          problems.file(), "More than %,d rows; split the file.".formatted(MOST_ROWS));
    }
    if (record.size() > columns.size()) {
      problems.add(
          number,
          null,
          "The row has %d values, the header %d. A delimiter inside a value needs quotes around it."
              .formatted(record.size(), columns.size()));
      return;
    }
    Map<String, String> values = new LinkedHashMap<>();
    for (int i = 0; i < record.size(); i++) {
      String value = record.get(i).strip();
      if (!value.isEmpty() && !columns.get(i).isEmpty()) {
        values.put(columns.get(i), value);
      }
    }
    if (!values.isEmpty()) {
      rows.add(new Row(number, values));
    }
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

  /** Stops reading a file that is too large for a table. */
  private static final class Bounded extends InputStream {
    private final String file;
    private final InputStream in;
    private long left = MOST_BYTES;

    Bounded(String file, InputStream in) {
      this.file = file;
      this.in = in;
    }

    @Override
    public int read() throws IOException {
      byte[] one = new byte[1];
      return read(one, 0, 1) < 0 ? -1 : one[0] & 0xFF;
    }

    @Override
    public int read(byte[] bytes, int from, int length) throws IOException {
      int count = in.read(bytes, from, length);
      left -= Math.max(0, count);
      if (left < 0) {
        throw BadFile.whole(
            file,
            "The file is larger than %d MiB, too large for an inventory. Split it; counters go to the counters import."
                .formatted(MOST_BYTES >> 20));
      }
      return count;
    }
  }
}

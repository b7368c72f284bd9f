package org.transitum.sources.files;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import org.apache.commons.csv.CSVException;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVParser;
import org.apache.commons.csv.CSVRecord;
import org.transitum.sources.files.FileTable.Row;

/** Reads the rows of a CSV text: any of four delimiters, quotes as in RFC 4180. */
final class CsvRows {
  static final int MOST_ROWS = 200_000;
  private static final int LOOKED = 20;

  private CsvRows() {}

  /**
   * @throws BadFile when it cannot be read as a table
   */
  static List<Row> read(String file, String text) {
    CSVFormat format =
        CSVFormat.RFC4180.builder().setDelimiter(delimiterOf(text)).setIgnoreEmptyLines(true).get();
    List<Row> rows = new ArrayList<>();
    long number = 0;
    try (CSVParser parser = CSVParser.parse(text, format)) {
      for (CSVRecord record : parser) {
        number++;
        List<String> cells = new ArrayList<>(record.size());
        boolean filled = false;
        for (String cell : record) {
          String stripped = cell.strip();
          filled |= !stripped.isEmpty();
          cells.add(stripped);
        }
        if (filled) {
          rows.add(new Row(number, cells));
        }
        if (rows.size() > MOST_ROWS) {
          throw BadFile.whole(file, "More than %,d rows; split the file.".formatted(MOST_ROWS));
        }
      }
    } catch (UncheckedIOException | CSVException e) {
      throw new BadFile(
          List.of(
              new FileProblem(
                  file,
                  number + 1,
                  null,
                  "A quote opens here and is never closed, or text follows a closing quote. Write a quote inside a value twice.")),
          1);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    return rows;
  }

  /** The delimiter that the first lines hold most of, a comma where none holds any. */
  static char delimiterOf(String text) {
    List<String> lines = text.lines().limit(LOOKED).toList();
    char best = ',';
    long most = 0;
    for (char candidate : new char[] {',', ';', '\t', '|'}) {
      long first = lines.isEmpty() ? 0 : count(lines.get(0), candidate);
      long all = lines.stream().filter(line -> count(line, candidate) > 0).count();
      long weight = first * LOOKED + all;
      if (weight > most) {
        most = weight;
        best = candidate;
      }
    }
    return best;
  }

  private static long count(String line, char wanted) {
    return line.chars().filter(c -> c == wanted).count();
  }
}

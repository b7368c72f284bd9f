package org.transitum.sources.files;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.apache.commons.compress.archivers.zip.ZipArchiveEntry;
import org.apache.commons.compress.archivers.zip.ZipFile;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.CellType;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Sheet;
import org.transitum.sources.files.FileTable.Row;

/**
 * Reads the sheets of a workbook: values of formulas as they were last worked out, dates as ISO
 * dates, values of merged cells in each of their rows.
 */
final class XlsxTables {
  /** A workbook that unpacks to more than this is refused before it is read. */
  private static final long MOST_UNPACKED = 512L << 20;

  private static final int MOST_ENTRIES = 2_000;
  private static final int MOST_SHEETS = 60;
  private static final int MOST_COLUMNS = 300;
  private static final Set<String> ERRORS =
      Set.of("#DIV/0!", "#N/A", "#NAME?", "#NULL!", "#NUM!", "#REF!", "#VALUE!");

  private XlsxTables() {}

  static List<FileTable> read(String file, byte[] bytes) {
    boolean styled = requireWorkbook(file, bytes);
    List<FileTable> tables = new ArrayList<>();
    try (ReadableWorkbook workbook =
        new ReadableWorkbook(new ByteArrayInputStream(bytes), new ReadingOptions(styled, false))) {
      List<Sheet> sheets = workbook.getSheets().limit(MOST_SHEETS).toList();
      Map<String, MergedCells> merged = MergedCells.read(bytes);
      for (Sheet sheet : sheets) {
        tables.add(
            table(file, sheet, merged.getOrDefault(sheet.getName(), new MergedCells(List.of()))));
      }
    } catch (BadFile e) {
      throw e;
    } catch (IOException | RuntimeException e) {
      throw BadFile.whole(
          file,
          "The workbook is damaged or holds something that is not read here. Open it, save it as a new workbook (.xlsx) or as CSV, and read that.");
    }
    return tables;
  }

  /**
   * Unpacks without keeping, counting: small archives that grow without end stop here.
   *
   * @return whether it tells its cells' formats, which programs that only export leave out
   */
  private static boolean requireWorkbook(String file, byte[] bytes) {
    boolean workbook = false;
    boolean styled = false;
    long unpacked = 0;
    byte[] block = new byte[1 << 16];
    try (ZipFile zip = ZipFile.builder().setByteArray(bytes).get()) {
      List<ZipArchiveEntry> entries = Collections.list(zip.getEntries());
      if (entries.size() > MOST_ENTRIES) {
        throw BadFile.whole(
            file, "The workbook has %,d parts; no list does.".formatted(entries.size()));
      }
      for (ZipArchiveEntry entry : entries) {
        workbook |= entry.getName().equals("xl/workbook.xml");
        styled |= entry.getName().equals("xl/styles.xml");
        try (InputStream part = zip.getInputStream(entry)) {
          for (int n = part.read(block); n >= 0; n = part.read(block)) {
            unpacked += n;
            if (unpacked > MOST_UNPACKED) {
              throw BadFile.whole(
                  file,
                  "The workbook unpacks to more than %d MiB. Copy the rows that matter to a new one."
                      .formatted(MOST_UNPACKED >> 20));
            }
          }
        }
      }
    } catch (IOException | IllegalArgumentException e) {
      throw BadFile.whole(file, "The archive is damaged. Save the workbook again.");
    }
    if (!workbook) {
      throw BadFile.whole(
          file, "This is a zip archive and no workbook. Unpack it and choose one of its files.");
    }
    return styled;
  }

  private static FileTable table(String file, Sheet sheet, MergedCells merged) throws IOException {
    List<Row> rows = new ArrayList<>();
    try (Stream<org.dhatim.fastexcel.reader.Row> read = sheet.openStream()) {
      read.forEach(
          row -> {
            List<String> cells = new ArrayList<>();
            boolean filled = false;
            for (int i = 0; i < Math.min(row.getCellCount(), MOST_COLUMNS); i++) {
              String text = text(row.getCell(i));
              filled |= !text.isEmpty();
              cells.add(text);
            }
            if (filled) {
              rows.add(new Row(row.getRowNum(), cells));
            }
            if (rows.size() > CsvRows.MOST_ROWS) {
              throw BadFile.whole(
                  file,
                  "Sheet %s has more than %,d rows; split it."
                      .formatted(sheet.getName(), CsvRows.MOST_ROWS));
            }
          });
    }
    int filled = merged.fill(rows);
    List<String> notes =
        filled == 0
            ? List.of()
            : List.of(
                "Merged cells, %,d of them: their value was taken for each row.".formatted(filled));
    return new FileTable(file, sheet.getName(), rows, notes);
  }

  private static String text(Cell cell) {
    if (cell == null || cell.getType() == CellType.EMPTY) {
      return "";
    }
    if (cell.getType() == CellType.ERROR) {
      return "";
    }
    boolean numeric =
        cell.getType() == CellType.NUMBER
            || (cell.getType() == CellType.FORMULA && cell.getValue() instanceof Number);
    if (numeric && isDate(cell)) {
      LocalDateTime at = cell.asDate();
      return at.toLocalTime().equals(LocalTime.MIDNIGHT)
          ? at.toLocalDate().toString()
          : at.toString();
    }
    if (cell.getType() == CellType.NUMBER) {
      return cell.asNumber().stripTrailingZeros().toPlainString();
    }
    if (cell.getType() == CellType.BOOLEAN) {
      return cell.asBoolean() ? "yes" : "no";
    }
    String text = cell.getText();
    // a formula's error comes as its text
    return text == null || ERRORS.contains(text) ? "" : text.strip();
  }

  /** Whether the cell's format shows a day: letters d, m and y outside quotes and brackets. */
  private static boolean isDate(Cell cell) {
    String format = cell.getDataFormatString();
    if (format == null) {
      return false;
    }
    String plain = format.toLowerCase(Locale.ROOT).replaceAll("\"[^\"]*\"|\\[[^]]*]|\\\\.", "");
    return plain.contains("y") || (plain.contains("d") && plain.contains("m"));
  }
}

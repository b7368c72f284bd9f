package org.transitum.sources.files;

import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;

/** Reads the tables of a file as they come: CSV in any delimiter and encoding, XLSX, or JSON. */
public final class TableFiles {
  private TableFiles() {}

  /**
   * @return at least one table with at least one row
   * @throws BadFile when nothing in it can be read as a table
   */
  public static List<FileTable> read(String file, InputStream content) {
    byte[] bytes = FileBytes.read(file, content);
    List<FileTable> tables = tables(file, bytes);
    List<FileTable> filled = tables.stream().filter(table -> !table.rows().isEmpty()).toList();
    if (filled.isEmpty()) {
      throw BadFile.whole(file, "The file holds no row. Choose a file with a header row and data.");
    }
    return filled;
  }

  private static List<FileTable> tables(String file, byte[] bytes) {
    if (FileBytes.isZip(bytes)) {
      return XlsxTables.read(file, bytes);
    }
    FileBytes decoded = FileBytes.decode(file, bytes);
    String start = decoded.text().stripLeading();
    if (start.startsWith("{") || start.startsWith("[")) {
      return JsonTables.read(file, decoded.text());
    }
    List<String> notes = new ArrayList<>();
    if (decoded.guessed()) {
      notes.add(
          "The encoding was taken as %s; look whether accents are right."
              .formatted(decoded.charset()));
    }
    return List.of(new FileTable(file, "", CsvRows.read(file, decoded.text()), notes));
  }
}

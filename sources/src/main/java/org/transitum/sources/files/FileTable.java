package org.transitum.sources.files;

import java.util.List;

/**
 * A table as it stands in somebody's file.
 *
 * @param file its name
 * @param sheet the sheet's name; empty where a file holds one table
 * @param rows from the top, the header among them; rows without any cell left out
 * @param notes what was noticed while reading, such as merged cells
 */
public record FileTable(String file, String sheet, List<Row> rows, List<String> notes) {

  /**
   * @param number as in the file, counted from 1; a quoted line break does not count
   * @param cells stripped; empty where there is none
   */
  public record Row(long number, List<String> cells) {
    public String cell(int column) {
      return column < cells.size() ? cells.get(column) : "";
    }
  }

  /** The table's name for people: the file's, and the sheet's where there are several. */
  public String title() {
    return sheet.isEmpty() ? file : file + ", " + sheet;
  }
}

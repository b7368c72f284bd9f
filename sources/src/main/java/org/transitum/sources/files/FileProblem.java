package org.transitum.sources.files;

import org.jspecify.annotations.Nullable;

/**
 * Something wrong in a file, with its place.
 *
 * @param row counted from 1, the header being row 1; null where the file as a whole is meant
 * @param column the header's name; without a row the place in the file, such as a path in JSON;
 *     null where the file as a whole is meant
 * @param sentence what is wrong and what to do
 */
public record FileProblem(
    String file, @Nullable Long row, @Nullable String column, String sentence) {

  /** As one line for a log or a message. */
  public String line() {
    return file
        + (row == null ? "" : ", row " + String.format("%,d", row))
        + (column == null ? "" : (row == null ? ", " : ", column ") + column)
        + ": "
        + sentence;
  }
}

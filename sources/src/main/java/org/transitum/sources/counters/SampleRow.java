package org.transitum.sources.counters;

import de.siegmar.fastcsv.reader.CsvCallbackHandler;
import de.siegmar.fastcsv.reader.RecordType;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One row of a counters file, read straight from the parser's buffer and used again for each row:
 * no string is made for an object, a counter or a time that came before.
 */
final class SampleRow extends CsvCallbackHandler<SampleRow> {
  private static final int LONGEST = 256;
  private static final int MOST_OBJECTS = 200_000;
  private static final int MOST_COUNTERS = 1_000;
  private static final double[] TENS = new double[23];

  static {
    double ten = 1;
    for (int i = 0; i < TENS.length; i++) {
      TENS[i] = ten;
      ten *= 10;
    }
  }

  private final List<String> header = new ArrayList<>();
  private int @Nullable [] columns;
  private int fields;
  private int seen;
  private RecordType type = RecordType.DATA;

  private final Names objects = new Names(MOST_OBJECTS);
  private final Names counters = new Names(MOST_COUNTERS);
  private int object;
  private int counter;
  private char[] lastTime = {};
  private long millis;
  private double value;
  private @Nullable String problem;
  private @Nullable String problemColumn;

  void columns(int[] positions) {
    columns = positions;
  }

  List<String> header() {
    return header;
  }

  /** The object's number, counted from 0 in the order in which the file names them first. */
  int object() {
    return object;
  }

  String objectName() {
    return objects.text(object);
  }

  /** The counter's number, as the object's. */
  int counter() {
    return counter;
  }

  String counterName() {
    return counters.text(counter);
  }

  long millis() {
    return millis;
  }

  double value() {
    return value;
  }

  @Nullable String problem() {
    return problem;
  }

  @Nullable String problemColumn() {
    return problemColumn;
  }

  @Override
  protected RecordType getRecordType() {
    return type;
  }

  @Override
  protected int getFieldCount() {
    return fields;
  }

  @Override
  protected void beginRecord(long startingLineNumber) {
    fields = 0;
    seen = 0;
    type = RecordType.DATA;
    problem = null;
    problemColumn = null;
  }

  @Override
  protected void addField(char[] buffer, int offset, int length, boolean quoted) {
    int at = fields++;
    if (columns == null) {
      header.add(new String(buffer, offset, length));
      return;
    }
    if (at >= columns.length) {
      problem(null, "The row has more values than the header.");
      return;
    }
    if (columns[at] < 0) {
      return;
    }
    seen |= 1 << columns[at];
    if (quoted && length > LONGEST) {
      problem(
          CountersCsv.COLUMNS.get(columns[at]),
          "The value is longer than %d characters; a quote that is never closed, perhaps."
              .formatted(LONGEST));
      return;
    }
    switch (columns[at]) {
      case 0 -> object = named("object", objects, MOST_OBJECTS, buffer, offset, length);
      case 1 -> counter = named("counter", counters, MOST_COUNTERS, buffer, offset, length);
      case 2 -> timeUnlessSame(buffer, offset, length);
      default -> number(buffer, offset, length);
    }
  }

  @Override
  protected void setComment(char[] buffer, int offset, int length) {
    type = RecordType.COMMENT;
  }

  @Override
  protected void setEmpty() {
    type = RecordType.EMPTY;
  }

  @Override
  protected SampleRow buildRecord() {
    if (columns != null && seen != 0b1111 && problem == null) {
      int missing = Integer.numberOfTrailingZeros(~seen);
      problem(CountersCsv.COLUMNS.get(missing), "The row has no value here; it may be cut off.");
    }
    return this;
  }

  private void problem(@Nullable String column, String sentence) {
    if (problem == null) {
      problem = sentence;
      problemColumn = column;
    }
  }

  private int named(String column, Names names, int most, char[] buffer, int offset, int length) {
    int number = names.number(buffer, offset, length);
    if (number == Names.TOO_MANY) {
      problem(column, "The file names more than %,d different ones.".formatted(most));
    }
    return number;
  }

  /** Collectors sample everything at once, so that times mostly repeat. */
  private void timeUnlessSame(char[] buffer, int offset, int length) {
    if (Arrays.equals(lastTime, 0, lastTime.length, buffer, offset, offset + length)) {
      return;
    }
    time(buffer, offset, length);
    lastTime = problem == null ? Arrays.copyOfRange(buffer, offset, offset + length) : new char[0];
  }

  private void time(char[] b, int o, int n) {
    if (n == 20 && b[o + 19] == 'Z' && b[o + 10] == 'T' && b[o + 4] == '-') {
      int year = digits(b, o, 4);
      int month = digits(b, o + 5, 2);
      int day = digits(b, o + 8, 2);
      int hour = digits(b, o + 11, 2);
      int minute = digits(b, o + 14, 2);
      int second = digits(b, o + 17, 2);
      if ((year | month | day | hour | minute | second) >= 0
          && month >= 1
          && month <= 12
          && day >= 1
          && day <= 28
          && hour < 24
          && minute < 60
          && second < 60) {
        millis =
            1000L * (86_400L * epochDay(year, month, day) + 3_600L * hour + 60L * minute + second);
        return;
      }
    }
    long seconds = n >= 9 && n <= 11 ? wholeSeconds(b, o, n) : -1;
    if (seconds >= 0) {
      millis = seconds * 1000;
    } else {
      slowTime(new String(b, o, n).strip());
    }
  }

  private static long wholeSeconds(char[] b, int from, int count) {
    long value = 0;
    for (int i = from; i < from + count; i++) {
      int digit = b[i] - '0';
      if (digit < 0 || digit > 9) {
        return -1;
      }
      value = value * 10 + digit;
    }
    return value;
  }

  private void slowTime(String text) {
    try {
      millis = OffsetDateTime.parse(text).toInstant().toEpochMilli();
    } catch (DateTimeParseException e) {
      problem(
          "time",
          "\"%s\" is not a time with its offset; write 2026-11-24T22:05:00Z or seconds since 1970."
              .formatted(text));
    }
  }

  /** Days since 1970-01-01 of a date of the Gregorian calendar, for a day from 1 to 28. */
  private static long epochDay(int year, int month, int day) {
    long y = month <= 2 ? year - 1L : year;
    long era = Math.floorDiv(y, 400L);
    long yearOfEra = y - era * 400;
    long dayOfYear = (153L * (month + (month > 2 ? -3 : 9)) + 2) / 5 + day - 1;
    return era * 146_097 + yearOfEra * 365 + yearOfEra / 4 - yearOfEra / 100 + dayOfYear - 719_468;
  }

  private static int digits(char[] b, int from, int count) {
    int value = 0;
    for (int i = from; i < from + count; i++) {
      int digit = b[i] - '0';
      if (digit < 0 || digit > 9) {
        return -1;
      }
      value = value * 10 + digit;
    }
    return value;
  }

  /**
   * Up to 15 digits with a point are exact as mantissa / power of ten (Clinger: How to read
   * floating point numbers accurately, PLDI 1990, fast path); anything else goes to the library.
   */
  private void number(char[] b, int o, int n) {
    long mantissa = 0;
    int scale = 0;
    boolean point = false;
    boolean plain = n > 0 && n <= 16;
    for (int i = o; plain && i < o + n; i++) {
      int digit = b[i] - '0';
      if (digit >= 0 && digit <= 9) {
        mantissa = mantissa * 10 + digit;
        scale += point ? 1 : 0;
      } else if (b[i] == '.' && !point && n > 1) {
        point = true;
      } else {
        plain = false;
      }
    }
    if (plain && mantissa < 1L << 53) {
      value = mantissa / TENS[scale];
      return;
    }
    String text = new String(b, o, n).strip();
    try {
      value = Double.parseDouble(text);
      if (!Double.isFinite(value) || value < 0) {
        problem("value", "\"%s\" must be a finite number from 0 up.".formatted(text));
      }
    } catch (NumberFormatException e) {
      problem(
          "value",
          "\"%s\" is not a number; write digits with a point for decimals.".formatted(cut(text)));
    }
  }

  private static String cut(String text) {
    char[] some = Arrays.copyOf(text.toCharArray(), Math.min(60, text.length()));
    return new String(some);
  }
}

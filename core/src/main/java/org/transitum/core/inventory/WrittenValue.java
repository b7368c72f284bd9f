package org.transitum.core.inventory;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeFormatterBuilder;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.transitum.core.InvalidValue;

/**
 * Numbers, amounts and dates as people write them in spreadsheets.
 *
 * <p>KB to PB and KiB to PiB are both powers of 1,024, as database servers count them. A comma or
 * an apostrophe groups thousands where exactly three digits follow each; else a comma is the
 * decimal point.
 */
final class WrittenValue {
  private static final Pattern AMOUNT =
      Pattern.compile("([+-]?[0-9][0-9.,' \\u00a0\\u202f]*)\\s*([\\p{L}%/ ]*)");
  private static final Pattern GROUPED =
      Pattern.compile("[+-]?\\d{1,3}([,' \\u00a0\\u202f]\\d{3})+(\\.\\d+)?");
  private static final Map<String, Integer> BINARY_POWERS =
      Map.of("", 0, "b", 0, "k", 1, "m", 2, "g", 3, "t", 4, "p", 5);
  private static final Map<String, Integer> MINUTES =
      Map.ofEntries(
          Map.entry("", 1),
          Map.entry("m", 1),
          Map.entry("min", 1),
          Map.entry("mins", 1),
          Map.entry("minute", 1),
          Map.entry("minutes", 1),
          Map.entry("h", 60),
          Map.entry("hr", 60),
          Map.entry("hrs", 60),
          Map.entry("hour", 60),
          Map.entry("hours", 60),
          Map.entry("d", 1_440),
          Map.entry("day", 1_440),
          Map.entry("days", 1_440),
          Map.entry("week", 10_080),
          Map.entry("weeks", 10_080));
  private static final List<DateTimeFormatter> DATES =
      List.of(
          DateTimeFormatter.ISO_LOCAL_DATE,
          formatter("d.M.uuuu"),
          formatter("d MMM uuuu"),
          formatter("d MMMM uuuu"),
          formatter("MMM d, uuuu"),
          formatter("uuuu/M/d"));

  /** A number and the unit written behind it, in small letters without spaces. */
  private record Amount(BigDecimal number, String unit) {}

  private WrittenValue() {}

  private static DateTimeFormatter formatter(String pattern) {
    return new DateTimeFormatterBuilder()
        .parseCaseInsensitive()
        .appendPattern(pattern)
        .toFormatter(Locale.ENGLISH)
        .withResolverStyle(java.time.format.ResolverStyle.STRICT);
  }

  /** {@code 1.5 TB}, {@code 512 MB}, {@code 1,024 KiB}; without a unit it is bytes. */
  static long bytes(String text) {
    Amount amount = amount(text, "an amount such as 512 GB or 1.5 TB");
    String unit =
        amount.unit().replaceFirst("^(.)i?(b|bytes?)$", "$1").replaceFirst("^bytes?$", "");
    Integer power = BINARY_POWERS.get(unit);
    if (power == null) {
      throw new InvalidValue(
          "\"%s\" has no unit of storage known here; write B, KB, MB, GB, TB or PB."
              .formatted(text));
    }
    return whole(amount.number().multiply(BigDecimal.valueOf(1L << (10 * power))), text);
  }

  /** {@code 30 min}, {@code 4 h}, {@code 1 day}; without a unit it is minutes. */
  static long minutes(String text) {
    Amount amount = amount(text, "a time such as 30 min, 4 h or 1 day");
    Integer minutes = MINUTES.get(amount.unit());
    if (minutes == null) {
      throw new InvalidValue(
          "\"%s\" has no unit of time known here; write min, h or days.".formatted(text));
    }
    return whole(amount.number().multiply(BigDecimal.valueOf(minutes)), text);
  }

  /** {@code 1,204}, {@code 17 tables}: what stands behind a count is taken as its noun. */
  static long count(String text) {
    Amount amount = amount(text, "a whole number");
    if (amount.number().stripTrailingZeros().scale() > 0) {
      throw new InvalidValue("\"%s\" is not a whole number.".formatted(text));
    }
    return whole(amount.number(), text);
  }

  /** {@code 16 vCPU}, {@code 0.85}: what stands behind a number is taken as its noun. */
  static String decimal(String text) {
    BigDecimal value = amount(text, "a number, with a point for decimals").number();
    if (value.precision() > 30 || Math.abs(value.scale()) > 30) {
      throw new InvalidValue("\"%s\" must be a plain number from 0 up.".formatted(text));
    }
    return value.signum() == 0 ? "0" : value.stripTrailingZeros().toPlainString();
  }

  /**
   * {@code 2026-11-24}, {@code 24.11.2026}, {@code 24 Nov 2026}. With slashes the day and the month
   * are told apart only where one of them is above 12.
   */
  static LocalDate date(String text) {
    for (DateTimeFormatter format : DATES) {
      try {
        return LocalDate.parse(text, format);
      } catch (DateTimeException e) {
        // the next form may fit
      }
    }
    return slashed(text)
        .orElseThrow(
            () ->
                new InvalidValue(
                    "\"%s\" is no date that can be read in one way; write it as 2026-11-24."
                        .formatted(text)));
  }

  private static Optional<LocalDate> slashed(String text) {
    Matcher parts = Pattern.compile("(\\d{1,2})/(\\d{1,2})/(\\d{4})").matcher(text);
    if (!parts.matches()) {
      return Optional.empty();
    }
    int first = Integer.parseInt(parts.group(1));
    int second = Integer.parseInt(parts.group(2));
    int year = Integer.parseInt(parts.group(3));
    boolean dayFirst = first > 12;
    if (!dayFirst && second <= 12 && first != second) {
      return Optional.empty();
    }
    try {
      return Optional.of(LocalDate.of(year, dayFirst ? second : first, dayFirst ? first : second));
    } catch (DateTimeException e) {
      return Optional.empty();
    }
  }

  private static Amount amount(String text, String wanted) {
    Matcher written = AMOUNT.matcher(text);
    if (!written.matches()) {
      throw new InvalidValue("\"%s\" is not %s.".formatted(text, wanted));
    }
    String number = written.group(1).strip();
    String plain =
        GROUPED.matcher(number).matches()
            ? number.replaceAll("[,' \\u00a0\\u202f]", "")
            : number.replaceFirst(",(?=\\d+$)", ".");
    BigDecimal value;
    try {
      value = new BigDecimal(plain);
    } catch (NumberFormatException e) {
      throw new InvalidValue("\"%s\" is not %s.".formatted(text, wanted));
    }
    if (value.signum() < 0) {
      throw new InvalidValue("\"%s\" is negative; write it from 0 up.".formatted(text));
    }
    return new Amount(value, written.group(2).toLowerCase(Locale.ROOT).replace(" ", ""));
  }

  private static long whole(BigDecimal value, String text) {
    try {
      return value.setScale(0, RoundingMode.HALF_UP).longValueExact();
    } catch (ArithmeticException e) {
      throw new InvalidValue("\"%s\" is larger than anything that can be counted.".formatted(text));
    }
  }
}

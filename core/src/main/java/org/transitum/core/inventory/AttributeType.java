package org.transitum.core.inventory;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.format.DateTimeParseException;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.transitum.core.InvalidValue;

/**
 * How an attribute's value is written. Every value is kept in one canonical text form, so that
 * equal values compare equal whatever file or server they came from.
 */
public enum AttributeType {
  TEXT,
  INTEGER,
  DECIMAL,
  BYTES,
  MINUTES,
  DATE,
  BOOLEAN,
  LIST,
  ENGINE,
  ENVIRONMENT,
  CRITICALITY,
  DISPOSITION;

  private static final int LONGEST_TEXT = 2_000;

  /**
   * The canonical form of a value as written.
   *
   * @throws InvalidValue naming the value and what is accepted
   */
  public String canonical(String written) {
    String text = written.strip();
    if (text.length() > LONGEST_TEXT) {
      throw new InvalidValue(
          "A value of %,d characters is too long; at most %,d are kept."
              .formatted(text.length(), LONGEST_TEXT));
    }
    return switch (this) {
      case TEXT -> text;
      case INTEGER, BYTES, MINUTES -> wholeNumber(text);
      case DECIMAL -> decimal(text);
      case DATE -> date(text);
      case BOOLEAN -> bool(text);
      case LIST -> list(text);
      case ENGINE ->
          Engine.parse(text)
              .map(Engine::label)
              .orElseThrow(
                  () -> notOneOf(text, Arrays.stream(Engine.values()).map(Engine::label).toList()));
      case ENVIRONMENT -> oneOf(text, List.of("production", "acceptance", "test", "development"));
      case CRITICALITY -> oneOf(text, List.of("critical", "high", "medium", "low"));
      case DISPOSITION ->
          oneOf(text, List.of("move", "move and upgrade", "rebuild", "replace", "retire", "keep"));
    };
  }

  /** The values this type accepts where they are a closed list, else empty. */
  public List<String> choices() {
    return switch (this) {
      case ENGINE -> Arrays.stream(Engine.values()).map(Engine::label).toList();
      case ENVIRONMENT -> List.of("production", "acceptance", "test", "development");
      case CRITICALITY -> List.of("critical", "high", "medium", "low");
      case DISPOSITION ->
          List.of("move", "move and upgrade", "rebuild", "replace", "retire", "keep");
      case BOOLEAN -> List.of("yes", "no");
      default -> List.of();
    };
  }

  private static String wholeNumber(String text) {
    try {
      long value = Long.parseLong(text);
      if (value < 0) {
        throw new InvalidValue(
            "\"%s\" is negative; write a whole number from 0 up.".formatted(text));
      }
      return Long.toString(value);
    } catch (NumberFormatException e) {
      throw new InvalidValue(
          "\"%s\" is not a whole number; write digits only, without unit or separators."
              .formatted(text));
    }
  }

  private static String decimal(String text) {
    try {
      BigDecimal value = new BigDecimal(text);
      if (value.signum() < 0 || value.precision() > 30 || Math.abs(value.scale()) > 30) {
        throw new InvalidValue("\"%s\" must be a plain number from 0 up.".formatted(text));
      }
      return value.signum() == 0 ? "0" : value.stripTrailingZeros().toPlainString();
    } catch (NumberFormatException e) {
      throw new InvalidValue(
          "\"%s\" is not a number; write digits with a point for decimals.".formatted(text));
    }
  }

  private static String date(String text) {
    try {
      return LocalDate.parse(text).toString();
    } catch (DateTimeParseException e) {
      throw new InvalidValue("\"%s\" is not a date; write it as 2026-11-24.".formatted(text));
    }
  }

  private static String bool(String text) {
    return switch (text.toLowerCase(Locale.ROOT)) {
      case "yes", "true", "on", "1" -> "yes";
      case "no", "false", "off", "0" -> "no";
      default -> throw notOneOf(text, List.of("yes", "no"));
    };
  }

  private static String list(String text) {
    return Arrays.stream(text.split("[;,]"))
        .map(String::strip)
        .filter(item -> !item.isEmpty())
        .distinct()
        .sorted()
        .collect(Collectors.joining(", "));
  }

  private static String oneOf(String text, List<String> choices) {
    String wanted = text.toLowerCase(Locale.ROOT);
    if (!choices.contains(wanted)) {
      throw notOneOf(text, choices);
    }
    return wanted;
  }

  private static InvalidValue notOneOf(String text, List<String> choices) {
    return new InvalidValue("\"%s\" is not one of %s.".formatted(text, String.join(", ", choices)));
  }
}

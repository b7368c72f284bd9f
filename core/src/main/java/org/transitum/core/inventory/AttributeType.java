package org.transitum.core.inventory;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import org.transitum.core.InvalidValue;

/**
 * How an attribute's value is written. Every value is kept in one canonical text form, so that
 * equal values compare equal whatever file or server they came from. Amounts are understood with
 * the units that people write: {@code 1.5 TB}, {@code 4 h}, {@code 16 vCPU}.
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
  DISPOSITION,
  BYTE_ORDER;

  private static final int LONGEST_TEXT = 2_000;
  private static final Map<String, String> SHORT_ENVIRONMENTS =
      Map.of(
          "prod", "production",
          "prd", "production",
          "live", "production",
          "acc", "acceptance",
          "uat", "acceptance",
          "tst", "test",
          "dev", "development");

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
      case INTEGER -> Long.toString(WrittenValue.count(text));
      case BYTES -> Long.toString(WrittenValue.bytes(text));
      case MINUTES -> Long.toString(WrittenValue.minutes(text));
      case DECIMAL -> WrittenValue.decimal(text);
      case DATE -> WrittenValue.date(text).toString();
      case BOOLEAN -> bool(text);
      case LIST -> list(text);
      case ENGINE ->
          Engine.parse(text)
              .map(Engine::label)
              .orElseThrow(
                  () -> notOneOf(text, Arrays.stream(Engine.values()).map(Engine::label).toList()));
      case ENVIRONMENT -> oneOf(SHORT_ENVIRONMENTS.getOrDefault(lower(text), text), choices());
      case CRITICALITY, DISPOSITION -> oneOf(text, choices());
      case BYTE_ORDER -> oneOf(ByteOrder.canonical(text), choices());
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
      case BYTE_ORDER -> ByteOrder.labels();
      case BOOLEAN -> List.of("yes", "no");
      default -> List.of();
    };
  }

  private static String bool(String text) {
    return switch (lower(text)) {
      case "yes", "y", "true", "on", "1" -> "yes";
      case "no", "n", "false", "off", "0" -> "no";
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
    String wanted = lower(text);
    if (!choices.contains(wanted)) {
      throw notOneOf(text, choices);
    }
    return wanted;
  }

  private static String lower(String text) {
    return text.toLowerCase(Locale.ROOT);
  }

  private static InvalidValue notOneOf(String text, List<String> choices) {
    return new InvalidValue("\"%s\" is not one of %s.".formatted(text, String.join(", ", choices)));
  }
}

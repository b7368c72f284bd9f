package org.transitum.sources.counters;

import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.transitum.core.counters.Counter;
import org.transitum.core.inventory.ObjectKind;

/**
 * How an exporter's metrics become one of our counters.
 *
 * @param metrics names whose values are added up
 * @param minus names whose values are taken off
 * @param where a pattern per label that the whole value must match; one that begins with {@code !}
 *     must not match
 * @param kind what the counter is of
 * @param target label that names the server or machine
 * @param database label that names the database on it; empty where {@code kind} is not a database
 */
public record MetricRule(
    Counter counter,
    List<String> metrics,
    List<String> minus,
    Map<String, String> where,
    ObjectKind kind,
    String target,
    String database) {

  /** The labels that are left after adding up. */
  List<String> by() {
    return database.isEmpty() ? List.of(target) : List.of(target, database);
  }

  /** The rule as an expression of the Prometheus query language. */
  String expression() {
    String sum = sum(metrics);
    return minus.isEmpty() ? sum : sum + " - " + sum(minus);
  }

  private String sum(List<String> names) {
    String conditions =
        where.entrySet().stream()
            .map(
                entry ->
                    entry.getValue().startsWith("!")
                        ? entry.getKey() + "!~" + quoted(entry.getValue().substring(1))
                        : entry.getKey() + "=~" + quoted(entry.getValue()))
            .sorted()
            .collect(Collectors.joining(","));
    String selector =
        "{__name__=~"
            + quoted(String.join("|", names))
            + (conditions.isEmpty() ? "" : ",")
            + conditions
            + "}";
    return "sum by (" + String.join(",", by()) + ") (" + selector + ")";
  }

  private static String quoted(String text) {
    return '"' + text.replace("\\", "\\\\").replace("\"", "\\\"") + '"';
  }

  /**
   * What a sample counts in this rule: 1 where it is added, -1 where it is taken off, 0 where it is
   * none of it.
   */
  int sign(String metric, Map<String, String> labels) {
    int sign = metrics.contains(metric) ? 1 : minus.contains(metric) ? -1 : 0;
    return sign != 0
            && where.entrySet().stream()
                .allMatch(entry -> holds(entry.getValue(), labels.getOrDefault(entry.getKey(), "")))
        ? sign
        : 0;
  }

  private static boolean holds(String pattern, String value) {
    return pattern.startsWith("!")
        ? !Pattern.matches(pattern.substring(1), value)
        : Pattern.matches(pattern, value);
  }
}

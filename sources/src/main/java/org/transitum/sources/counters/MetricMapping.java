package org.transitum.sources.counters;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import org.transitum.core.counters.Counter;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.JsonDocument;
import org.transitum.sources.files.Problems;
import tools.jackson.databind.JsonNode;

/** Which metrics are read as which counters; the format of docs/formats/metrics.schema.json. */
public record MetricMapping(List<MetricRule> rules) {
  private static final int LONGEST = 1 << 20;

  /** The rules that ship with Transitum, for the common exporters of databases and hosts. */
  public static MetricMapping standard() {
    return read("the standard mapping", standardText());
  }

  /** The text of the rules that ship with Transitum, to be edited. */
  public static String standardText() {
    return JsonDocument.resource("/metrics/standard.json");
  }

  /**
   * @throws BadFile with everything that is wrong
   */
  public static MetricMapping read(String file, String text) {
    if (text.length() > LONGEST) {
      throw BadFile.whole(file, "A mapping of more than 1 MiB is not read.");
    }
    JsonNode root = JsonDocument.read(file, text, "metrics.schema.json");
    Problems problems = new Problems(file);
    List<MetricRule> rules = new ArrayList<>();
    int at = 0;
    for (JsonNode node : root.path("rules")) {
      at++;
      rules.add(rule(node, at, problems));
    }
    problems.throwIfAny();
    return new MetricMapping(List.copyOf(rules));
  }

  private static MetricRule rule(JsonNode node, int at, Problems problems) {
    String name = node.path("counter").asString();
    Counter counter = Counter.ofColumn(name).orElse(null);
    if (counter == null) {
      problems.add(null, "rule " + at, "\"%s\" is no counter known here.".formatted(name));
    }
    Map<String, String> where = new LinkedHashMap<>();
    node.path("where")
        .properties()
        .forEach(
            entry -> {
              String pattern = entry.getValue().asString();
              try {
                Pattern.compile(pattern.replaceFirst("^!", ""));
              } catch (PatternSyntaxException e) {
                problems.add(null, "rule " + at, "\"%s\" is no pattern.".formatted(pattern));
              }
              where.put(entry.getKey(), pattern);
            });
    ObjectKind kind = ObjectKind.valueOf(node.path("of").asString().toUpperCase(Locale.ROOT));
    String database = node.path("database").asString("");
    if (kind == ObjectKind.DATABASE && database.isEmpty()) {
      problems.add(null, "rule " + at, "A rule of databases names the label that tells which.");
    }
    return new MetricRule(
        counter == null ? Counter.CONNECTIONS : counter,
        strings(node.path("metrics")),
        strings(node.path("minus")),
        where,
        kind,
        node.path("target").asString("instance"),
        kind == ObjectKind.DATABASE ? database : "");
  }

  private static List<String> strings(JsonNode array) {
    return array.valueStream().map(JsonNode::asString).toList();
  }
}

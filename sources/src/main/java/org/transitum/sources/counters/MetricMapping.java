package org.transitum.sources.counters;

import com.networknt.schema.InputFormat;
import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
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
import org.transitum.sources.files.Problems;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Which metrics are read as which counters; the format of docs/formats/metrics.schema.json. */
public record MetricMapping(List<MetricRule> rules) {
  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final int LONGEST = 1 << 20;

  /** The rules that ship with Transitum, for the common exporters of databases and hosts. */
  public static MetricMapping standard() {
    return read("the standard mapping", standardText());
  }

  /** The text of the rules that ship with Transitum, to be edited. */
  public static String standardText() {
    return resource("/metrics/standard.json");
  }

  /**
   * @throws BadFile with everything that is wrong
   */
  public static MetricMapping read(String file, String text) {
    if (text.length() > LONGEST) {
      throw BadFile.whole(file, "A mapping of more than 1 MiB is not read.");
    }
    Problems problems = new Problems(file);
    JsonNode root;
    try {
      root = JSON.readTree(text);
    } catch (JacksonException e) {
      problems.add(
          e.getLocation() == null ? 1L : Math.max(1L, e.getLocation().getLineNr()),
          null,
          "Not JSON: " + e.getOriginalMessage());
      problems.throwIfAny();
      throw e;
    }
    schema()
        .validate(text, InputFormat.JSON)
        .forEach(e -> problems.add(null, e.getInstanceLocation().toString(), e.getMessage()));
    problems.throwIfAny();
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

  private static Schema schema() {
    return SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
        .getSchema(resource("/formats/metrics.schema.json"));
  }

  private static String resource(String name) {
    try (InputStream in = MetricMapping.class.getResourceAsStream(name)) {
      if (in == null) {
        throw new IllegalStateException("no resource " + name);
      }
      return new String(in.readAllBytes(), StandardCharsets.UTF_8);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}

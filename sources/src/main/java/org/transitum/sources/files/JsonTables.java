package org.transitum.sources.files;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.transitum.sources.files.FileTable.Row;
import tools.jackson.core.JacksonException;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.json.JsonFactory;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads the JSON inventory of docs/formats/inventory.schema.json: an object with arrays of servers,
 * databases and applications, each of flat objects.
 */
final class JsonTables {
  private static final List<String> ARRAYS = List.of("servers", "databases", "applications");
  private static final int DEEPEST = 8;
  private static final JsonMapper JSON =
      JsonMapper.builder(
              JsonFactory.builder()
                  .streamReadConstraints(
                      StreamReadConstraints.builder().maxNestingDepth(DEEPEST).build())
                  .build())
          .build();

  private JsonTables() {}

  static List<FileTable> read(String file, String text) {
    JsonNode root;
    try {
      root = JSON.readTree(text);
    } catch (JacksonException e) {
      long line = e.getLocation() == null ? 1 : e.getLocation().getLineNr();
      throw new BadFile(
          List.of(new FileProblem(file, line, null, "Not JSON: " + e.getOriginalMessage() + ".")),
          1);
    }
    List<FileTable> tables = new ArrayList<>();
    Problems problems = new Problems(file);
    if (root.isArray()) {
      tables.add(table(file, "", root, problems));
    }
    for (Map.Entry<String, JsonNode> entry : root.properties()) {
      if (ARRAYS.contains(entry.getKey()) && entry.getValue().isArray()) {
        tables.add(table(file, entry.getKey(), entry.getValue(), problems));
      } else {
        problems.add(
            null,
            entry.getKey(),
            "The file may hold the arrays %s; this is none of them."
                .formatted(String.join(", ", ARRAYS)));
      }
    }
    problems.throwIfAny();
    return tables;
  }

  private static FileTable table(String file, String name, JsonNode array, Problems problems) {
    Set<String> columns = new LinkedHashSet<>();
    array.forEach(item -> columns.addAll(item.propertyNames()));
    List<Row> rows = new ArrayList<>();
    rows.add(new Row(1, List.copyOf(columns)));
    long number = 1;
    for (JsonNode item : array) {
      number++;
      if (!item.isObject() || item.valueStream().anyMatch(JsonNode::isObject)) {
        problems.add(number, name, "Each entry is a flat object; this one is not.");
        continue;
      }
      List<String> cells = new ArrayList<>();
      for (String column : columns) {
        cells.add(cell(item.path(column)));
      }
      rows.add(new Row(number, cells));
    }
    return new FileTable(file, name, rows, List.of());
  }

  private static String cell(JsonNode value) {
    if (value.isMissingNode() || value.isNull()) {
      return "";
    }
    if (value.isBoolean()) {
      return value.booleanValue() ? "yes" : "no";
    }
    if (value.isArray()) {
      return String.join(";", value.valueStream().map(JsonNode::asString).toList());
    }
    return value.asString().strip();
  }
}

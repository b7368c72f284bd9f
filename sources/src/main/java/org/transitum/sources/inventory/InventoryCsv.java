package org.transitum.sources.inventory;

import java.io.InputStream;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.transitum.core.InvalidValue;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.DatabaseKey;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Origin;
import org.transitum.core.inventory.Reading;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.CsvTable;
import org.transitum.sources.files.CsvTable.Row;
import org.transitum.sources.files.FileProblem;
import org.transitum.sources.files.Problems;

/**
 * Reads the three inventory files of docs/formats/inventory.md: servers, databases and
 * applications. Which one a file is, its header tells.
 */
public final class InventoryCsv {
  private static final String INSTANCE = "instance";
  private static final String DATABASE = "database";
  private static final String APPLICATION = "application";

  private InventoryCsv() {}

  /**
   * @param at when the file was read
   * @throws BadFile with everything that is wrong
   */
  public static Reading read(String file, InputStream content, Instant at) {
    CsvTable table = CsvTable.read(file, content);
    List<ReadObject> objects =
        table.columns().contains(DATABASE)
            ? databases(table)
            : table.columns().contains(INSTANCE)
                ? servers(table)
                : table.columns().contains(APPLICATION) ? applications(table) : unknown(table);
    return new Reading(file, Origin.IMPORTED, at, objects, List.of());
  }

  private static List<ReadObject> unknown(CsvTable table) {
    throw new BadFile(
        List.of(
            new FileProblem(
                table.file(),
                1L,
                null,
                "The header names no instance, database or application column, so the file is no inventory. It has: "
                    + String.join(", ", table.columns())
                    + ".")),
        1);
  }

  private static List<ReadObject> servers(CsvTable table) {
    Set<String> known = columns(ObjectKind.HOST, ObjectKind.INSTANCE);
    known.add(INSTANCE);
    table.requireColumns(Set.of(INSTANCE, "host"), known);
    Problems problems = new Problems(table.file());
    Map<String, Long> rows = new HashMap<>();
    Map<String, ReadObject> hosts = new LinkedHashMap<>();
    List<ReadObject> objects = new ArrayList<>();
    for (Row row : table.rows()) {
      String instance = row.text(INSTANCE);
      String host = row.text("host");
      if (instance.isEmpty() || host.isEmpty() || instance.contains("/")) {
        problems.add(
            row.number(),
            instance.isEmpty() || instance.contains("/") ? INSTANCE : "host",
            "Give the server a name without a slash, and its host.");
        continue;
      }
      if (unique(rows, instance, row, INSTANCE, problems)) {
        objects.add(object(ObjectKind.INSTANCE, instance, row, problems));
      }
      ReadObject read = object(ObjectKind.HOST, host, row, problems);
      ReadObject before = hosts.putIfAbsent(host, read);
      if (before != null && !before.values().equals(read.values())) {
        problems.add(
            row.number(),
            "host",
            "\"%s\" is described differently in %s. Write the same values, or leave them empty on one of the rows."
                .formatted(host, before.place()));
      }
    }
    problems.throwIfAny();
    objects.addAll(0, hosts.values());
    return objects;
  }

  private static List<ReadObject> databases(CsvTable table) {
    Set<String> known = columns(ObjectKind.DATABASE);
    known.add(INSTANCE);
    known.add(DATABASE);
    table.requireColumns(Set.of(INSTANCE, DATABASE), known);
    Problems problems = new Problems(table.file());
    Map<String, Long> rows = new HashMap<>();
    List<ReadObject> objects = new ArrayList<>();
    for (Row row : table.rows()) {
      String key = databaseKey(row, problems);
      if (key != null) {
        ReadObject read = object(ObjectKind.DATABASE, key, row, problems);
        if (unique(rows, key, row, DATABASE, problems)) {
          objects.add(read);
        }
      }
    }
    problems.throwIfAny();
    return objects;
  }

  private static @Nullable String databaseKey(Row row, Problems problems) {
    try {
      return new DatabaseKey(row.text(INSTANCE), row.text(DATABASE)).toString();
    } catch (InvalidValue e) {
      problems.add(row.number(), DATABASE, e.getMessage());
      return null;
    }
  }

  private static List<ReadObject> applications(CsvTable table) {
    Set<String> known = columns(ObjectKind.APPLICATION);
    known.add(APPLICATION);
    table.requireColumns(Set.of(APPLICATION), known);
    Problems problems = new Problems(table.file());
    Map<String, Long> rows = new HashMap<>();
    List<ReadObject> objects = new ArrayList<>();
    for (Row row : table.rows()) {
      String name = row.text(APPLICATION);
      if (name.isEmpty()) {
        problems.add(row.number(), APPLICATION, "Give the application a name.");
      } else if (unique(rows, name, row, APPLICATION, problems)) {
        objects.add(object(ObjectKind.APPLICATION, name, row, problems));
      }
    }
    problems.throwIfAny();
    return objects;
  }

  private static boolean unique(
      Map<String, Long> rows, String key, Row row, String column, Problems problems) {
    Long before = rows.putIfAbsent(key, row.number());
    if (before != null) {
      problems.add(
          row.number(),
          column,
          "\"%s\" stands in row %,d already. Remove one of the two.".formatted(key, before));
    }
    return before == null;
  }

  private static Set<String> columns(ObjectKind... kinds) {
    Set<String> columns = new TreeSet<>();
    for (ObjectKind kind : kinds) {
      Attribute.of(kind).forEach(attribute -> columns.add(attribute.column()));
    }
    return columns;
  }

  private static ReadObject object(ObjectKind kind, String key, Row row, Problems problems) {
    Map<Attribute, String> values = new EnumMap<>(Attribute.class);
    for (Attribute attribute : Attribute.of(kind)) {
      String written = row.text(attribute.column());
      // a note on a server's row is the instance's, not also its host's
      if (written.isEmpty() || (kind == ObjectKind.HOST && attribute == Attribute.NOTE)) {
        continue;
      }
      try {
        values.put(attribute, attribute.type().canonical(written));
      } catch (InvalidValue e) {
        problems.add(row.number(), attribute.column(), e.getMessage());
      }
    }
    return new ReadObject(kind, key, "row " + row.number(), values);
  }
}

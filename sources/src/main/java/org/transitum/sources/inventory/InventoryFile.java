package org.transitum.sources.inventory;

import java.io.InputStream;
import java.time.Instant;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.transitum.core.InvalidValue;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ColumnGuess;
import org.transitum.core.inventory.ColumnGuess.Certainty;
import org.transitum.core.inventory.ColumnGuess.Guess;
import org.transitum.core.inventory.ColumnGuess.MappedColumn;
import org.transitum.core.inventory.DatabaseKey;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Origin;
import org.transitum.core.inventory.Reading;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.FileProblem;
import org.transitum.sources.files.FileTable;
import org.transitum.sources.files.FileTable.Row;
import org.transitum.sources.files.Problems;
import org.transitum.sources.files.TableFiles;

/**
 * Makes a reading of an inventory file: servers, databases and applications, apart as
 * docs/formats/inventory.md has them, or all in one table as people keep them. A value goes to the
 * object that its column describes; where several objects of the row could have it, to the first of
 * database, instance, host and application.
 */
public final class InventoryFile {
  private static final String INSTANCE = "instance";
  private static final String DATABASE = "database";
  private static final String HOST = "host";
  private static final String APPLICATION = "application";

  /**
   * A table with what its columns mean.
   *
   * @param headerRow index of the header among the table's rows; what stands above is left out
   * @param columns one per column of the header, in its order
   */
  public record MappedTable(FileTable table, int headerRow, List<MappedColumn> columns) {

    boolean names(String target) {
      return columns.stream().anyMatch(column -> column.target().equals(target));
    }

    /** Whether it can be read: it names what its rows are about. */
    public boolean namesObjects() {
      return (names(INSTANCE) && (names(DATABASE) || names(HOST)))
          || (!names(INSTANCE) && !names(DATABASE) && (names(APPLICATION) || names(HOST)));
    }

    List<Row> data() {
      return table.rows().subList(headerRow + 1, table.rows().size());
    }
  }

  /** What becomes of cells and rows that cannot be understood. */
  public enum Faulty {
    /** The file is refused with all of them named. */
    REFUSED,
    /** The rest is read, and the reading names them as unread, so that nothing counts as gone. */
    LEFT_OUT
  }

  private final List<MappedTable> tables;
  private final Problems problems;
  private final Map<String, ReadObject> objects = new LinkedHashMap<>();
  private final Map<String, Long> rowOf = new HashMap<>();

  private InventoryFile(String file, List<MappedTable> tables) {
    this.tables = tables;
    this.problems = new Problems(file);
  }

  /**
   * Reads a file whose columns are all named as in our own format.
   *
   * @param at when the file was read
   * @throws BadFile with everything that is wrong
   */
  public static Reading read(String file, InputStream content, Instant at) {
    List<MappedTable> tables =
        TableFiles.read(file, content).stream().map(InventoryFile::guessed).toList();
    for (MappedTable table : tables) {
      requireKnown(file, table);
    }
    return read(file, tables, at, Faulty.REFUSED);
  }

  /** A table with the best guess at what its columns mean. */
  public static MappedTable guessed(FileTable table) {
    List<List<String>> rows = table.rows().stream().limit(200).map(Row::cells).toList();
    int header = ColumnGuess.headerRow(rows);
    List<MappedColumn> columns = guesses(table, header).stream().map(Guess::column).toList();
    return new MappedTable(table, header, columns);
  }

  /** The guesses for a table's columns with their grounds. */
  public static List<Guess> guesses(FileTable table, int headerRow) {
    return ColumnGuess.of(
        table.rows().get(headerRow).cells(),
        table.rows().stream().skip(headerRow + 1L).limit(200).map(Row::cells).toList());
  }

  /** Whether every column is named as in our own format, so that nobody need be asked. */
  public static boolean allKnown(MappedTable table) {
    return table.namesObjects()
        && guesses(table.table(), table.headerRow()).stream()
            .allMatch(
                guess -> guess.certainty() == Certainty.KNOWN || guess.column().header().isEmpty());
  }

  private static void requireKnown(String file, MappedTable table) {
    Problems problems = new Problems(file);
    Row header = table.table().rows().get(table.headerRow());
    Set<String> seen = new HashSet<>();
    for (String name : header.cells()) {
      if (!name.isEmpty() && !seen.add(name.toLowerCase(java.util.Locale.ROOT))) {
        problems.add(
            header.number(), name, "The header names this column twice. Rename or remove one.");
      }
    }
    problems.throwIfAny();
    if (!table.namesObjects()) {
      problems.add(
          header.number(),
          null,
          "The header names no instance with its host or database, and no application, so the file is no inventory. It has: "
              + String.join(", ", header.cells())
              + ".");
      problems.throwIfAny();
    }
    for (Guess guess : guesses(table.table(), table.headerRow())) {
      if (guess.certainty() != Certainty.KNOWN && !guess.column().header().isEmpty()) {
        problems.add(
            header.number(),
            guess.column().header(),
            "This column is not known here. Known are: "
                + String.join(", ", ColumnGuess.targets())
                + ".");
      }
    }
    problems.throwIfAny();
  }

  /**
   * Reads mapped tables into one reading.
   *
   * @throws BadFile with everything that is wrong
   */
  public static Reading read(String file, List<MappedTable> tables, Instant at, Faulty faulty) {
    return new InventoryFile(file, tables).run(file, at, faulty);
  }

  private Reading run(String file, Instant at, Faulty faulty) {
    for (MappedTable table : tables) {
      if (!table.namesObjects()) {
        throw new BadFile(
            List.of(
                new FileProblem(
                    table.table().title(),
                    null,
                    null,
                    "No column names what the rows are about: an instance with its database or host, or an application.")),
            1);
      }
      table.data().forEach(row -> take(table, row));
    }
    if (faulty == Faulty.REFUSED || objects.isEmpty()) {
      problems.throwIfAny(!objects.isEmpty());
    }
    if (objects.isEmpty()) {
      throw BadFile.whole(file, "The file has a header but no row below it.");
    }
    return new Reading(
        file, Origin.IMPORTED, at, List.copyOf(objects.values()), problems.leftOut());
  }

  private void take(MappedTable table, Row row) {
    if (row.cells().size() > table.columns().size()) {
      problems.add(
          row.number(),
          null,
          "The row has %d values, the header %d. A delimiter inside a value needs quotes around it."
              .formatted(row.cells().size(), table.columns().size()));
      return;
    }
    Map<ObjectKind, String> keys = keys(table, row);
    if (keys.isEmpty()) {
      return;
    }
    Map<ObjectKind, Map<Attribute, String>> values = new EnumMap<>(ObjectKind.class);
    keys.keySet().forEach(kind -> values.put(kind, new EnumMap<>(Attribute.class)));
    for (int i = 0; i < table.columns().size(); i++) {
      put(table.columns().get(i), row.cell(i), row, values);
    }
    boolean own = table.names(DATABASE) ? keys.containsKey(ObjectKind.DATABASE) : true;
    keys.forEach(
        (kind, key) ->
            keep(
                new ReadObject(kind, key, place(table, row), values.getOrDefault(kind, Map.of())),
                row,
                own && isSubject(table, kind)));
  }

  /** What each row is about, which may stand in the file only once. */
  private static boolean isSubject(MappedTable table, ObjectKind kind) {
    return kind
        == (table.names(DATABASE)
            ? ObjectKind.DATABASE
            : table.names(INSTANCE)
                ? ObjectKind.INSTANCE
                : table.names(APPLICATION) ? ObjectKind.APPLICATION : ObjectKind.HOST);
  }

  private static String place(MappedTable table, Row row) {
    return (table.table().sheet().isEmpty() ? "" : table.table().sheet() + ", ")
        + "row "
        + row.number();
  }

  private static String cell(MappedTable table, Row row, String target) {
    for (int i = 0; i < table.columns().size(); i++) {
      if (table.columns().get(i).target().equals(target)) {
        return row.cell(i);
      }
    }
    return "";
  }

  private Map<ObjectKind, String> keys(MappedTable table, Row row) {
    Map<ObjectKind, String> keys = new EnumMap<>(ObjectKind.class);
    String instance = cell(table, row, INSTANCE);
    String database = cell(table, row, DATABASE);
    String host = cell(table, row, HOST);
    String application = cell(table, row, APPLICATION);
    if (table.names(INSTANCE) && (instance.isEmpty() || instance.contains("/"))) {
      problems.add(row.number(), INSTANCE, "Give the server a name without a slash.");
      return Map.of();
    }
    if (table.names(DATABASE)) {
      try {
        keys.put(ObjectKind.DATABASE, new DatabaseKey(instance, database).toString());
      } catch (InvalidValue e) {
        problems.add(row.number(), DATABASE, e.getMessage());
        return Map.of();
      }
    }
    if (!host.isEmpty()) {
      keys.put(ObjectKind.HOST, host);
    } else if (table.names(INSTANCE) && !table.names(DATABASE)) {
      problems.add(row.number(), HOST, "Give the host that %s runs on.".formatted(instance));
      return Map.of();
    }
    // a list of databases alone says nothing of their instances, so it makes none
    if (table.names(INSTANCE) && (!host.isEmpty() || !table.names(DATABASE))) {
      keys.put(ObjectKind.INSTANCE, instance);
    }
    if (!table.names(INSTANCE) && table.names(APPLICATION)) {
      if (application.isEmpty()) {
        problems.add(row.number(), APPLICATION, "Give the application a name.");
        return Map.of();
      }
      keys.put(ObjectKind.APPLICATION, application);
    }
    return keys;
  }

  private void put(
      MappedColumn column,
      String written,
      Row row,
      Map<ObjectKind, Map<Attribute, String>> values) {
    Attribute attribute = Attribute.ofColumn(column.target()).orElse(null);
    if (attribute == null || written.isEmpty()) {
      return;
    }
    for (ObjectKind kind :
        List.of(
            ObjectKind.DATABASE, ObjectKind.INSTANCE, ObjectKind.HOST, ObjectKind.APPLICATION)) {
      if (attribute.describes(kind) && values.containsKey(kind)) {
        try {
          String value = attribute.type().canonical(withUnit(written, column.unit()));
          values.get(kind).put(attribute, value);
        } catch (InvalidValue e) {
          problems.add(row.number(), column.header(), e.getMessage());
        }
        return;
      }
    }
    if (!column.target().equals(APPLICATION) && !column.target().equals(HOST)) {
      problems.add(
          row.number(),
          column.header(),
          "\"%s\" describes a %s, and this row names none. Map a column that does, or leave this one out."
              .formatted(attribute.label(), described(attribute)));
    }
  }

  /** The column's unit holds for bare numbers only; a value's own unit goes before. */
  private static String withUnit(String written, String unit) {
    return unit.isEmpty() || written.matches(".*\\p{L}\\s*$") ? written : written + " " + unit;
  }

  private static String described(Attribute attribute) {
    return Arrays.stream(ObjectKind.values())
        .filter(attribute::describes)
        .map(kind -> kind.name().toLowerCase(Locale.ROOT))
        .collect(Collectors.joining(" or "));
  }

  private void keep(ReadObject read, Row row, boolean subject) {
    String id = read.kind() + ":" + read.key();
    ReadObject before = objects.get(id);
    if (before == null) {
      objects.put(id, read);
      rowOf.put(id, row.number());
      return;
    }
    if (subject) {
      problems.add(
          row.number(),
          read.kind().name().toLowerCase(java.util.Locale.ROOT),
          "\"%s\" stands in row %,d already. Remove one of the two."
              .formatted(read.key(), rowOf.get(id)));
      return;
    }
    Attribute differing = differing(before, read);
    if (differing != null) {
      problems.add(
          row.number(),
          read.kind() == ObjectKind.HOST ? HOST : INSTANCE,
          "%s of \"%s\" is described differently in row %,d. Write the same value, or leave it empty on one of the rows."
              .formatted(differing.label(), read.key(), rowOf.get(id)));
      return;
    }
    before.values().putAll(read.values());
  }

  private static @Nullable Attribute differing(ReadObject before, ReadObject read) {
    for (Map.Entry<Attribute, String> entry : read.values().entrySet()) {
      String known = before.values().get(entry.getKey());
      if (known != null && !known.equals(entry.getValue())) {
        return entry.getKey();
      }
    }
    return null;
  }
}

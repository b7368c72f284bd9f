package org.transitum.server.inventory;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.InvalidValue;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ColumnGuess;
import org.transitum.core.inventory.ColumnGuess.Certainty;
import org.transitum.core.inventory.ColumnGuess.Guess;
import org.transitum.core.inventory.ColumnGuess.MappedColumn;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Reading;
import org.transitum.server.inventory.FileMapper.FileRow;
import org.transitum.server.inventory.FileMapper.MappingRow;
import org.transitum.server.inventory.ReadingService.OpenReading;
import org.transitum.server.problems.Missing;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.CurrentPerson;
import org.transitum.sources.files.FileTable;
import org.transitum.sources.files.FileTable.Row;
import org.transitum.sources.files.TableFiles;
import org.transitum.sources.inventory.InventoryFile;
import org.transitum.sources.inventory.InventoryFile.Faulty;
import org.transitum.sources.inventory.InventoryFile.MappedTable;
import org.transitum.sources.inventory.ServerReading;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads inventory files as they come: one whose columns are known, by name or because a file of the
 * same shape was mapped before, becomes a reading at once; any other waits for its mapping.
 */
@Service
public class FileReadService {
  private static final Duration KEPT = Duration.ofDays(2);
  private static final int MOST_BYTES = 64 << 20;
  private static final int SAMPLE_ROWS = 6;

  private final FileMapper mapper;
  private final ReadingService readings;
  private final ProgrammeClock clock;
  private final CurrentPerson current;
  private final JsonMapper json;

  FileReadService(
      FileMapper mapper,
      ReadingService readings,
      ProgrammeClock clock,
      CurrentPerson current,
      JsonMapper json) {
    this.mapper = mapper;
    this.readings = readings;
    this.clock = clock;
    this.current = current;
    this.json = json;
  }

  /** Exactly one of the two: a reading to accept, or a file whose columns want mapping. */
  public record ReadFile(@Nullable OpenReading reading, @Nullable FileToMap file) {}

  /** What a column may be, with what is guessed and some of its cells. */
  public record ColumnView(
      String header,
      String target,
      String unit,
      Certainty certainty,
      String why,
      List<String> sample) {}

  /**
   * @param headerRow index of the row that names the columns
   * @param rows below the header
   * @param remembered whether the mapping is the one given to a file of this shape before
   * @param readable whether the mapping names what the rows are about
   */
  public record SheetView(
      String sheet,
      int headerRow,
      int rows,
      boolean remembered,
      boolean readable,
      List<ColumnView> columns,
      List<String> notes) {}

  /**
   * Something that a column can mean.
   *
   * @param of what it tells of; null where it names an object
   */
  public record Meaning(String target, String label, @Nullable ObjectKind of) {}

  public record FileToMap(long id, String name, List<SheetView> sheets, List<Meaning> meanings) {}

  /** How a person says one sheet's columns are meant. */
  public record SheetMapping(String sheet, int headerRow, List<MappedColumn> columns) {}

  private record Remembered(List<MappedColumn> columns) {}

  /** A file with faulty cells or rows is refused unless a person wants the rest of it. */
  @Transactional
  public ReadFile read(String name, InputStream content, Faulty faulty) {
    byte[] bytes = bytes(content);
    List<FileTable> tables = TableFiles.read(name, new ByteArrayInputStream(bytes));
    List<MappedTable> mapped = tables.stream().map(this::mapped).toList();
    boolean known =
        mapped.stream()
            .allMatch(table -> InventoryFile.allKnown(table) || remembered(table) != null);
    if (known) {
      return new ReadFile(open(InventoryFile.read(name, mapped, clock.instant(), faulty)), null);
    }
    mapper.dropBefore(clock.instant().minus(KEPT));
    long id = mapper.keep(name, clock.instant(), current.login(), bytes);
    return new ReadFile(
        null, new FileToMap(id, name, mapped.stream().map(this::view).toList(), meanings()));
  }

  private static List<Meaning> meanings() {
    List<Meaning> meanings = new ArrayList<>();
    ColumnGuess.KEYS.forEach(key -> meanings.add(new Meaning(key, key, null)));
    for (ObjectKind kind :
        List.of(
            ObjectKind.DATABASE, ObjectKind.INSTANCE, ObjectKind.HOST, ObjectKind.APPLICATION)) {
      Attribute.of(kind).stream()
          .filter(
              attribute -> meanings.stream().noneMatch(m -> m.target().equals(attribute.column())))
          .map(attribute -> new Meaning(attribute.column(), attribute.label(), kind))
          .forEach(meanings::add);
    }
    return meanings;
  }

  /** One byte beyond the limit is enough for the reader to refuse the file. */
  private static byte[] bytes(InputStream content) {
    try {
      return content.readNBytes(MOST_BYTES + 1);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private OpenReading open(Reading reading) {
    return readings.open(new ServerReading(reading, List.of()));
  }

  private MappedTable mapped(FileTable table) {
    MappedTable guessed = InventoryFile.guessed(table);
    List<MappedColumn> before = remembered(guessed);
    return before == null ? guessed : new MappedTable(table, guessed.headerRow(), before);
  }

  private @Nullable List<MappedColumn> remembered(MappedTable table) {
    return mapper
        .mapping(shape(table.table().rows().get(table.headerRow()).cells()))
        .map(row -> json.readValue(row.payload(), Remembered.class).columns())
        .orElse(null);
  }

  private static String shape(List<String> header) {
    try {
      return HexFormat.of()
          .formatHex(
              MessageDigest.getInstance("SHA-256")
                  .digest(ColumnGuess.shape(header).getBytes(StandardCharsets.UTF_8)));
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  private SheetView view(MappedTable table) {
    FileTable of = table.table();
    List<Guess> guesses = InventoryFile.guesses(of, table.headerRow());
    boolean remembered = remembered(table) != null;
    List<ColumnView> columns = new ArrayList<>();
    for (int i = 0; i < table.columns().size(); i++) {
      MappedColumn column = table.columns().get(i);
      int at = i;
      columns.add(
          new ColumnView(
              column.header(),
              column.target(),
              column.unit(),
              remembered ? Certainty.KNOWN : guesses.get(i).certainty(),
              remembered ? "as mapped before" : guesses.get(i).why(),
              of.rows().stream()
                  .skip(table.headerRow() + 1L)
                  .map(row -> row.cell(at))
                  .filter(cell -> !cell.isEmpty())
                  .limit(SAMPLE_ROWS)
                  .toList()));
    }
    return new SheetView(
        of.sheet(),
        table.headerRow(),
        of.rows().size() - table.headerRow() - 1,
        remembered,
        table.namesObjects(),
        columns,
        of.notes());
  }

  /**
   * Reads a waiting file's sheets as a person mapped them, and remembers the mappings for files of
   * the same shape.
   */
  @Transactional
  public OpenReading read(long id, List<SheetMapping> mappings, Faulty faulty) {
    FileRow file =
        mapper
            .file(id)
            .orElseThrow(
                () -> new Missing("File %d is no longer kept; read it again.".formatted(id)));
    List<FileTable> tables = TableFiles.read(file.name(), new ByteArrayInputStream(file.content()));
    List<MappedTable> mapped = new ArrayList<>();
    for (SheetMapping mapping : mappings) {
      FileTable table =
          tables.stream()
              .filter(t -> t.sheet().equals(mapping.sheet()))
              .findFirst()
              .orElseThrow(
                  () ->
                      new InvalidValue("The file has no sheet \"%s\".".formatted(mapping.sheet())));
      mapped.add(checked(table, mapping));
    }
    if (mapped.isEmpty()) {
      throw new InvalidValue("Choose at least one sheet.");
    }
    OpenReading reading = open(InventoryFile.read(file.name(), mapped, clock.instant(), faulty));
    mapped.forEach(this::remember);
    mapper.drop(id);
    return reading;
  }

  private static MappedTable checked(FileTable table, SheetMapping mapping) {
    if (mapping.headerRow() < 0 || mapping.headerRow() >= table.rows().size()) {
      throw new InvalidValue("Row %d is none of the sheet.".formatted(mapping.headerRow() + 1));
    }
    Row header = table.rows().get(mapping.headerRow());
    if (header.cells().size() != mapping.columns().size()) {
      throw new InvalidValue(
          "The sheet has %d columns, the mapping %d."
              .formatted(header.cells().size(), mapping.columns().size()));
    }
    Set<String> targets = new HashSet<>();
    for (MappedColumn column : mapping.columns()) {
      String target = column.target();
      if (!target.isEmpty() && !ColumnGuess.targets().contains(target)) {
        throw new InvalidValue("\"%s\" is nothing that a column can mean.".formatted(target));
      }
      if (!target.isEmpty() && !targets.add(target)) {
        throw new InvalidValue("Two columns cannot both mean %s.".formatted(target));
      }
    }
    return new MappedTable(table, mapping.headerRow(), mapping.columns());
  }

  private void remember(MappedTable table) {
    mapper.remember(
        new MappingRow(
            shape(table.table().rows().get(table.headerRow()).cells()),
            json.writeValueAsString(new Remembered(table.columns())),
            current.login(),
            clock.instant()));
  }

  /** Forgets a file that nobody wants to map. */
  public void drop(long id) {
    mapper.drop(id);
  }
}

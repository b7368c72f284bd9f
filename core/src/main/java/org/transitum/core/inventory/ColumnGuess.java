package org.transitum.core.inventory;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.transitum.core.InvalidValue;

/**
 * Guesses what the columns of somebody's spreadsheet mean: by the names of our own format, by other
 * names that people give them, and last by what stands in them. A person has the last word.
 *
 * <p>Targets are the column names of our format: the keys {@code instance}, {@code database},
 * {@code host}, {@code application}, and the attributes. No target is guessed twice; equal claims
 * go to the surer one, then to the column further left.
 */
public final class ColumnGuess {
  /** Columns that name objects rather than describe them. */
  public static final List<String> KEYS = List.of("instance", "database", "host", "application");

  private static final int SAMPLE = 50;
  private static final int HEADER_WITHIN = 20;
  private static final double MOSTLY = 0.8;
  private static final Pattern UNIT =
      Pattern.compile(
          "^(.*?)[ _(\\[]+(bytes?|[kmgtp]i?b|min|mins|minutes|h|hours|days)[)\\]]?$",
          Pattern.CASE_INSENSITIVE);
  private static final Map<String, List<String>> SYNONYMS = synonyms();

  /** How sure a guess is, surest first. */
  public enum Certainty {
    /** A name of our own format. */
    KNOWN,
    /** A name that people give it. */
    LIKELY,
    /** Only what stands in it speaks for it. */
    CONTENT,
    NONE
  }

  /**
   * What a column means.
   *
   * @param header as written
   * @param target a column name of our format; empty where the column is left out
   * @param unit of bare numbers, such as {@code GB} or {@code h}; empty for the target's own
   */
  public record MappedColumn(String header, String target, String unit) {}

  /** A guess with its ground. */
  public record Guess(MappedColumn column, Certainty certainty, String why) {}

  private ColumnGuess() {}

  private static Map<String, List<String>> synonyms() {
    Map<String, List<String>> names = new LinkedHashMap<>();
    names.put(
        "instance",
        List.of("server", "db server", "sql instance", "instance name", "server name", "sid"));
    names.put(
        "database", List.of("database name", "db", "db name", "schema", "schema name", "catalog"));
    names.put("host", List.of("host name", "hostname", "machine", "node", "vm", "fqdn"));
    names.put("application", List.of("app", "application name", "app name", "system", "service"));
    names.put(
        "engine", List.of("dbms", "db type", "database type", "product", "platform", "technology"));
    names.put("version", List.of("db version", "release", "engine version", "product version"));
    names.put("edition", List.of("licence edition", "license edition"));
    names.put(
        "size_bytes",
        List.of("size", "db size", "database size", "total size", "allocated", "used space"));
    names.put(
        "growth_percent_per_year",
        List.of("growth", "growth %", "growth rate", "annual growth", "yearly growth"));
    names.put("features", List.of("features used", "options", "options in use", "feature usage"));
    names.put("cpu_cores", List.of("cores", "cpu", "cpus", "vcpu", "vcpus", "cpu count"));
    names.put("memory_bytes", List.of("memory", "ram", "total memory"));
    names.put("cache_bytes", List.of("buffer cache", "buffer pool", "shared buffers", "sga"));
    names.put("operating_system", List.of("os", "os version", "operating system"));
    names.put("byte_order", List.of("endian", "endianness", "byte ordering"));
    names.put("site", List.of("location", "data centre", "data center", "datacenter", "dc"));
    names.put("environment", List.of("env", "stage", "usage"));
    names.put(
        "owner",
        List.of("owned by", "business owner", "contact", "responsible", "app owner", "data owner"));
    names.put("criticality", List.of("priority", "importance", "business criticality", "class"));
    names.put(
        "permitted_outage_minutes",
        List.of(
            "permitted outage",
            "allowed downtime",
            "max downtime",
            "may be down",
            "outage",
            "downtime"));
    names.put("disposition", List.of("plan", "treatment", "decision", "strategy"));
    names.put("support_end", List.of("end of support", "end of life", "eol", "support until"));
    names.put("collation", List.of("collation name", "sort order"));
    names.put("encoding", List.of("character set", "charset", "codepage"));
    names.put("compatibility", List.of("compatibility level", "compat level"));
    names.put(
        "log_mode",
        List.of("recovery model", "archive mode", "log archiving", "wal level", "binlog format"));
    names.put("time_zone", List.of("timezone", "tz"));
    names.put("max_connections", List.of("connection limit", "max sessions"));
    names.put("tables", List.of("table count", "number of tables"));
    names.put("note", List.of("notes", "comment", "comments", "remark", "remarks", "description"));
    return names;
  }

  /** Every target there is, in a stable order. */
  public static List<String> targets() {
    Set<String> targets = new TreeSet<>();
    Arrays.stream(Attribute.values()).map(Attribute::column).forEach(targets::add);
    List<String> all = new ArrayList<>(KEYS);
    targets.stream().filter(target -> !all.contains(target)).forEach(all::add);
    return all;
  }

  /**
   * The row that names the columns: of the first {@value #HEADER_WITHIN}, the one with the most
   * names known here, else the first with two or more cells; 0 where there is none.
   *
   * @param rows cells as written, from the top
   */
  public static int headerRow(List<List<String>> rows) {
    int best = -1;
    int most = 0;
    int first = -1;
    for (int i = 0; i < Math.min(rows.size(), HEADER_WITHIN); i++) {
      int filled = (int) rows.get(i).stream().filter(cell -> !cell.isBlank()).count();
      int known =
          (int)
              rows.get(i).stream()
                  .filter(cell -> byName(cell).certainty() != Certainty.NONE)
                  .count();
      if (known > most) {
        most = known;
        best = i;
      }
      if (first < 0 && filled >= 2) {
        first = i;
      }
    }
    return best >= 0 ? best : Math.max(first, 0);
  }

  /**
   * @param header the names as written
   * @param rows cells below the header; some are enough
   */
  public static List<Guess> of(List<String> header, List<List<String>> rows) {
    List<Guess> guesses = new ArrayList<>();
    for (String name : header) {
      guesses.add(byName(name));
    }
    Set<String> taken = new HashSet<>();
    for (Certainty certainty : List.of(Certainty.KNOWN, Certainty.LIKELY)) {
      for (int i = 0; i < guesses.size(); i++) {
        Guess guess = guesses.get(i);
        if (guess.certainty() == certainty && !taken.add(guess.column().target())) {
          guesses.set(
              i, none(header.get(i), guess.column().target() + " is another column already"));
        }
      }
    }
    for (int i = 0; i < guesses.size(); i++) {
      if (guesses.get(i).certainty() == Certainty.NONE) {
        guesses.set(i, byContent(header.get(i), cells(rows, i), taken, guesses.get(i)));
      }
    }
    return guesses;
  }

  private static List<String> cells(List<List<String>> rows, int column) {
    return rows.stream()
        .filter(row -> row.size() > column)
        .map(row -> row.get(column).strip())
        .filter(cell -> !cell.isEmpty())
        .limit(SAMPLE)
        .toList();
  }

  private static Guess byName(String written) {
    String name = plain(written);
    if (name.isEmpty()) {
      return none(written, "the column has no name");
    }
    for (String target : targets()) {
      if (plain(target).equals(name)) {
        return new Guess(new MappedColumn(written, target, ""), Certainty.KNOWN, "named so");
      }
    }
    Matcher withUnit = UNIT.matcher(written.strip());
    String unit = withUnit.matches() ? withUnit.group(2) : "";
    String bare = withUnit.matches() ? plain(withUnit.group(1)) : name;
    for (Map.Entry<String, List<String>> entry : SYNONYMS.entrySet()) {
      boolean same = plain(entry.getKey()).replaceAll(" (bytes|minutes)$", "").equals(bare);
      boolean like = entry.getValue().stream().anyMatch(other -> plain(other).equals(bare));
      if (same || like) {
        return new Guess(
            new MappedColumn(written, entry.getKey(), unit),
            Certainty.LIKELY,
            "\"%s\" usually means it%s"
                .formatted(written.strip(), unit.isEmpty() ? "" : ", in " + unit));
      }
    }
    return none(written, "the name says nothing here");
  }

  private static Guess byContent(
      String header, List<String> cells, Set<String> taken, Guess otherwise) {
    if (cells.isEmpty()) {
      return none(header, "the column is empty");
    }
    for (Attribute attribute :
        List.of(
            Attribute.ENGINE,
            Attribute.CRITICALITY,
            Attribute.DISPOSITION,
            Attribute.ENVIRONMENT,
            Attribute.BYTE_ORDER)) {
      long fitting = cells.stream().filter(cell -> fits(attribute, cell)).count();
      if (fitting >= MOSTLY * cells.size() && taken.add(attribute.column())) {
        return new Guess(
            new MappedColumn(header, attribute.column(), ""),
            Certainty.CONTENT,
            "%d of %d values are such".formatted(fitting, cells.size()));
      }
    }
    return otherwise;
  }

  private static boolean fits(Attribute attribute, String cell) {
    try {
      attribute.type().canonical(cell);
      return true;
    } catch (InvalidValue e) {
      return false;
    }
  }

  private static Guess none(String header, String why) {
    return new Guess(new MappedColumn(header, "", ""), Certainty.NONE, why);
  }

  private static String plain(String name) {
    return name.strip().toLowerCase(Locale.ROOT).replaceAll("[\\s_.:-]+", " ").strip();
  }

  /** A text that is the same for files of the same shape: their columns' names, in order. */
  public static String shape(List<String> header) {
    return String.join("\n", header.stream().map(ColumnGuess::plain).toList());
  }
}

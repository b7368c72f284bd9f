package org.transitum.server.inventory;

import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.EstateObject;
import org.transitum.core.inventory.Fact;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.server.inventory.InventoryTable.Column;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.programme.ProgrammeService;

/** The estate as tables, one per kind of object. */
@Service
public class InventoryService {
  /** What a move cannot be planned without. */
  static final List<Attribute> NEEDED =
      List.of(
          Attribute.SIZE_BYTES,
          Attribute.OWNER,
          Attribute.CRITICALITY,
          Attribute.PERMITTED_OUTAGE_MINUTES,
          Attribute.DISPOSITION);

  private static final Set<Attribute> FROM_INSTANCE =
      EnumSet.of(
          Attribute.ENGINE,
          Attribute.VERSION,
          Attribute.EDITION,
          Attribute.SUPPORT_END,
          Attribute.HOST_NAME,
          Attribute.LOG_MODE);
  private static final Set<Attribute> FROM_HOST =
      EnumSet.of(
          Attribute.SITE,
          Attribute.OPERATING_SYSTEM,
          Attribute.BYTE_ORDER,
          Attribute.CPU_CORES,
          Attribute.MEMORY_BYTES);

  private final EstateStore estate;
  private final ProgrammeService programme;
  private final ProgrammeClock clock;

  InventoryService(EstateStore estate, ProgrammeService programme, ProgrammeClock clock) {
    this.estate = estate;
    this.programme = programme;
    this.clock = clock;
  }

  /** How many databases lack what a move cannot be planned without. */
  public int withGaps() {
    return (int)
        estate.databases().stream().filter(database -> !unknown(database).isEmpty()).count();
  }

  /** On how many databases sources disagree. */
  public int contradicted() {
    return (int)
        estate.databases().stream().filter(database -> !database.contradicted().isEmpty()).count();
  }

  List<String> unknown(EstateObject database) {
    return NEEDED.stream()
        .filter(attribute -> estate.effective(database, attribute).isEmpty())
        .map(Attribute::column)
        .toList();
  }

  /** An object with what it stands on, looked up once for all columns. */
  private record Placed(
      EstateObject object,
      @Nullable EstateObject instance,
      @Nullable EstateObject host,
      @Nullable EstateObject application) {}

  private Placed placed(EstateObject object) {
    EstateObject instance =
        switch (object.kind()) {
          case DATABASE -> estate.instance(object).orElse(null);
          case INSTANCE -> object;
          default -> null;
        };
    return new Placed(
        object,
        instance,
        instance == null ? null : estate.host(instance).orElse(null),
        object.kind() == ObjectKind.DATABASE ? estate.application(object).orElse(null) : null);
  }

  public InventoryTable table(ObjectKind kind) {
    List<EstateObject> objects = estate.present(kind);
    List<Placed> placed = objects.stream().map(this::placed).toList();
    List<Column> columns = new ArrayList<>();
    for (Attribute attribute : Attribute.of(kind)) {
      columns.add(
          column(
              kind,
              attribute,
              placed,
              row -> {
                String own = value(row.object(), attribute);
                return own == null ? value(row.application(), attribute) : own;
              }));
    }
    if (kind == ObjectKind.DATABASE) {
      for (Attribute attribute : FROM_INSTANCE) {
        columns.add(
            column(
                ObjectKind.INSTANCE, attribute, placed, row -> value(row.instance(), attribute)));
      }
    }
    if (kind == ObjectKind.DATABASE || kind == ObjectKind.INSTANCE) {
      for (Attribute attribute : FROM_HOST) {
        columns.add(
            column(ObjectKind.HOST, attribute, placed, row -> value(row.host(), attribute)));
      }
    }
    if (kind != ObjectKind.DATABASE) {
      columns.addAll(totals(kind, objects));
    }
    return new InventoryTable(
        kind,
        objects.stream().map(EstateObject::key).toList(),
        columns,
        kind == ObjectKind.DATABASE ? sparse(objects, this::unknown) : Map.of(),
        sparse(objects, object -> names(object.contradicted())),
        sparse(objects, staleSince(staleLimit())));
  }

  private static @Nullable String value(@Nullable EstateObject object, Attribute attribute) {
    Fact fact = object == null ? null : object.facts().get(attribute);
    return fact == null ? null : fact.value();
  }

  private Function<EstateObject, List<String>> staleSince(Instant limit) {
    return object -> names(object.stale(limit));
  }

  /** Facts that nobody told since are stale; moves by the minute, so that a table can be kept. */
  Instant staleLimit() {
    return clock
        .instant()
        .truncatedTo(ChronoUnit.MINUTES)
        .minus(Duration.ofDays(programme.current().staleAfterDays()));
  }

  private static List<String> names(List<Attribute> attributes) {
    return attributes.stream().map(Attribute::column).toList();
  }

  private static Map<String, List<String>> sparse(
      List<EstateObject> objects, Function<EstateObject, List<String>> of) {
    Map<String, List<String>> some = new TreeMap<>();
    for (EstateObject object : objects) {
      List<String> names = of.apply(object);
      if (!names.isEmpty()) {
        some.put(object.key(), names);
      }
    }
    return some;
  }

  private static Column column(
      ObjectKind of,
      Attribute attribute,
      List<Placed> placed,
      Function<Placed, @Nullable String> value) {
    List<@Nullable String> values = new ArrayList<>(placed.size());
    placed.forEach(row -> values.add(value.apply(row)));
    return new Column(
        attribute.column(),
        attribute.label(),
        attribute.type().name(),
        of,
        attribute.type().choices(),
        values);
  }

  /**
   * How many databases each object bears or serves, their size together as far as it is known, and
   * how many have none.
   */
  private List<Column> totals(ObjectKind kind, List<EstateObject> objects) {
    Map<String, List<Optional<Long>>> sizesOf = new HashMap<>();
    for (EstateObject database : estate.databases()) {
      String key = bearer(kind, database);
      if (key != null) {
        sizesOf
            .computeIfAbsent(key, k -> new ArrayList<>())
            .add(database.number(Attribute.SIZE_BYTES));
      }
    }
    List<@Nullable String> counts = new ArrayList<>();
    List<@Nullable String> totals = new ArrayList<>();
    List<@Nullable String> unsized = new ArrayList<>();
    for (EstateObject object : objects) {
      List<Optional<Long>> sizes = sizesOf.getOrDefault(object.key(), List.of());
      List<Long> known = sizes.stream().flatMap(Optional::stream).toList();
      long total = known.stream().mapToLong(Long::longValue).sum();
      counts.add(Integer.toString(sizes.size()));
      totals.add(known.isEmpty() && !sizes.isEmpty() ? null : Long.toString(total));
      unsized.add(Integer.toString(sizes.size() - known.size()));
    }
    return List.of(
        new Column("databases", "databases", "INTEGER", kind, List.of(), counts),
        new Column("total_size_bytes", "size together", "BYTES", kind, List.of(), totals),
        new Column("unsized", "databases of unknown size", "INTEGER", kind, List.of(), unsized));
  }

  private @Nullable String bearer(ObjectKind kind, EstateObject database) {
    return switch (kind) {
      case APPLICATION -> database.value(Attribute.APPLICATION_NAME).orElse(null);
      case HOST ->
          estate.instance(database).flatMap(i -> i.value(Attribute.HOST_NAME)).orElse(null);
      default -> database.key().substring(0, database.key().indexOf('/'));
    };
  }
}

package org.transitum.server.inventory;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.InvalidValue;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.EstateObject;
import org.transitum.core.inventory.Fact;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Origin;
import org.transitum.server.inventory.EstateMapper.FactRow;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Conflict;
import org.transitum.server.problems.Missing;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.CurrentPerson;

/** What the inventory shows and what people state in it. */
@Service
public class InventoryService {
  private final EstateMapper mapper;
  private final EstateStore estate;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final CurrentPerson current;

  InventoryService(
      EstateMapper mapper,
      EstateStore estate,
      JournalService journal,
      LiveFeed live,
      ProgrammeClock clock,
      CurrentPerson current) {
    this.mapper = mapper;
    this.estate = estate;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
    this.current = current;
  }

  /** One line of the inventory; what is not known is absent. */
  public record DatabaseRow(
      String key,
      String instance,
      String name,
      @Nullable String engine,
      @Nullable String version,
      @Nullable String supportEnd,
      @Nullable String host,
      @Nullable String site,
      @Nullable String instanceWords,
      @Nullable Long sizeBytes,
      @Nullable String environment,
      @Nullable String application,
      @Nullable String owner,
      @Nullable String criticality,
      @Nullable Long permittedOutageMinutes,
      @Nullable String disposition,
      @Nullable Long tables,
      @Nullable Long tablesWithoutKey,
      @Nullable String encoding,
      @Nullable String extensions,
      List<String> unknown) {}

  /**
   * One told value of an attribute.
   *
   * @param id of the fact; the version for If-Match where it is the one that counts
   */
  public record ToldFact(
      long id,
      String value,
      Origin origin,
      String source,
      String place,
      Instant at,
      boolean pinned,
      @Nullable String reason) {}

  /**
   * An attribute of an object, known or not.
   *
   * @param counts the value that counts; absent where unknown
   * @param others earlier and competing values, newest first
   * @param inheritedFrom the application whose value is shown, where the object has none of its own
   */
  public record AttributeFacts(
      String attribute,
      String label,
      String type,
      List<String> choices,
      @Nullable ToldFact counts,
      List<ToldFact> others,
      @Nullable String inheritedFrom) {}

  public record ObjectFacts(
      ObjectKind kind, String key, boolean gone, List<AttributeFacts> attributes) {}

  /** What a move cannot be planned without. */
  private static final List<Attribute> NEEDED =
      List.of(
          Attribute.SIZE_BYTES,
          Attribute.OWNER,
          Attribute.CRITICALITY,
          Attribute.PERMITTED_OUTAGE_MINUTES,
          Attribute.DISPOSITION);

  public List<DatabaseRow> databases() {
    return estate.databases().stream().map(this::row).toList();
  }

  private DatabaseRow row(EstateObject database) {
    Optional<EstateObject> instance = estate.instance(database);
    Optional<EstateObject> host = instance.flatMap(estate::host);
    int slash = database.key().indexOf('/');
    return new DatabaseRow(
        database.key(),
        database.key().substring(0, slash),
        database.key().substring(slash + 1),
        instance.flatMap(i -> i.value(Attribute.ENGINE)).orElse(null),
        instance.flatMap(i -> i.value(Attribute.VERSION)).orElse(null),
        instance.flatMap(i -> i.value(Attribute.SUPPORT_END)).orElse(null),
        instance.flatMap(i -> i.value(Attribute.HOST_NAME)).orElse(null),
        host.flatMap(h -> h.value(Attribute.SITE)).orElse(null),
        instance.map(i -> words(i, host)).orElse(null),
        database.number(Attribute.SIZE_BYTES).orElse(null),
        database.value(Attribute.ENVIRONMENT).orElse(null),
        database.value(Attribute.APPLICATION_NAME).orElse(null),
        estate.effective(database, Attribute.OWNER).orElse(null),
        estate.effective(database, Attribute.CRITICALITY).orElse(null),
        estate
            .effective(database, Attribute.PERMITTED_OUTAGE_MINUTES)
            .map(Long::valueOf)
            .orElse(null),
        database.value(Attribute.DISPOSITION).orElse(null),
        database.number(Attribute.TABLES).orElse(null),
        database.number(Attribute.TABLES_WITHOUT_KEY).orElse(null),
        database.value(Attribute.ENCODING).orElse(null),
        database.value(Attribute.EXTENSIONS).orElse(null),
        NEEDED.stream()
            .filter(attribute -> estate.effective(database, attribute).isEmpty())
            .map(Attribute::column)
            .toList());
  }

  /** As in "PostgreSQL 11.22 on Debian 10, 16 cores, 128 GiB". */
  private static String words(EstateObject instance, Optional<EstateObject> host) {
    StringBuilder words = new StringBuilder();
    words.append(instance.value(Attribute.ENGINE).orElse("engine unknown"));
    instance.value(Attribute.VERSION).ifPresent(version -> words.append(" ").append(version));
    host.flatMap(h -> h.value(Attribute.OPERATING_SYSTEM))
        .ifPresent(system -> words.append(" on ").append(system));
    host.flatMap(h -> h.value(Attribute.CPU_CORES))
        .ifPresent(cores -> words.append(", ").append(cores).append(" cores"));
    host.flatMap(h -> h.number(Attribute.MEMORY_BYTES))
        .ifPresent(memory -> words.append(", ").append(memory >> 30).append(" GiB"));
    return words.toString();
  }

  public ObjectFacts facts(ObjectKind kind, String key) {
    EstateObject object = object(kind, key);
    Map<Attribute, List<FactRow>> told = new LinkedHashMap<>();
    mapper
        .factsOf(kind, key)
        .forEach(row -> told.computeIfAbsent(row.attribute(), a -> new ArrayList<>()).add(row));
    List<AttributeFacts> attributes =
        Attribute.of(kind).stream()
            .map(attribute -> facts(object, attribute, told.getOrDefault(attribute, List.of())))
            .toList();
    return new ObjectFacts(kind, key, object.gone(), attributes);
  }

  private AttributeFacts facts(EstateObject object, Attribute attribute, List<FactRow> told) {
    ToldFact counts =
        told.stream().filter(FactRow::counts).findFirst().map(InventoryService::told).orElse(null);
    String inheritedFrom = null;
    if (counts == null && object.kind() == ObjectKind.DATABASE) {
      EstateObject application = estate.application(object).orElse(null);
      Fact fact = application == null ? null : application.facts().get(attribute);
      if (application != null && fact != null && attribute.describes(ObjectKind.APPLICATION)) {
        inheritedFrom = application.key();
        counts =
            new ToldFact(
                0,
                fact.value(),
                fact.origin(),
                fact.source(),
                fact.place(),
                fact.at(),
                false,
                null);
      }
    }
    return new AttributeFacts(
        attribute.column(),
        attribute.label(),
        attribute.type().name(),
        attribute.type().choices(),
        counts,
        told.stream().filter(row -> !row.counts()).map(InventoryService::told).toList(),
        inheritedFrom);
  }

  private static ToldFact told(FactRow row) {
    return new ToldFact(
        row.id(),
        row.factValue(),
        row.origin(),
        row.source(),
        row.place(),
        row.at(),
        row.pinned(),
        row.reason());
  }

  private EstateObject object(ObjectKind kind, String key) {
    return estate
        .find(kind, key)
        .orElseThrow(
            () -> new Missing("The inventory has no %s \"%s\".".formatted(lower(kind), key)));
  }

  /**
   * States a fact by hand.
   *
   * @param version id of the fact that the person saw; 0 where there was none
   * @param pinned whether later readings leave it alone
   */
  @Transactional
  public void state(
      ObjectKind kind,
      String key,
      String column,
      String written,
      boolean pinned,
      @Nullable String reason,
      long version) {
    object(kind, key);
    Attribute attribute =
        Attribute.ofColumn(column)
            .filter(a -> a.describes(kind))
            .orElseThrow(
                () ->
                    new InvalidValue(
                        "\"%s\" is no attribute of a %s.".formatted(column, lower(kind))));
    String value = attribute.type().canonical(written);
    if (value.isEmpty()) {
      throw new InvalidValue("Write a value for %s.".formatted(attribute.label()));
    }
    if (pinned && (reason == null || reason.isBlank())) {
      throw new InvalidValue("Give the reason why this value is pinned.");
    }
    FactRow before = mapper.countingFact(kind, key, attribute).orElse(null);
    long now = before == null ? 0 : before.id();
    if (now != version || (before != null && mapper.retireVersion(before.id()) == 0)) {
      throw new Conflict(
          "%s of %s was changed meanwhile.".formatted(attribute.label(), key),
          value,
          before == null ? "" : before.factValue(),
          now);
    }
    mapper.insert(
        new FactRow(
            0,
            kind,
            key,
            attribute,
            value,
            Origin.STATED,
            current.login(),
            "",
            clock.instant(),
            pinned,
            pinned ? reason : null,
            true));
    estate.changed();
    journal.write(
        pinned ? "pinned" : "stated",
        kind.name(),
        key,
        attribute.column(),
        before == null ? null : before.factValue(),
        value,
        reason);
    live.announce("inventory", key);
  }

  private static String lower(ObjectKind kind) {
    return kind.name().toLowerCase(java.util.Locale.ROOT);
  }
}

package org.transitum.server.inventory;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.InvalidValue;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.EstateObject;
import org.transitum.core.inventory.Fact;
import org.transitum.core.inventory.ObjectId;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Origin;
import org.transitum.core.inventory.ToldFacts;
import org.transitum.server.inventory.EstateMapper.FactRow;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Conflict;
import org.transitum.server.problems.Missing;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.CurrentPerson;

/** What is known of one object, and what people state. */
@Service
public class FactService {
  private static final int MOST_EDITS = 20_000;

  private final EstateMapper mapper;
  private final EstateStore estate;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final CurrentPerson current;

  FactService(
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

  /**
   * One told value of an attribute.
   *
   * @param id of the fact; the version for If-Match where it is the one that counts
   * @param at when its source first told it
   * @param seenAt when its source last told it
   * @param latest whether its source has told nothing newer
   */
  public record ToldFact(
      long id,
      String value,
      Origin origin,
      String source,
      String place,
      Instant at,
      Instant seenAt,
      boolean pinned,
      @Nullable String reason,
      boolean latest) {}

  /**
   * An attribute of an object, known or not.
   *
   * @param counts the value that counts; absent where unknown
   * @param others competing and earlier values, newest first
   * @param contradicted whether sources disagree and nobody has settled it
   * @param inheritedFrom the application whose value is shown, where the object has none of its own
   */
  public record AttributeFacts(
      String attribute,
      String label,
      String type,
      List<String> choices,
      @Nullable ToldFact counts,
      List<ToldFact> others,
      boolean contradicted,
      @Nullable String inheritedFrom) {}

  public record ObjectFacts(
      ObjectKind kind, String key, boolean gone, List<AttributeFacts> attributes) {}

  /** One value that somebody wants to state. */
  public record Edit(String key, String attribute, String value) {}

  /**
   * What an edit would do.
   *
   * @param before the value that counts now, an application's included; absent where there is none
   * @param after canonical; absent where it is not taken
   * @param kept whether another value would go on counting, as the server itself showed it
   * @param problem why it is not taken; absent where it is
   */
  public record EditResult(
      String key,
      String attribute,
      @Nullable String before,
      @Nullable String after,
      boolean kept,
      @Nullable String problem) {}

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
    Fact own = object.facts().get(attribute);
    long id = own == null ? 0 : own.id();
    ToldFact counts =
        told.stream().filter(row -> row.id() == id).findFirst().map(FactService::told).orElse(null);
    String inheritedFrom = null;
    EstateObject application =
        object.kind() == ObjectKind.DATABASE ? estate.application(object).orElse(null) : null;
    Fact fact = application == null ? null : application.facts().get(attribute);
    if (counts == null && application != null && fact != null) {
      inheritedFrom = application.key();
      counts = told(0, fact);
    }
    ToldFacts all = object.told().get(attribute);
    return new AttributeFacts(
        attribute.column(),
        attribute.label(),
        attribute.type().name(),
        attribute.type().choices(),
        counts,
        told.stream().filter(row -> row.id() != id).map(FactService::told).toList(),
        all != null && all.contradict(),
        inheritedFrom);
  }

  private static ToldFact told(long id, Fact fact) {
    return new ToldFact(
        id,
        fact.value(),
        fact.origin(),
        fact.source(),
        fact.place(),
        fact.at(),
        fact.seenAt(),
        fact.pinned(),
        null,
        true);
  }

  private static ToldFact told(FactRow row) {
    return new ToldFact(
        row.id(),
        row.factValue(),
        row.origin(),
        row.source(),
        row.place(),
        row.at(),
        row.seenAt(),
        row.pinned(),
        row.reason(),
        row.latest());
  }

  private EstateObject object(ObjectKind kind, String key) {
    return estate
        .find(kind, key)
        .orElseThrow(
            () -> new Missing("The inventory has no %s \"%s\".".formatted(lower(kind), key)));
  }

  private static Attribute attribute(ObjectKind kind, String column) {
    return Attribute.ofColumn(column)
        .filter(a -> a.describes(kind))
        .orElseThrow(
            () ->
                new InvalidValue("\"%s\" is no attribute of a %s.".formatted(column, lower(kind))));
  }

  private static String canonical(Attribute attribute, String written) {
    String value = attribute.type().canonical(written);
    if (value.isEmpty()) {
      throw new InvalidValue("Write a value for %s.".formatted(attribute.label()));
    }
    return value;
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
    EstateObject object = object(kind, key);
    Attribute attribute = attribute(kind, column);
    String value = canonical(attribute, written);
    requireReason(pinned, reason);
    requireSeen(object, attribute, version, value);
    write(object, attribute, value, pinned, reason);
    estate.changed(List.of(new ObjectId(kind, key)));
    live.announce("inventory", key);
  }

  private static void requireReason(boolean pinned, @Nullable String reason) {
    if (pinned && (reason == null || reason.isBlank())) {
      throw new InvalidValue("Give the reason why this value is pinned.");
    }
  }

  private static void requireSeen(
      EstateObject object, Attribute attribute, long version, String value) {
    Fact before = object.facts().get(attribute);
    long now = before == null ? 0 : before.id();
    if (now != version) {
      throw new Conflict(
          "%s of %s was changed meanwhile.".formatted(attribute.label(), object.key()),
          value,
          before == null ? "" : before.value(),
          now);
    }
  }

  private void write(
      EstateObject object,
      Attribute attribute,
      String value,
      boolean pinned,
      @Nullable String reason) {
    ToldFacts told = object.told().getOrDefault(attribute, new ToldFacts(attribute, List.of()));
    Instant now = clock.instant();
    Fact next = new Fact(0, value, Origin.STATED, current.login(), "", now, now, pinned);
    Fact last = told.lastOf(next);
    if (last != null && mapper.supersede(List.of(last.id())) == 0) {
      throw new Conflict(
          "%s of %s was changed just now.".formatted(attribute.label(), object.key()),
          value,
          last.value(),
          last.id());
    }
    mapper.insert(
        new FactRow(
            0,
            object.kind(),
            object.key(),
            attribute,
            value,
            Origin.STATED,
            current.login(),
            "",
            now,
            now,
            pinned,
            pinned ? reason : null,
            true,
            null));
    Fact before = object.facts().get(attribute);
    journal.write(
        pinned ? "pinned" : "stated",
        object.kind().name(),
        object.key(),
        attribute.column(),
        before == null ? null : before.value(),
        value,
        reason);
  }

  /**
   * Takes back what a person stated of an attribute, so that what sources tell counts again.
   *
   * @param version id of the fact that the person saw
   */
  @Transactional
  public void withdraw(ObjectKind kind, String key, String column, long version) {
    EstateObject object = object(kind, key);
    Attribute attribute = attribute(kind, column);
    requireSeen(object, attribute, version, "");
    ToldFacts told = object.told().getOrDefault(attribute, new ToldFacts(attribute, List.of()));
    Fact stated =
        told.bySource().stream()
            .filter(fact -> fact.origin() == Origin.STATED)
            .findFirst()
            .orElseThrow(
                () ->
                    new InvalidValue(
                        "Nobody has stated %s of %s.".formatted(attribute.label(), key)));
    mapper.supersede(List.of(stated.id()));
    estate.changed(List.of(new ObjectId(kind, key)));
    journal.write(
        "withdrew",
        kind.name(),
        key,
        attribute.column(),
        stated.value(),
        object(kind, key).value(attribute).orElse(null),
        null);
    live.announce("inventory", key);
  }

  /**
   * States many values at once, all or none. A dry run says what would happen and stores nothing.
   *
   * @return one result per edit, in the same order
   */
  @Transactional
  public List<EditResult> edit(
      ObjectKind kind, List<Edit> edits, boolean pinned, @Nullable String reason, boolean dryRun) {
    if (edits.size() > MOST_EDITS) {
      throw new InvalidValue(
          "More than %,d values at once; edit them in parts.".formatted(MOST_EDITS));
    }
    if (!dryRun) {
      requireReason(pinned, reason);
    }
    List<EditResult> results = edits.stream().map(edit -> preview(kind, edit, pinned)).toList();
    EditResult wrong =
        results.stream().filter(result -> result.problem() != null).findFirst().orElse(null);
    if (dryRun) {
      return results;
    }
    if (wrong != null) {
      throw new InvalidValue(
          "%s, %s: %s Nothing was stored."
              .formatted(wrong.key(), wrong.attribute(), wrong.problem()));
    }
    Set<ObjectId> touched = new LinkedHashSet<>();
    for (EditResult result : results) {
      if (result.after() != null && (!result.after().equals(result.before()) || pinned)) {
        write(
            object(kind, result.key()),
            attribute(kind, result.attribute()),
            result.after(),
            pinned,
            reason);
        touched.add(new ObjectId(kind, result.key()));
      }
    }
    if (!touched.isEmpty()) {
      estate.changed(touched);
      live.announce("inventory", touched.size() + " objects");
    }
    return results;
  }

  private EditResult preview(ObjectKind kind, Edit edit, boolean pinned) {
    EstateObject object = estate.find(kind, edit.key()).orElse(null);
    if (object == null) {
      return new EditResult(
          edit.key(),
          edit.attribute(),
          null,
          null,
          false,
          "The inventory has no %s of this name.".formatted(lower(kind)));
    }
    try {
      Attribute attribute = attribute(kind, edit.attribute());
      String value = canonical(attribute, edit.value());
      Instant now = clock.instant();
      Fact next = new Fact(0, value, Origin.STATED, current.login(), "", now, now, pinned);
      ToldFacts told = object.told().getOrDefault(attribute, new ToldFacts(attribute, List.of()));
      return new EditResult(
          edit.key(),
          edit.attribute(),
          (kind == ObjectKind.DATABASE
                  ? estate.effective(object, attribute)
                  : object.value(attribute))
              .orElse(null),
          value,
          told.countingWith(next) != next,
          null);
    } catch (InvalidValue e) {
      return new EditResult(
          edit.key(), edit.attribute(), null, null, false, String.valueOf(e.getMessage()));
    }
  }

  private static String lower(ObjectKind kind) {
    return kind.name().toLowerCase(Locale.ROOT);
  }
}

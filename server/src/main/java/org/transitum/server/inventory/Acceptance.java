package org.transitum.server.inventory;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.Difference;
import org.transitum.core.inventory.Difference.AttributeChange;
import org.transitum.core.inventory.Difference.Change;
import org.transitum.core.inventory.EstateObject;
import org.transitum.core.inventory.Fact;
import org.transitum.core.inventory.ObjectId;
import org.transitum.core.inventory.Reading;
import org.transitum.core.inventory.Reading.ReadObject;
import org.transitum.core.inventory.ToldFacts;
import org.transitum.server.inventory.AcceptanceEffects.Seen;
import org.transitum.server.inventory.EstateMapper.FactColumns;
import org.transitum.server.inventory.EstateMapper.ObjectColumns;
import org.transitum.server.journal.JournalService;
import org.transitum.server.journal.JournalService.Entry;

/** Takes one reading into the estate, within the caller's transaction. */
final class Acceptance {
  private static final int BATCH = 200;
  private static final int ROWS_AT_ONCE = 4_000;

  private final EstateMapper mapper;
  private final EstateStore estate;
  private final JournalService journal;
  private final long id;
  private final Reading reading;
  private final AcceptanceEffects effects = AcceptanceEffects.none();
  private final List<FreshFact> fresh = new ArrayList<>();
  private final List<Long> superseded = new ArrayList<>();
  private final List<Entry> entries = new ArrayList<>();
  private int taken;

  private record FreshFact(ObjectId object, Attribute attribute, String value, String place) {}

  Acceptance(
      EstateMapper mapper, EstateStore estate, JournalService journal, long id, Reading reading) {
    this.mapper = mapper;
    this.estate = estate;
    this.journal = journal;
    this.id = id;
    this.reading = reading;
  }

  /**
   * @param chosen ids of changes; null for all
   */
  void run(@Nullable Set<String> chosen) {
    Set<String> left = new HashSet<>();
    for (Change change : Difference.between(estate.all(), reading).changes()) {
      if (chosen != null && !chosen.contains(change.id())) {
        left.add(change.id());
        continue;
      }
      tell(change);
      taken++;
    }
    for (ReadObject object : reading.objects()) {
      if (!left.contains(object.kind() + ":" + object.key())) {
        take(object);
      }
    }
    store();
  }

  private void tell(Change change) {
    ObjectId object = new ObjectId(change.kind(), change.key());
    switch (change.type()) {
      case GONE -> {
        mapper.gone(change.kind(), change.key(), reading.at());
        effects.gone().add(object);
        write("gone", object, null);
      }
      case NEW -> {
        effects.added().add(object);
        write("added", object, null);
      }
      case CHANGED ->
          change.attributes().stream()
              .filter(attribute -> !attribute.kept())
              .forEach(attribute -> write("changed", object, attribute));
    }
  }

  /** Every value is kept as its source's, whether it counts or only agrees or competes. */
  private void take(ReadObject read) {
    ObjectId object = new ObjectId(read.kind(), read.key());
    EstateObject known = estate.find(read.kind(), read.key()).orElse(null);
    if (known == null || !known.sources().contains(reading.source())) {
      effects.told().add(object);
    }
    Map<Attribute, ToldFacts> told = known == null ? Map.of() : known.told();
    read.values()
        .forEach(
            (attribute, value) -> {
              Fact next = reading.fact(read, value);
              ToldFacts before = told.get(attribute);
              Fact last = before == null ? null : before.lastOf(next);
              if (last != null && last.value().equals(value)) {
                effects.seen().add(new Seen(last.id(), last.seenAt()));
                return;
              }
              if (last != null) {
                superseded.add(last.id());
              }
              fresh.add(new FreshFact(object, attribute, value, next.place()));
            });
    effects.touched().add(object);
  }

  private void store() {
    batches(effects.added(), ROWS_AT_ONCE).forEach(part -> mapper.keepAll(objects(part)));
    batches(effects.told(), ROWS_AT_ONCE)
        .forEach(part -> mapper.allToldBy(objects(part), reading.source()));
    batches(superseded).forEach(mapper::supersede);
    batches(fresh, ROWS_AT_ONCE).forEach(part -> mapper.insertAll(facts(part), reading, id));
    journal.writeAll(entries);
    batches(effects.seen().stream().map(Seen::fact).toList())
        .forEach(batch -> mapper.seen(batch, reading.at()));
    effects.touched().addAll(effects.gone());
    estate.changed(effects.touched());
  }

  private static ObjectColumns objects(List<ObjectId> objects) {
    return new ObjectColumns(
        column(objects, object -> object.kind().name()), column(objects, ObjectId::key));
  }

  private static FactColumns facts(List<FreshFact> facts) {
    return new FactColumns(
        column(facts, fact -> fact.object().kind().name()),
        column(facts, fact -> fact.object().key()),
        column(facts, fact -> fact.attribute().name()),
        column(facts, FreshFact::value),
        column(facts, FreshFact::place));
  }

  private static <T> String[] column(List<T> rows, Function<T, String> of) {
    return rows.stream().map(of).toArray(String[]::new);
  }

  private static <T> List<List<T>> batches(List<T> all) {
    return batches(all, BATCH);
  }

  private static <T> List<List<T>> batches(List<T> all, int size) {
    List<List<T>> batches = new ArrayList<>();
    for (int at = 0; at < all.size(); at += size) {
      batches.add(all.subList(at, Math.min(all.size(), at + size)));
    }
    return batches;
  }

  private void write(String action, ObjectId object, @Nullable AttributeChange attribute) {
    entries.add(
        journal.entry(
            action,
            object.kind().name(),
            object.key(),
            attribute == null ? null : attribute.attribute().column(),
            attribute == null || attribute.before() == null ? null : attribute.before().value(),
            attribute == null ? null : attribute.after(),
            "from " + reading.source()));
  }

  /** How many changes were taken. */
  int taken() {
    return taken;
  }

  AcceptanceEffects effects() {
    return effects;
  }

  /** Takes back what an acceptance did, within the caller's transaction. */
  static void undo(
      EstateMapper mapper, EstateStore estate, AcceptanceEffects done, long id, Reading reading) {
    mapper.removeFactsOf(id);
    done.touched().forEach(object -> mapper.restoreLatest(object.kind(), object.key()));
    Map<Instant, List<Long>> seen = new java.util.HashMap<>();
    done.seen()
        .forEach(s -> seen.computeIfAbsent(s.before(), at -> new ArrayList<>()).add(s.fact()));
    seen.forEach((at, facts) -> batches(facts).forEach(batch -> mapper.seen(batch, at)));
    done.told().forEach(object -> mapper.notToldBy(object.kind(), object.key(), reading.source()));
    done.gone().forEach(object -> mapper.keep(object.kind(), object.key()));
    done.added().stream()
        .filter(object -> mapper.sourcesOf(object.kind(), object.key()).isEmpty())
        .forEach(object -> mapper.gone(object.kind(), object.key(), reading.at()));
    estate.changed(done.touched());
  }
}

package org.transitum.server.inventory;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
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
import org.transitum.server.inventory.EstateMapper.FactRow;
import org.transitum.server.journal.JournalService;

/** Takes one reading into the estate, within the caller's transaction. */
final class Acceptance {
  private static final int BATCH = 200;

  private final EstateMapper mapper;
  private final EstateStore estate;
  private final JournalService journal;
  private final long id;
  private final Reading reading;
  private final AcceptanceEffects effects = AcceptanceEffects.none();
  private final List<FactRow> fresh = new ArrayList<>();
  private final List<Long> superseded = new ArrayList<>();
  private int taken;

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
        mapper.keep(change.kind(), change.key());
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
      mapper.toldBy(read.kind(), read.key(), reading.source());
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
              fresh.add(row(object, attribute, next));
            });
    effects.touched().add(object);
  }

  private FactRow row(ObjectId object, Attribute attribute, Fact fact) {
    return new FactRow(
        0,
        object.kind(),
        object.key(),
        attribute,
        fact.value(),
        fact.origin(),
        fact.source(),
        fact.place(),
        fact.at(),
        fact.seenAt(),
        false,
        null,
        true,
        id);
  }

  private void store() {
    batches(superseded).forEach(mapper::supersede);
    fresh.forEach(mapper::insert);
    batches(effects.seen().stream().map(Seen::fact).toList())
        .forEach(batch -> mapper.seen(batch, reading.at()));
    effects.touched().addAll(effects.gone());
    estate.changed(effects.touched());
  }

  private static <T> List<List<T>> batches(List<T> all) {
    List<List<T>> batches = new ArrayList<>();
    for (int at = 0; at < all.size(); at += BATCH) {
      batches.add(all.subList(at, Math.min(all.size(), at + BATCH)));
    }
    return batches;
  }

  private void write(String action, ObjectId object, @Nullable AttributeChange attribute) {
    journal.write(
        action,
        object.kind().name(),
        object.key(),
        attribute == null ? null : attribute.attribute().column(),
        attribute == null || attribute.before() == null ? null : attribute.before().value(),
        attribute == null ? null : attribute.after(),
        "from " + reading.source());
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

package org.transitum.server.inventory;

import java.time.Instant;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.annotation.Lazy;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.InvalidValue;
import org.transitum.core.inventory.Aliases;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.AttributeType;
import org.transitum.core.inventory.Difference;
import org.transitum.core.inventory.Difference.AttributeChange;
import org.transitum.core.inventory.Difference.Change;
import org.transitum.core.inventory.ObjectId;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Reading;
import org.transitum.server.inventory.EstateMapper.AliasRow;
import org.transitum.server.inventory.ReadingMapper.ReadingRow;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Missing;
import org.transitum.server.problems.Refused;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.CurrentPerson;
import org.transitum.sources.inventory.ServerReading;
import org.transitum.sources.inventory.ServerReading.SeenTie;
import tools.jackson.databind.json.JsonMapper;

/**
 * Readings of files and servers: kept until somebody accepts or discards what they would change.
 */
@Service
public class ReadingService {
  private final ReadingMapper mapper;
  private final EstateMapper objects;
  private final EstateStore estate;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final CurrentPerson current;
  private final SeenTies seenTies;
  private final InUse inUse;
  private final ApplicationEventPublisher events;
  private final JsonMapper json;

  ReadingService(
      ReadingMapper mapper,
      EstateMapper objects,
      EstateStore estate,
      JournalService journal,
      LiveFeed live,
      ProgrammeClock clock,
      CurrentPerson current,
      SeenTies seenTies,
      @Lazy InUse inUse,
      ApplicationEventPublisher events,
      JsonMapper json) {
    this.mapper = mapper;
    this.objects = objects;
    this.estate = estate;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
    this.current = current;
    this.seenTies = seenTies;
    this.inUse = inUse;
    this.events = events;
    this.json = json;
  }

  /** Takes the ties that a reading saw; the capability that keeps ties implements it. */
  public interface SeenTies {
    /** Inside the accepting transaction. Returns how many were new. */
    int take(List<SeenTie> ties, String source, Instant at);
  }

  /** Databases that somebody works on beyond planning; told by the capability that crosses them. */
  public interface InUse {
    Set<String> databases();
  }

  /**
   * A reading with what accepting it would change now.
   *
   * @param ties how many pointers to other databases were seen
   * @param doubtful how many of the new objects may be known ones
   * @param words of the attributes that the changes name
   */
  public record OpenReading(
      long id,
      String source,
      Instant at,
      String person,
      int objects,
      int ties,
      long added,
      long changed,
      long gone,
      long doubtful,
      List<Change> changes,
      List<AttributeWords> words,
      List<String> unread) {}

  /** How an attribute is called and its values are written. */
  public record AttributeWords(Attribute attribute, String label, AttributeType type) {}

  /** A reading that waits to be accepted, without its difference. */
  public record ReadingHead(long id, String source, Instant at, String person) {}

  /**
   * A reading that was accepted.
   *
   * @param undone whether its acceptance was taken back since
   */
  public record AcceptedReading(
      long id, String source, Instant at, Instant acceptedAt, String acceptedBy, boolean undone) {}

  /**
   * A reading was accepted or discarded.
   *
   * @param bundle that it came in; null for any other
   */
  public record ReadingClosed(long id, @Nullable Long bundle) {}

  /** Keeps a reading until it is accepted or discarded. */
  @Transactional
  public OpenReading open(ServerReading read) {
    return reading(insert(read, null));
  }

  /** Keeps a reading of a bundle; it takes the place of an older one of the same server. */
  @Transactional
  public void open(ServerReading read, long bundle) {
    for (ReadingRow older : mapper.open()) {
      if (older.bundleId() != null && older.source().equals(read.reading().source())) {
        mapper.close(older.id(), "OPEN", "DISCARDED", clock.instant(), current.login());
        events.publishEvent(new ReadingClosed(older.id(), older.bundleId()));
      }
    }
    insert(read, bundle);
  }

  private long insert(ServerReading read, @Nullable Long bundle) {
    long id =
        mapper.insert(
            read.reading().source(),
            read.reading().at(),
            current.login(),
            json.writeValueAsString(read),
            bundle);
    live.announce("readings", Long.toString(id));
    return id;
  }

  /** The readings of a bundle that wait to be accepted, by source. */
  public List<ReadingHead> waitingOf(long bundle) {
    return mapper.openOf(bundle).stream()
        .map(row -> new ReadingHead(row.id(), row.source(), row.at(), row.person()))
        .toList();
  }

  /** The instances that a bundle brought a reading of which nobody has decided on yet. */
  public Set<String> waitingInstances() {
    Set<String> instances = new TreeSet<>();
    for (ReadingRow row : mapper.open()) {
      if (row.bundleId() != null) {
        instances.add(ServerReading.instance(row.source()));
      }
    }
    return instances;
  }

  public List<ReadingHead> openReadings() {
    return mapper.open().stream()
        .map(row -> new ReadingHead(row.id(), row.source(), row.at(), row.person()))
        .toList();
  }

  /** The latest accepted readings, newest first. */
  public List<AcceptedReading> acceptedReadings() {
    return mapper.accepted().stream()
        .filter(row -> row.closedAt() != null)
        .map(
            row ->
                new AcceptedReading(
                    row.id(),
                    row.source(),
                    row.at(),
                    row.closedAt(),
                    row.closedBy(),
                    row.state().equals("UNDONE")))
        .toList();
  }

  public OpenReading reading(long id) {
    ReadingRow row = openRow(id);
    ServerReading read = json.readValue(row.payload(), ServerReading.class);
    Reading reading = otherNames().applyTo(read.reading());
    Difference difference = Difference.between(estate.all(), reading);
    return new OpenReading(
        id,
        row.source(),
        row.at(),
        row.person(),
        reading.objects().size(),
        read.ties().size(),
        difference.count(Difference.Type.NEW),
        difference.count(Difference.Type.CHANGED),
        difference.count(Difference.Type.GONE),
        difference.doubtful(),
        difference.changes(),
        words(difference),
        reading.unread());
  }

  private static List<AttributeWords> words(Difference difference) {
    return difference.changes().stream()
        .flatMap(change -> change.attributes().stream())
        .map(AttributeChange::attribute)
        .distinct()
        .map(a -> new AttributeWords(a, a.label(), a.type()))
        .toList();
  }

  private ReadingRow row(long id) {
    return mapper.find(id).orElseThrow(() -> new Missing("There is no reading %d.".formatted(id)));
  }

  private ReadingRow openRow(long id) {
    ReadingRow row = row(id);
    if (!row.state().equals("OPEN")) {
      throw new Refused(
          "Reading %d was %s already.".formatted(id, row.state().toLowerCase(Locale.ROOT)));
    }
    return row;
  }

  /** Other names of known objects, as people have said. */
  public Aliases otherNames() {
    Map<ObjectKind, Map<String, String>> names = new EnumMap<>(ObjectKind.class);
    for (AliasRow row : objects.aliases()) {
      names
          .computeIfAbsent(row.kind(), kind -> new HashMap<>())
          .put(row.otherKey(), row.objectKey());
    }
    return new Aliases(names);
  }

  /**
   * Takes a difference into the estate, whole or in part; the changes that are left out are dropped
   * with the reading.
   *
   * @param chosen ids of changes; null for all
   * @param same known key by id of a new object that is the known one under another name
   * @return how many changes were taken
   */
  @Transactional
  public int accept(long id, @Nullable Set<String> chosen, Map<String, String> same) {
    ReadingRow row = openRow(id);
    if (mapper.close(id, "OPEN", "ACCEPTED", clock.instant(), current.login()) == 0) {
      throw new Refused("Reading %d was closed meanwhile.".formatted(id));
    }
    ServerReading read = json.readValue(row.payload(), ServerReading.class);
    same.forEach(this::rename);
    Set<String> wanted = chosen == null ? null : withKnownNames(chosen, same);
    Reading reading = otherNames().applyTo(read.reading());
    Acceptance acceptance = new Acceptance(objects, estate, journal, id, reading);
    acceptance.run(wanted);
    mapper.keepEffects(id, json.writeValueAsString(acceptance.effects()));
    int ties = seenTies.take(read.ties(), reading.source(), reading.at());
    journal.write(
        "accepted reading",
        "READING",
        reading.source(),
        null,
        null,
        null,
        "%d changes, %d new ties".formatted(acceptance.taken(), ties));
    live.announce("inventory", reading.source());
    live.announce("readings", Long.toString(id));
    events.publishEvent(new ReadingClosed(id, row.bundleId()));
    return acceptance.taken();
  }

  private void rename(String changeId, String knownKey) {
    ObjectId other = objectId(changeId);
    if (!estate.isPresent(other.kind(), knownKey)) {
      throw new InvalidValue(
          "The inventory has no %s \"%s\" that %s could be."
              .formatted(other.kind().name().toLowerCase(Locale.ROOT), knownKey, other.key()));
    }
    if (estate.find(other.kind(), other.key()).isPresent()) {
      throw new InvalidValue("%s is known under its own name already.".formatted(other.key()));
    }
    objects.alias(
        new AliasRow(other.kind(), other.key(), knownKey, current.login(), clock.instant()));
    journal.write("named", other.kind().name(), knownKey, "other name", null, other.key(), null);
  }

  private static Set<String> withKnownNames(Set<String> chosen, Map<String, String> same) {
    Set<String> wanted = new TreeSet<>(chosen);
    same.forEach((id, known) -> wanted.add(objectId(id).kind() + ":" + known));
    return wanted;
  }

  private static ObjectId objectId(String changeId) {
    int colon = changeId.indexOf(':');
    try {
      return new ObjectId(
          ObjectKind.valueOf(changeId.substring(0, Math.max(0, colon))),
          changeId.substring(colon + 1));
    } catch (IllegalArgumentException e) {
      throw new InvalidValue("\"%s\" is no change of a reading.".formatted(changeId));
    }
  }

  /** Takes an accepted reading back as a whole: its facts, its new objects, what it called gone. */
  @Transactional
  public void undo(long id) {
    ReadingRow row = row(id);
    if (row.effects() == null
        || mapper.close(id, "ACCEPTED", "UNDONE", clock.instant(), current.login()) == 0) {
      throw new Refused("Reading %d is not accepted, so there is nothing to undo.".formatted(id));
    }
    AcceptanceEffects done = json.readValue(row.effects(), AcceptanceEffects.class);
    Set<String> busy = new TreeSet<>(inUse.databases());
    busy.retainAll(
        done.added().stream()
            .filter(object -> object.kind() == ObjectKind.DATABASE)
            .map(ObjectId::key)
            .toList());
    if (!busy.isEmpty()) {
      throw new Refused(
          "It brought %s, which is prepared or crossing by now. Undo would take it away."
              .formatted(String.join(", ", busy)));
    }
    ServerReading read = json.readValue(row.payload(), ServerReading.class);
    Acceptance.undo(objects, estate, done, id, read.reading());
    journal.write("undid reading", "READING", row.source(), null, null, null, null);
    live.announce("inventory", row.source());
    live.announce("readings", Long.toString(id));
  }

  @Transactional
  public void discard(long id) {
    ReadingRow row = openRow(id);
    mapper.close(id, "OPEN", "DISCARDED", clock.instant(), current.login());
    journal.write("discarded reading", "READING", row.source(), null, null, null, null);
    live.announce("readings", Long.toString(id));
    events.publishEvent(new ReadingClosed(id, row.bundleId()));
  }
}

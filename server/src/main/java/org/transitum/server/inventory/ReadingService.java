package org.transitum.server.inventory;

import java.io.InputStream;
import java.time.Instant;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.inventory.Difference;
import org.transitum.core.inventory.Difference.AttributeChange;
import org.transitum.core.inventory.Difference.Change;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Reading;
import org.transitum.server.inventory.EstateMapper.FactRow;
import org.transitum.server.inventory.EstateMapper.ReadingRow;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Missing;
import org.transitum.server.problems.Refused;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.CurrentPerson;
import org.transitum.sources.inventory.InventoryCsv;
import org.transitum.sources.inventory.ServerReading;
import org.transitum.sources.inventory.ServerReading.SeenTie;
import tools.jackson.databind.json.JsonMapper;

/** From a file or a server to a difference, and from an accepted difference to the estate. */
@Service
public class ReadingService {
  private final EstateMapper mapper;
  private final EstateStore estate;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final CurrentPerson current;
  private final SeenTies seenTies;
  private final JsonMapper json;

  ReadingService(
      EstateMapper mapper,
      EstateStore estate,
      JournalService journal,
      LiveFeed live,
      ProgrammeClock clock,
      CurrentPerson current,
      SeenTies seenTies,
      JsonMapper json) {
    this.mapper = mapper;
    this.estate = estate;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
    this.current = current;
    this.seenTies = seenTies;
    this.json = json;
  }

  /** Takes the ties that a reading saw; the capability that keeps ties implements it. */
  public interface SeenTies {
    /** Inside the accepting transaction. Returns how many were new. */
    int take(List<SeenTie> ties, String source, Instant at);
  }

  /**
   * A reading with what accepting it would change now.
   *
   * @param ties how many pointers to other databases were seen
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
      List<Change> changes,
      List<String> unread) {}

  /** A reading that waits to be accepted, without its difference. */
  public record ReadingHead(long id, String source, Instant at, String person) {}

  public OpenReading readFile(String file, InputStream content) {
    Reading reading = InventoryCsv.read(file, content, clock.instant());
    return open(new ServerReading(reading, List.of()));
  }

  /** Keeps a reading until it is accepted or discarded. */
  @Transactional
  public OpenReading open(ServerReading read) {
    long id =
        mapper.insertReading(
            read.reading().source(),
            read.reading().at(),
            current.login(),
            json.writeValueAsString(read));
    live.announce("readings", Long.toString(id));
    return reading(id);
  }

  public List<ReadingHead> openReadings() {
    return mapper.openReadings().stream()
        .map(row -> new ReadingHead(row.id(), row.source(), row.at(), row.person()))
        .toList();
  }

  public OpenReading reading(long id) {
    ReadingRow row = row(id);
    ServerReading read = json.readValue(row.payload(), ServerReading.class);
    Difference difference = Difference.between(estate.all(), read.reading());
    return new OpenReading(
        id,
        row.source(),
        row.at(),
        row.person(),
        read.reading().objects().size(),
        read.ties().size(),
        difference.count(Difference.Type.NEW),
        difference.count(Difference.Type.CHANGED),
        difference.count(Difference.Type.GONE),
        difference.changes(),
        read.reading().unread());
  }

  private ReadingRow row(long id) {
    ReadingRow row =
        mapper.reading(id).orElseThrow(() -> new Missing("There is no reading %d.".formatted(id)));
    if (!row.state().equals("OPEN")) {
      throw new Refused(
          "Reading %d was %s already."
              .formatted(id, row.state().toLowerCase(java.util.Locale.ROOT)));
    }
    return row;
  }

  /**
   * Takes a difference into the estate, whole or in part; the changes that are left out are dropped
   * with the reading.
   *
   * @param chosen ids of changes; null for all
   * @return how many changes were taken
   */
  @Transactional
  public int accept(long id, @Nullable Set<String> chosen) {
    ReadingRow row = row(id);
    if (mapper.closeReading(id, "ACCEPTED") == 0) {
      throw new Refused("Reading %d was closed meanwhile.".formatted(id));
    }
    ServerReading read = json.readValue(row.payload(), ServerReading.class);
    Reading reading = read.reading();
    Set<String> refused = new HashSet<>();
    int taken = 0;
    for (Change change : Difference.between(estate.all(), reading).changes()) {
      if (chosen != null && !chosen.contains(change.id())) {
        refused.add(change.id());
        continue;
      }
      take(change, reading);
      taken++;
    }
    for (Reading.ReadObject object : reading.objects()) {
      boolean left = refused.contains(object.kind() + ":" + object.key());
      if (!left) {
        mapper.toldBy(object.kind(), object.key(), reading.source());
      }
    }
    estate.changed();
    int ties = seenTies.take(read.ties(), reading.source(), reading.at());
    journal.write(
        "accepted reading",
        "READING",
        reading.source(),
        null,
        null,
        null,
        "%d changes, %d new ties".formatted(taken, ties));
    live.announce("inventory", reading.source());
    live.announce("readings", Long.toString(id));
    return taken;
  }

  @Transactional
  public void discard(long id) {
    ReadingRow row = row(id);
    mapper.closeReading(id, "DISCARDED");
    journal.write("discarded reading", "READING", row.source(), null, null, null, null);
    live.announce("readings", Long.toString(id));
  }

  private void take(Change change, Reading reading) {
    switch (change.type()) {
      case GONE -> {
        mapper.gone(change.kind(), change.key(), reading.at());
        write("gone", change.kind(), change.key(), null, reading);
      }
      case NEW -> {
        mapper.keep(change.kind(), change.key());
        change.attributes().forEach(attribute -> take(change, attribute, reading));
        write("added", change.kind(), change.key(), null, reading);
      }
      case CHANGED ->
          change
              .attributes()
              .forEach(
                  attribute -> {
                    take(change, attribute, reading);
                    if (!attribute.kept()) {
                      write("changed", change.kind(), change.key(), attribute, reading);
                    }
                  });
    }
  }

  private void take(Change change, AttributeChange attribute, Reading reading) {
    if (!attribute.kept()) {
      mapper.retire(change.kind(), change.key(), attribute.attribute());
    }
    mapper.insert(
        new FactRow(
            0,
            change.kind(),
            change.key(),
            attribute.attribute(),
            attribute.after(),
            reading.origin(),
            reading.source(),
            change.place(),
            reading.at(),
            false,
            null,
            !attribute.kept()));
  }

  private void write(
      String action,
      ObjectKind kind,
      String key,
      @Nullable AttributeChange attribute,
      Reading reading) {
    journal.write(
        action,
        kind.name(),
        key,
        attribute == null ? null : attribute.attribute().column(),
        attribute == null || attribute.before() == null ? null : attribute.before().value(),
        attribute == null ? null : attribute.after(),
        "from " + reading.source());
  }
}

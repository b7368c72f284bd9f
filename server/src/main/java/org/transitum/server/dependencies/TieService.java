package org.transitum.server.dependencies;

import java.io.InputStream;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.InvalidValue;
import org.transitum.core.dependencies.MoveGroup;
import org.transitum.core.dependencies.MoveGroups;
import org.transitum.core.dependencies.Tie;
import org.transitum.core.dependencies.TieKind;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.EstateObject;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.inventory.Origin;
import org.transitum.server.dependencies.TieMapper.EvidenceRow;
import org.transitum.server.dependencies.TieMapper.TieRow;
import org.transitum.server.inventory.EstateStore;
import org.transitum.server.inventory.ReadingService;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Conflict;
import org.transitum.server.problems.Missing;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.CurrentPerson;
import org.transitum.sources.dependencies.TiesCsv;
import org.transitum.sources.inventory.ServerReading.SeenTie;

/** Ties between databases, their evidence, and the move groups that confirmed bound ties make. */
@Service
public class TieService implements ReadingService.SeenTies {
  private final TieMapper mapper;
  private final EstateStore estate;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final CurrentPerson current;

  TieService(
      TieMapper mapper,
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

  public enum TieState {
    /** Seen, but nobody has said yet what it means; it does not group or order anything. */
    PROPOSED,
    CONFIRMED,
    REJECTED
  }

  public record Evidence(Origin origin, String source, String words, Instant at) {}

  /**
   * @param version for If-Match
   */
  public record TieView(
      long id,
      String from,
      String to,
      TieKind kind,
      double weight,
      TieState state,
      int version,
      List<Evidence> evidence) {}

  /** Ties and the groups they make. */
  public record Dependencies(List<TieView> ties, List<MoveGroup> groups) {}

  public Dependencies dependencies() {
    Map<Long, List<Evidence>> evidence = new HashMap<>();
    for (EvidenceRow row : mapper.evidence()) {
      evidence
          .computeIfAbsent(row.tieId(), id -> new java.util.ArrayList<>())
          .add(new Evidence(row.origin(), row.source(), row.words(), row.at()));
    }
    List<TieView> ties =
        mapper.all().stream()
            .map(row -> view(row, evidence.getOrDefault(row.id(), List.of())))
            .toList();
    return new Dependencies(ties, groups());
  }

  private static TieView view(TieRow row, List<Evidence> evidence) {
    return new TieView(
        row.id(),
        row.fromKey(),
        row.toKey(),
        row.kind(),
        row.weight(),
        row.state(),
        row.version(),
        evidence);
  }

  /** Ties that hold, between databases that are there. */
  public List<Tie> confirmed() {
    return mapper.all().stream()
        .filter(row -> row.state() == TieState.CONFIRMED)
        .filter(row -> isDatabase(row.fromKey()) && isDatabase(row.toKey()))
        .map(row -> new Tie(row.fromKey(), row.toKey(), row.kind(), row.weight()))
        .toList();
  }

  public List<MoveGroup> groups() {
    return MoveGroups.of(estate.databases().stream().map(EstateObject::key).toList(), confirmed());
  }

  /** How many ties wait to be confirmed or rejected. */
  public int proposed() {
    return (int) mapper.all().stream().filter(row -> row.state() == TieState.PROPOSED).count();
  }

  /**
   * Takes a file of ties as a whole; ties of the file are confirmed by being imported.
   *
   * @return how many ties are new or changed
   */
  @Transactional
  public int read(String file, InputStream content) {
    List<TiesCsv.TieRow> rows = TiesCsv.read(file, content, this::isDatabase);
    int changed = 0;
    for (TiesCsv.TieRow row : rows) {
      changed += take(row.tie(), TieState.CONFIRMED, file) ? 1 : 0;
      if (!row.evidence().isEmpty()) {
        keepEvidence(row.tie(), Origin.IMPORTED, file, row.evidence(), clock.instant());
      }
    }
    journal.write(
        "read ties", "TIES", file, null, null, null, "%d new or changed".formatted(changed));
    live.announce("dependencies", file);
    return changed;
  }

  private boolean take(Tie tie, TieState state, String source) {
    TieRow before = mapper.between(tie.from(), tie.to()).orElse(null);
    if (before == null) {
      mapper.insert(new TieRow(0, tie.from(), tie.to(), tie.kind(), tie.weight(), state, 1));
      write("tied", null, tie.kind(), tie.from(), tie.to(), "from " + source);
      return true;
    }
    boolean same =
        before.kind() == tie.kind() && before.weight() == tie.weight() && before.state() == state;
    if (!same) {
      mapper.update(
          new TieRow(
              before.id(),
              tie.from(),
              tie.to(),
              tie.kind(),
              tie.weight(),
              state,
              before.version()));
      write("changed tie", before.kind(), tie.kind(), tie.from(), tie.to(), source);
    }
    return !same;
  }

  private void keepEvidence(Tie tie, Origin origin, String source, String words, Instant at) {
    long id = mapper.between(tie.from(), tie.to()).orElseThrow().id();
    mapper.keep(new EvidenceRow(id, origin, source, words, at));
  }

  @Override
  public int take(List<SeenTie> seen, String source, Instant at) {
    int fresh = 0;
    for (SeenTie tie : seen) {
      String to = target(tie);
      if (to == null || to.equals(tie.from())) {
        continue;
      }
      Tie found = new Tie(tie.from(), to, TieKind.BOUND, 1);
      if (mapper.between(tie.from(), to).isEmpty()) {
        take(found, TieState.PROPOSED, source);
        fresh++;
      }
      keepEvidence(found, Origin.OBSERVED, source, tie.how(), at);
    }
    if (fresh > 0) {
      live.announce("dependencies", source);
    }
    return fresh;
  }

  /** The database of the estate behind an address, by its instance's host and port. */
  private @Nullable String target(SeenTie tie) {
    return estate.present(ObjectKind.INSTANCE).stream()
        .filter(instance -> at(instance, tie.host(), tie.port()))
        .map(instance -> instance.key() + "/" + tie.database())
        .filter(this::isDatabase)
        .findFirst()
        .orElse(null);
  }

  private static boolean at(EstateObject instance, String host, int port) {
    return instance.value(Attribute.HOST_NAME).filter(host::equalsIgnoreCase).isPresent()
        && instance.number(Attribute.PORT).filter(p -> p == port).isPresent();
  }

  private boolean isDatabase(String key) {
    return estate.isPresent(ObjectKind.DATABASE, key);
  }

  @Transactional
  public void state(String from, String to, TieKind kind, double weight, String words) {
    if (!isDatabase(from) || !isDatabase(to) || from.equals(to)) {
      throw new InvalidValue(
          "A tie needs two different databases of the inventory, not \"%s\" and \"%s\"."
              .formatted(from, to));
    }
    Tie tie = new Tie(from, to, kind, weight);
    take(tie, TieState.CONFIRMED, current.login());
    if (!words.isBlank()) {
      keepEvidence(tie, Origin.STATED, current.login(), words, clock.instant());
    }
    live.announce("dependencies", from);
  }

  @Transactional
  public void decide(long id, TieKind kind, double weight, TieState state, long version) {
    TieRow before =
        mapper.find(id).orElseThrow(() -> new Missing("There is no tie %d.".formatted(id)));
    TieRow after =
        new TieRow(
            id, before.fromKey(), before.toKey(), kind, weight, state, Math.toIntExact(version));
    if (mapper.update(after) == 0) {
      throw new Conflict(
          "This tie was changed meanwhile.",
          words(kind, state),
          words(before.kind(), before.state()),
          before.version());
    }
    journal.write(
        "decided tie",
        "TIE",
        before.fromKey() + " to " + before.toKey(),
        "state",
        words(before.kind(), before.state()),
        words(kind, state),
        null);
    live.announce("dependencies", before.fromKey());
  }

  private static String words(TieKind kind, TieState state) {
    return (kind + ", " + state).toLowerCase(java.util.Locale.ROOT);
  }

  private void write(
      String action, @Nullable TieKind before, TieKind after, String from, String to, String note) {
    journal.write(
        action,
        "TIE",
        from + " to " + to,
        "kind",
        before == null ? null : before.name(),
        after.name(),
        note);
  }
}

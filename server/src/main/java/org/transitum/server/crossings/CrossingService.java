package org.transitum.server.crossings;

import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.InvalidValue;
import org.transitum.core.crossings.Condition;
import org.transitum.core.crossings.CrossingState;
import org.transitum.core.crossings.Move;
import org.transitum.core.crossings.Place;
import org.transitum.core.crossings.Stage;
import org.transitum.core.team.Role;
import org.transitum.server.crossings.CrossingMapper.CrossingRow;
import org.transitum.server.crossings.CrossingMapper.StateRow;
import org.transitum.server.crossings.PlaceService.PlaceView;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Conflict;
import org.transitum.server.problems.Missing;
import org.transitum.server.problems.Refused;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.CurrentPerson;
import org.transitum.server.team.TeamService;

/** Moves crossings, and with them databases, through their stages. */
@Service
public class CrossingService {
  private final CrossingMapper mapper;
  private final PlaceService places;
  private final TeamService team;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final CurrentPerson current;

  CrossingService(
      CrossingMapper mapper,
      PlaceService places,
      TeamService team,
      JournalService journal,
      LiveFeed live,
      ProgrammeClock clock,
      CurrentPerson current) {
    this.mapper = mapper;
    this.places = places;
    this.team = team;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
    this.current = current;
  }

  /**
   * @param legalMoves what may be done now, by whoever may
   * @param version for If-Match
   */
  public record CrossingView(
      String key,
      String database,
      @Nullable String wave,
      Stage stage,
      Condition condition,
      double progress,
      @Nullable Long lagSeconds,
      @Nullable String reason,
      @Nullable String owner,
      Instant startedAt,
      Instant changedAt,
      boolean open,
      List<Move> legalMoves,
      int version) {}

  static String key(int number) {
    return String.format(Locale.ROOT, "X-%04d", number);
  }

  public List<CrossingView> crossings() {
    Map<String, String> waveOf = places.waves();
    return mapper.all().stream().map(row -> view(row, waveOf)).toList();
  }

  public CrossingView crossing(String key) {
    return view(row(key), places.waves());
  }

  private static CrossingView view(CrossingRow row, Map<String, String> waveOf) {
    CrossingState state = state(row);
    return new CrossingView(
        key(row.number()),
        row.databaseKey(),
        waveOf.get(row.databaseKey()),
        row.stage(),
        row.condition(),
        row.progress(),
        row.lagSeconds(),
        row.reason(),
        row.owner(),
        row.startedAt(),
        row.changedAt(),
        state.open(),
        state.legalMoves(),
        row.version());
  }

  private CrossingRow row(String key) {
    if (!key.matches("X-\\d{4,9}")) {
      throw new Missing("\"%s\" is no crossing; they are named X-0001 and so on.".formatted(key));
    }
    return mapper
        .find(Integer.parseInt(key.substring(2)))
        .orElseThrow(() -> new Missing("There is no crossing %s.".formatted(key)));
  }

  private static CrossingState state(CrossingRow row) {
    return new CrossingState(
        key(row.number()),
        row.stage(),
        row.condition(),
        row.progress(),
        row.lagSeconds(),
        row.reason(),
        row.owner() != null);
  }

  /** Marks a planned database as prepared: everything its move needs first is in place. */
  @Transactional
  public PlaceView prepare(String database) {
    PlaceView before = places.place(database);
    if (before.place() != Place.PLANNED) {
      throw new Refused(
          "%s is %s; only a planned database can be marked prepared."
              .formatted(database, before.place().words()));
    }
    StateRow row = stateOf(database);
    mapper.save(new StateRow(database, clock.instant(), row.settledAt(), row.retiredAt()));
    return placeChanged("prepared", before);
  }

  /** Sets up a crossing for a prepared database. */
  @Transactional
  public CrossingView setUp(String database, @Nullable String owner) {
    PlaceView before = places.place(database);
    if (before.place() != Place.PREPARED) {
      throw new Refused(
          "%s is %s; only a prepared database can cross."
              .formatted(database, before.place().words()));
    }
    int number = mapper.nextNumber();
    Instant now = clock.instant();
    requirePerson(owner);
    mapper.insert(
        new CrossingRow(
            number,
            database,
            Stage.SETTING_UP,
            Condition.RUNNING,
            0,
            null,
            null,
            owner,
            now,
            now,
            1));
    journal.write(
        "set up", "DATABASE", database, "stage", null, Stage.SETTING_UP.name(), key(number));
    placeChanged("crossing", before);
    return crossing(key(number));
  }

  private void requirePerson(@Nullable String login) {
    if (login != null && !team.isPerson(login)) {
      throw new InvalidValue("\"%s\" is nobody of this programme.".formatted(login));
    }
  }

  @Transactional
  public CrossingView assign(String key, String owner, long version) {
    requirePerson(owner);
    CrossingRow row = row(key);
    store(with(row, state(row), owner), version, owner);
    journal.write("assigned", "DATABASE", row.databaseKey(), "owner", row.owner(), owner, key);
    live.announce("crossings", key);
    return crossing(key);
  }

  /** Makes one legal move. */
  @Transactional
  public CrossingView move(String key, Move move, @Nullable String why, long version) {
    CrossingRow row = row(key);
    requireMine(row);
    PlaceView before = places.place(row.databaseKey());
    CrossingState after = state(row).after(move, why);
    store(with(row, after, row.owner()), version, move.words());
    if (after.stage() != row.stage()) {
      journal.write(
          move.words(),
          "DATABASE",
          row.databaseKey(),
          "stage",
          row.stage().name(),
          after.stage().name(),
          note(key, after));
    }
    if (after.condition() != row.condition()) {
      journal.write(
          move.words(),
          "DATABASE",
          row.databaseKey(),
          "condition",
          row.condition().name(),
          after.condition().name(),
          note(key, after));
    }
    placeChanged(move.words(), before);
    live.announce("crossings", key);
    return crossing(key);
  }

  private static String note(String key, CrossingState after) {
    return after.reason() == null ? key : key + ": " + after.reason();
  }

  /**
   * Reports how far the copy is and how far the target is behind.
   *
   * @param progress 0 to 1; null to leave it
   * @param lagSeconds null to leave it
   */
  @Transactional
  public CrossingView report(
      String key, @Nullable Double progress, @Nullable Long lagSeconds, long version) {
    CrossingRow row = row(key);
    requireMine(row);
    if (!state(row).open()) {
      throw new Refused("%s has ended.".formatted(key));
    }
    if (progress != null && row.stage() != Stage.COPYING) {
      throw new Refused("%s is %s; it copies nothing.".formatted(key, row.stage().words()));
    }
    if (lagSeconds != null && row.stage() != Stage.FOLLOWING && row.stage() != Stage.HELD) {
      throw new Refused("%s is %s; it follows nothing.".formatted(key, row.stage().words()));
    }
    CrossingRow after =
        new CrossingRow(
            row.number(),
            row.databaseKey(),
            row.stage(),
            row.condition(),
            progress == null ? row.progress() : progress,
            lagSeconds == null ? row.lagSeconds() : lagSeconds,
            row.reason(),
            row.owner(),
            row.startedAt(),
            clock.instant(),
            row.version());
    store(after, version, "a report");
    if (progress != null) {
      journal.write(
          "reported",
          "DATABASE",
          row.databaseKey(),
          "progress",
          Double.toString(row.progress()),
          progress.toString(),
          key);
    }
    if (lagSeconds != null) {
      journal.write(
          "reported",
          "DATABASE",
          row.databaseKey(),
          "lag_seconds",
          row.lagSeconds() == null ? null : row.lagSeconds().toString(),
          lagSeconds.toString(),
          key);
    }
    live.announce("crossings", key);
    return crossing(key);
  }

  /** Marks a landed database as settled: it has proved itself in use. */
  @Transactional
  public PlaceView settle(String database) {
    PlaceView before = places.place(database);
    if (before.place() != Place.LANDED) {
      throw new Refused(
          "%s is %s; only a landed database can settle."
              .formatted(database, before.place().words()));
    }
    StateRow row = stateOf(database);
    mapper.save(new StateRow(database, row.preparedAt(), clock.instant(), row.retiredAt()));
    return placeChanged("settled", before);
  }

  /** Marks a settled database's source as retired. */
  @Transactional
  public PlaceView retire(String database) {
    PlaceView before = places.place(database);
    if (before.place() != Place.SETTLED) {
      throw new Refused(
          "%s is %s; only the source of a settled database can be retired."
              .formatted(database, before.place().words()));
    }
    StateRow row = stateOf(database);
    mapper.save(new StateRow(database, row.preparedAt(), row.settledAt(), clock.instant()));
    return placeChanged("retired", before);
  }

  private StateRow stateOf(String database) {
    return mapper.state(database).orElse(new StateRow(database, null, null, null));
  }

  private PlaceView placeChanged(String action, PlaceView before) {
    PlaceView after = places.place(before.database());
    if (after.place() != before.place()) {
      journal.write(
          action,
          "DATABASE",
          before.database(),
          "place",
          before.place().name(),
          after.place().name(),
          after.crossing());
      live.announce("crossings", before.database());
    }
    return after;
  }

  private CrossingRow with(CrossingRow row, CrossingState after, @Nullable String owner) {
    return new CrossingRow(
        row.number(),
        row.databaseKey(),
        after.stage(),
        after.condition(),
        after.progress(),
        after.lagSeconds(),
        after.reason(),
        owner,
        row.startedAt(),
        clock.instant(),
        row.version());
  }

  /** An engineer moves what is theirs or nobody's; the lead moves everything. */
  private void requireMine(CrossingRow row) {
    boolean theirs = row.owner() != null && !row.owner().equals(current.login());
    if (theirs && current.role().filter(Role.LEAD::equals).isEmpty()) {
      throw new Refused(
          "%s is assigned to %s. Ask them or the lead, or have it assigned to you."
              .formatted(key(row.number()), row.owner()));
    }
  }

  private void store(CrossingRow row, long version, String yours) {
    if (row.version() != version || mapper.update(row) == 0) {
      CrossingRow now = row(key(row.number()));
      throw new Conflict(
          "%s was changed meanwhile: it is %s.".formatted(key(row.number()), words(now)),
          yours,
          words(now),
          now.version());
    }
  }

  private static String words(CrossingRow row) {
    return row.condition() == Condition.RUNNING
        ? row.stage().words()
        : row.stage().words() + ", " + row.condition().words();
  }
}

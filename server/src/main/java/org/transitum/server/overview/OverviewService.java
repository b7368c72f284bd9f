package org.transitum.server.overview;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.transitum.core.crossings.Condition;
import org.transitum.core.crossings.Place;
import org.transitum.core.crossings.Stage;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.EstateObject;
import org.transitum.server.crossings.CrossingService;
import org.transitum.server.crossings.CrossingService.CrossingView;
import org.transitum.server.crossings.PlaceService;
import org.transitum.server.crossings.PlaceService.PlaceView;
import org.transitum.server.dependencies.TieService;
import org.transitum.server.inventory.EstateStore;
import org.transitum.server.inventory.InventoryService;
import org.transitum.server.inventory.ReadingService;
import org.transitum.server.journal.JournalService;
import org.transitum.server.journal.JournalService.DayCount;
import org.transitum.server.journal.JournalService.Entry;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.programme.ProgrammeService;
import org.transitum.server.sizing.SizingService;
import org.transitum.server.sizing.SizingService.EstateSizing;
import org.transitum.server.waves.WaveService;
import org.transitum.server.waves.WaveService.WaveView;
import org.transitum.server.waves.WaveService.WavesView;

/** Where the estate stands, what is left to do, and what wants attention today. */
@Service
public class OverviewService {
  private static final Duration LEFT_HOLDS = Duration.ofSeconds(30);
  private static final Duration SOON = Duration.ofDays(14);

  private final EstateStore estate;
  private final PlaceService places;
  private final CrossingService crossings;
  private final WaveService waves;
  private final TieService ties;
  private final SizingService sizing;
  private final InventoryService inventory;
  private final ReadingService readings;
  private final JournalService journal;
  private final ProgrammeService programme;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private volatile @Nullable Left left;

  OverviewService(
      EstateStore estate,
      PlaceService places,
      CrossingService crossings,
      WaveService waves,
      TieService ties,
      SizingService sizing,
      InventoryService inventory,
      ReadingService readings,
      JournalService journal,
      ProgrammeService programme,
      LiveFeed live,
      ProgrammeClock clock) {
    this.estate = estate;
    this.places = places;
    this.crossings = crossings;
    this.waves = waves;
    this.ties = ties;
    this.sizing = sizing;
    this.inventory = inventory;
    this.readings = readings;
    this.journal = journal;
    this.programme = programme;
    this.live = live;
    this.clock = clock;
  }

  /** One database as a mark in the picture. */
  public record Mark(
      String database,
      Place place,
      @Nullable String wave,
      @Nullable Stage stage,
      @Nullable Condition condition,
      @Nullable Double progress,
      @Nullable Long sizeBytes) {}

  public record Lane(String wave, String name, Instant start, Instant end) {}

  /**
   * @param at the time that the picture shows
   * @param activity journal entries per day, oldest first
   */
  public record Picture(
      Instant at, boolean now, List<Lane> lanes, List<Mark> marks, List<DayCount> activity) {}

  public enum Tone {
    PLAIN,
    LOOK,
    ACT
  }

  /**
   * Something that wants attention.
   *
   * @param database whose dossier tells more; absent where the station does
   * @param station where to act
   */
  public record TodayItem(
      Tone tone,
      String title,
      String words,
      @Nullable Instant at,
      @Nullable String database,
      String station,
      String action) {}

  /** What is left to do at a station. */
  public record StationLeft(String station, String words, Tone tone, boolean done) {}

  /**
   * @param at null for now, else the picture is told from the journal
   */
  public Picture picture(@Nullable Instant at) {
    List<Lane> lanes =
        waves.windows().stream()
            .map(wave -> new Lane(wave.key(), wave.name(), wave.start(), wave.end()))
            .toList();
    Map<String, Long> sizes = new HashMap<>();
    List<EstateObject> databases = estate.databases();
    databases.forEach(
        database ->
            database
                .number(Attribute.SIZE_BYTES)
                .ifPresent(size -> sizes.put(database.key(), size)));
    List<Mark> marks = at == null ? marksNow(sizes) : marksAt(at, databases, sizes);
    return new Picture(at == null ? clock.instant() : at, at == null, lanes, marks, journal.days());
  }

  private List<Mark> marksNow(Map<String, Long> sizes) {
    return places.places().stream()
        .map(
            view ->
                new Mark(
                    view.database(),
                    view.place(),
                    view.wave(),
                    view.stage(),
                    view.condition(),
                    view.progress(),
                    sizes.get(view.database())))
        .toList();
  }

  private List<Mark> marksAt(Instant at, List<EstateObject> databases, Map<String, Long> sizes) {
    Map<String, Map<String, String>> told = new HashMap<>();
    for (Entry entry : journal.statesUntil(at)) {
      told.computeIfAbsent(entry.objectKey(), key -> new HashMap<>())
          .put(
              entry.attribute() == null ? "" : entry.attribute(),
              entry.toValue() == null ? "" : entry.toValue());
    }
    List<Mark> marks = new ArrayList<>();
    for (EstateObject database : databases) {
      Map<String, String> of = told.getOrDefault(database.key(), Map.of());
      String wave = of.getOrDefault("wave", "");
      boolean crossed = of.containsKey("place");
      Place place =
          !waves.inScope(database.key())
              ? Place.OUT_OF_SCOPE
              : crossed
                  ? Place.valueOf(of.get("place"))
                  : wave.isEmpty() ? Place.UNPLANNED : Place.PLANNED;
      marks.add(
          new Mark(
              database.key(),
              place,
              wave.isEmpty() ? null : wave,
              of.containsKey("stage") ? Stage.valueOf(of.get("stage")) : null,
              of.containsKey("condition")
                  ? Condition.valueOf(of.get("condition"))
                  : Condition.RUNNING,
              of.containsKey("progress") ? Double.valueOf(of.get("progress")) : null,
              sizes.get(database.key())));
    }
    return marks;
  }

  public List<TodayItem> today() {
    List<TodayItem> items = new ArrayList<>();
    Instant now = clock.instant();
    WavesView board = waves.view();
    windows(board, now, items);
    stalledAndHeld(items);
    for (WaveView wave : board.waves()) {
      if (wave.open() && !wave.breaches().isEmpty()) {
        items.add(
            new TodayItem(
                Tone.ACT,
                wave.key() + " will not hold",
                wave.breaches().get(0),
                null,
                null,
                "waves",
                "See what would help"));
      }
    }
    if (!readings.openReadings().isEmpty()) {
      items.add(
          new TodayItem(
              Tone.LOOK,
              "Readings to accept: " + readings.openReadings().size(),
              readings.openReadings().get(0).source(),
              null,
              null,
              "inventory",
              "Look at the difference"));
    }
    if (ties.proposed() > 0) {
      items.add(
          new TodayItem(
              Tone.LOOK,
              "Ties to confirm: " + ties.proposed(),
              "Seen on servers; they group nothing until somebody says what they mean.",
              null,
              null,
              "dependencies",
              "Confirm or reject"));
    }
    items.sort(Comparator.comparing(TodayItem::tone).reversed());
    return items;
  }

  private static void windows(WavesView board, Instant now, List<TodayItem> items) {
    for (WaveView wave : board.waves()) {
      boolean running = wave.start().isBefore(now) && wave.end().isAfter(now);
      boolean soon = wave.start().isAfter(now) && wave.start().isBefore(now.plus(SOON));
      if (running || soon) {
        boolean within = wave.start().isBefore(now.plus(Duration.ofHours(24)));
        items.add(
            new TodayItem(
                within ? Tone.LOOK : Tone.PLAIN,
                wave.key() + " " + wave.name(),
                "%d databases, %.1f TiB, window of %.0f h"
                    .formatted(
                        wave.databases(),
                        wave.bytes() / (double) (1L << 40),
                        Duration.between(wave.start(), wave.end()).toMinutes() / 60.0),
                wave.start(),
                null,
                "crossings",
                "See its crossings"));
      }
    }
  }

  private void stalledAndHeld(List<TodayItem> items) {
    for (CrossingView crossing : crossings.crossings()) {
      String who = crossing.owner() == null ? "nobody is assigned" : "with " + crossing.owner();
      if (crossing.condition() == Condition.STALLED) {
        items.add(
            new TodayItem(
                Tone.ACT,
                "Stalled: " + crossing.database(),
                crossing.stage().words() + ", " + crossing.reason() + "; " + who,
                crossing.changedAt(),
                crossing.database(),
                "crossings",
                "Open"));
      } else if (crossing.stage() == Stage.HELD && crossing.open()) {
        items.add(
            new TodayItem(
                Tone.LOOK,
                "Held: " + crossing.database(),
                crossing.reason() + "; " + who,
                crossing.changedAt(),
                crossing.database(),
                "crossings",
                "Go on or stop"));
      }
    }
  }

  /** The route rail: what is left to do at each station. */
  /** What is left to do; every page asks, so it is worked out once for each change. */
  public List<StationLeft> left() {
    long change = live.last();
    Instant now = clock.instant();
    Left before = left;
    if (before != null && before.holds(change, now)) {
      return before.stations();
    }
    Left fresh = new Left(change, now, leftNow());
    left = fresh;
    return fresh.stations();
  }

  /**
   * @param change the last one that it knows of
   */
  private record Left(long change, Instant at, List<StationLeft> stations) {
    boolean holds(long last, Instant now) {
      return change == last && !now.isBefore(at) && now.isBefore(at.plus(LEFT_HOLDS));
    }
  }

  private List<StationLeft> leftNow() {
    List<PlaceView> all = places.places();
    long stalled = all.stream().filter(p -> p.condition() == Condition.STALLED).count();
    long held =
        all.stream().filter(p -> p.place() == Place.CROSSING && p.stage() == Stage.HELD).count();
    long under = all.stream().filter(p -> p.place() == Place.CROSSING).count();
    long gaps = inventory.withGaps();
    int open = readings.openReadings().size();
    EstateSizing sized = sizing.estate(programme.current().sizing());
    int proposed = ties.proposed();
    int unplaced = waves.view().unplaced();
    return List.of(
        left("overview", "nothing waits", part(stalled, "stalled"), part(held, "held")),
        left(
            "inventory",
            "all known",
            part(gaps, "with gaps"),
            part(inventory.contradicted(), "disagree"),
            part(open, "to accept")),
        left("sizing", "all sized", part(sized.unsized(), "unsized"), part(sized.weak(), "weak")),
        left("dependencies", "all confirmed", part(proposed, "to confirm")),
        left(
            "waves",
            "all placed",
            part(unplaced, unplaced == 1 ? "group unplaced" : "groups unplaced")),
        left("crossings", "none under way", part(stalled, "stalled"), part(under, "under way")));
  }

  private static String part(long count, String what) {
    return count == 0 ? "" : count + " " + what;
  }

  private static StationLeft left(String station, String none, String... parts) {
    List<String> some = java.util.Arrays.stream(parts).filter(part -> !part.isEmpty()).toList();
    boolean act = some.stream().anyMatch(part -> part.endsWith("stalled"));
    return new StationLeft(
        station,
        some.isEmpty() ? none : String.join(", ", some),
        act ? Tone.ACT : Tone.PLAIN,
        some.isEmpty());
  }
}

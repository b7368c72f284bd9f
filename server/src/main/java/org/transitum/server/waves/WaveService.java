package org.transitum.server.waves;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.dependencies.MoveGroup;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.waves.Assessment;
import org.transitum.core.waves.Breach;
import org.transitum.core.waves.GroupLoad;
import org.transitum.core.waves.PlanAssessor;
import org.transitum.core.waves.PlanCost;
import org.transitum.core.waves.PlanningProblem.GroupTie;
import org.transitum.core.waves.Wave;
import org.transitum.server.inventory.EstateStore;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Conflict;
import org.transitum.server.problems.Missing;
import org.transitum.server.problems.Refused;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.waves.WaveBoard.Board;
import org.transitum.server.waves.WaveMapper.WaveRow;

/** Waves, and where each move group stands. */
@Service
public class WaveService {
  private final WaveMapper mapper;
  private final WaveBoard board;
  private final Placements placements;
  private final EstateStore estate;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;

  WaveService(
      WaveMapper mapper,
      WaveBoard board,
      Placements placements,
      EstateStore estate,
      JournalService journal,
      LiveFeed live,
      ProgrammeClock clock) {
    this.mapper = mapper;
    this.board = board;
    this.placements = placements;
    this.estate = estate;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
  }

  /**
   * @param open whether groups may still be placed here
   */
  public record WaveView(
      String key,
      String name,
      Instant start,
      Instant end,
      int maxDatabases,
      long maxBytes,
      boolean open,
      int databases,
      long bytes,
      long longestOutageMinutes,
      List<String> breaches) {}

  public record WaveWindow(String key, String name, Instant start, Instant end) {}

  public record FreezeView(String name, Instant start, Instant end) {}

  /**
   * @param wave absent where the group has none
   * @param problem why it stands wrong, or why it has no wave
   */
  public record GroupView(
      String key,
      String name,
      List<String> members,
      long bytes,
      boolean sizeKnown,
      @Nullable String wave,
      boolean locked,
      boolean committed,
      long outageMinutes,
      boolean following,
      long permittedOutageMinutes,
      int risk,
      @Nullable String problem) {}

  public record WavesView(
      List<WaveView> waves,
      List<FreezeView> freezes,
      List<GroupView> groups,
      PlanCost cost,
      int unplaced,
      int cutTies) {}

  /** What placing a group into a wave would break and cost against where it is now. */
  public record WavePreview(
      String wave,
      boolean here,
      boolean open,
      List<String> breaks,
      double costDelta,
      int cutTies) {}

  /** The waves by start, without looking at what stands in them. */
  public List<WaveWindow> windows() {
    return mapper.waves().stream()
        .map(row -> new WaveWindow(row.waveKey(), row.name(), row.startsAt(), row.endsAt()))
        .toList();
  }

  public WavesView view() {
    Board now = board.read();
    Assessment assessment = new PlanAssessor(now.problem()).assess(now.placement());
    Map<String, List<Breach>> byWave =
        assessment.breaches().stream().collect(Collectors.groupingBy(Breach::wave));
    Map<String, String> byGroup = new HashMap<>(now.split());
    assessment.breaches().forEach(breach -> byGroup.putIfAbsent(breach.group(), breach.sentence()));
    Map<String, GroupLoad> loads =
        now.problem().groups().stream().collect(Collectors.toMap(GroupLoad::key, load -> load));
    List<GroupView> groups =
        now.groups().stream()
            .map(group -> groupView(group, now, loads.get(group.key()), byGroup.get(group.key())))
            .toList();
    List<WaveView> waves =
        mapper.waves().stream()
            .map(row -> waveView(row, now, byWave.getOrDefault(row.waveKey(), List.of())))
            .toList();
    return new WavesView(
        waves,
        mapper.freezes().stream()
            .map(row -> new FreezeView(row.name(), row.startsAt(), row.endsAt()))
            .toList(),
        groups,
        assessment.cost(),
        (int) groups.stream().filter(group -> group.wave() == null).count(),
        cut(now, now.placement(), null));
  }

  private WaveView waveView(WaveRow row, Board now, List<Breach> breaches) {
    List<GroupLoad> placed =
        now.problem().groups().stream()
            .filter(load -> row.waveKey().equals(now.placement().get(load.key())))
            .toList();
    return new WaveView(
        row.waveKey(),
        row.name(),
        row.startsAt(),
        row.endsAt(),
        row.maxDatabases(),
        row.maxBytes(),
        row.startsAt().isAfter(clock.instant()),
        placed.stream().mapToInt(GroupLoad::databases).sum(),
        placed.stream().mapToLong(GroupLoad::bytes).sum(),
        placed.stream().mapToLong(GroupLoad::outageMinutes).max().orElse(0),
        breaches.stream().map(Breach::sentence).toList());
  }

  private GroupView groupView(
      MoveGroup group, Board now, GroupLoad load, @Nullable String problem) {
    return new GroupView(
        group.key(),
        name(group),
        group.members(),
        load.bytes(),
        load.sizeKnown(),
        now.placement().get(group.key()),
        now.lockedByHand().contains(group.key()),
        now.committed().contains(group.key()),
        load.outageMinutes(),
        now.longest().get(group.key()).following(),
        load.permittedMinutes(),
        load.risk(),
        problem);
  }

  /** The largest member's name stands for the group. */
  private String name(MoveGroup group) {
    return group.members().stream()
        .max(Comparator.comparingLong(this::size).thenComparing(Comparator.reverseOrder()))
        .map(key -> key.substring(key.indexOf('/') + 1))
        .orElse(group.key());
  }

  private long size(String database) {
    return estate
        .find(ObjectKind.DATABASE, database)
        .flatMap(object -> object.number(Attribute.SIZE_BYTES))
        .orElse(0L);
  }

  /** Loose ties between two waves; an ordered tie that does not hold is a breach instead. */
  private static int cut(Board now, Map<String, String> placement, @Nullable String group) {
    int cut = 0;
    for (GroupTie tie : now.problem().ties()) {
      String one = placement.get(tie.from());
      String other = placement.get(tie.to());
      boolean concerned = group == null || tie.from().equals(group) || tie.to().equals(group);
      cut +=
          concerned && !tie.ordered() && one != null && other != null && !one.equals(other) ? 1 : 0;
    }
    return cut;
  }

  /** What each wave would mean for a group. Only that group's placement is tried. */
  public List<WavePreview> preview(String group) {
    Board now = board.read();
    now.require(group);
    PlanAssessor assessor = new PlanAssessor(now.problem());
    Map<String, String> tried = new TreeMap<>(now.placement());
    String here = tried.remove(group);
    Assessment without = assessor.assess(tried);
    Set<String> already =
        without.breaches().stream().map(Breach::sentence).collect(Collectors.toSet());
    double costHere =
        here == null ? without.cost().total() : assessor.assess(now.placement()).cost().total();
    List<WavePreview> previews = new ArrayList<>();
    for (Wave wave : now.problem().waves()) {
      tried.put(group, wave.key());
      Assessment with = assessor.assess(tried);
      List<String> breaks =
          with.breaches().stream()
              .map(Breach::sentence)
              .filter(sentence -> !already.contains(sentence))
              .toList();
      previews.add(
          new WavePreview(
              wave.key(),
              wave.key().equals(here),
              wave.open(),
              breaks,
              with.cost().total() - costHere,
              cut(now, tried, group)));
    }
    return previews;
  }

  /**
   * Moves a whole group by hand.
   *
   * @param seen the wave the person saw it in; null where it had none
   * @param wave where to; null to take it out of its wave
   */
  @Transactional
  public void place(String group, @Nullable String seen, @Nullable String wave) {
    Board now = board.read();
    MoveGroup moved = now.require(group);
    String here = now.placement().get(group);
    if (!Objects.equals(here, seen)) {
      throw new Conflict(
          "%s was moved meanwhile.".formatted(group),
          wave == null ? "no wave" : wave,
          here == null ? "no wave" : here,
          0);
    }
    if (now.committed().contains(group)) {
      throw new Refused(
          "%s has members that are prepared, crossing or landed; it stays in %s."
              .formatted(group, here == null ? "its wave" : here));
    }
    if (wave != null) {
      Wave target =
          now.problem().waves().stream()
              .filter(w -> w.key().equals(wave))
              .findFirst()
              .orElseThrow(() -> new Missing("There is no wave %s.".formatted(wave)));
      if (!target.open()) {
        throw new Refused("%s has begun; nothing can be placed in it.".formatted(wave));
      }
    }
    placements.write(moved.members(), wave, "by hand");
    live.announce("waves", group);
  }

  @Transactional
  public void lock(String group, boolean locked) {
    Board now = board.read();
    MoveGroup held = now.require(group);
    if (now.placement().get(group) == null) {
      throw new Refused("%s has no wave to be locked to.".formatted(group));
    }
    held.members().forEach(member -> mapper.lock(member, locked));
    journal.write(
        locked ? "locked" : "unlocked",
        "GROUP",
        group,
        "lock",
        null,
        now.placement().get(group),
        null);
    live.announce("waves", group);
  }

  /** Wave of each placed database. */
  public Map<String, String> placements() {
    return placements.waves();
  }

  /** Whether a database is to cross at all. */
  public boolean inScope(String database) {
    return estate
        .find(ObjectKind.DATABASE, database)
        .filter(object -> !object.gone())
        .map(WaveBoard::inScope)
        .orElse(false);
  }

  /** The key of the group that a database belongs to; null where it is out of scope. */
  public @Nullable String groupOf(String database) {
    return board.groups().stream()
        .filter(group -> group.members().contains(database))
        .map(MoveGroup::key)
        .findFirst()
        .orElse(null);
  }
}

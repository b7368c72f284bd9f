package org.transitum.server.waves;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.transitum.core.dependencies.MoveGroup;
import org.transitum.core.dependencies.MoveGroups;
import org.transitum.core.dependencies.Tie;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.EstateObject;
import org.transitum.core.routes.OutageEstimate;
import org.transitum.core.waves.Freeze;
import org.transitum.core.waves.GroupLoad;
import org.transitum.core.waves.PlanningProblem;
import org.transitum.core.waves.Wave;
import org.transitum.server.dependencies.TieService;
import org.transitum.server.inventory.EstateStore;
import org.transitum.server.problems.Missing;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.programme.ProgrammeService;
import org.transitum.server.waves.WaveMapper.PlacementRow;

/** Puts together what the planner and the screen need to know of waves and groups. */
@Component
class WaveBoard {
  private static final Set<String> CROSSES = Set.of("move", "move and upgrade", "rebuild");
  private static final long NO_OUTAGE_STATED_MINUTES = 480;

  private final WaveMapper mapper;
  private final EstateStore estate;
  private final TieService ties;
  private final ProgrammeService programme;
  private final ProgrammeClock clock;
  private final Commitments commitments;

  WaveBoard(
      WaveMapper mapper,
      EstateStore estate,
      TieService ties,
      ProgrammeService programme,
      ProgrammeClock clock,
      Commitments commitments) {
    this.mapper = mapper;
    this.estate = estate;
    this.ties = ties;
    this.programme = programme;
    this.clock = clock;
    this.commitments = commitments;
  }

  /**
   * The state of planning at one moment.
   *
   * @param split groups whose members stand in different waves, or only in part in one, with words
   * @param committed groups of which a member has gone beyond planning
   */
  record Board(
      PlanningProblem problem,
      List<MoveGroup> groups,
      Map<String, OutageEstimate> longest,
      Map<String, String> placement,
      Map<String, String> split,
      Set<String> committed,
      Set<String> lockedByHand) {

    MoveGroup require(String group) {
      return groups.stream()
          .filter(g -> g.key().equals(group))
          .findFirst()
          .orElseThrow(
              () ->
                  new Missing(
                      "There is no move group \"%s\"; ties may have changed it.".formatted(group)));
    }
  }

  static boolean inScope(EstateObject database) {
    return database.value(Attribute.DISPOSITION).map(CROSSES::contains).orElse(true);
  }

  private Map<String, EstateObject> toCross() {
    Map<String, EstateObject> databases = new TreeMap<>();
    estate.databases().stream()
        .filter(WaveBoard::inScope)
        .forEach(database -> databases.put(database.key(), database));
    return databases;
  }

  /** The move groups alone, without what they ask of a wave. */
  List<MoveGroup> groups() {
    return MoveGroups.of(toCross().keySet(), ties.confirmed());
  }

  Board read() {
    Map<String, EstateObject> databases = toCross();
    List<Tie> held = ties.confirmed();
    List<MoveGroup> groups = MoveGroups.of(databases.keySet(), held);
    Map<String, PlacementRow> placed =
        mapper.placements().stream()
            .collect(Collectors.toMap(PlacementRow::databaseKey, row -> row));
    Map<String, String> placement = new TreeMap<>();
    Map<String, String> split = new TreeMap<>();
    groups.forEach(group -> placeOf(group, placed, placement, split));
    Set<String> begun = commitments.databases();
    Set<String> committed =
        groups.stream()
            .filter(group -> group.members().stream().anyMatch(begun::contains))
            .map(MoveGroup::key)
            .collect(Collectors.toSet());
    Set<String> lockedByHand =
        groups.stream()
            .filter(group -> group.members().stream().anyMatch(m -> isLocked(placed.get(m))))
            .map(MoveGroup::key)
            .collect(Collectors.toSet());
    List<Wave> waves = waves();
    Map<String, String> locked = new HashMap<>();
    placement.forEach(
        (group, wave) -> {
          boolean closed = waves.stream().anyMatch(w -> w.key().equals(wave) && !w.open());
          if (committed.contains(group) || lockedByHand.contains(group) || closed) {
            locked.put(group, wave);
          }
        });
    Map<String, OutageEstimate> longest = new HashMap<>();
    long link = programme.current().linkBytesPerSecond();
    List<GroupLoad> loads =
        groups.stream().map(group -> load(group, databases, link, longest)).toList();
    PlanningProblem problem =
        new PlanningProblem(waves, freezes(), loads, PlanningProblem.between(groups, held), locked);
    return new Board(problem, groups, longest, placement, split, committed, lockedByHand);
  }

  private static boolean isLocked(@Nullable PlacementRow row) {
    return row != null && row.locked();
  }

  private static void placeOf(
      MoveGroup group,
      Map<String, PlacementRow> placed,
      Map<String, String> placement,
      Map<String, String> split) {
    Set<String> waves =
        group.members().stream()
            .map(member -> Optional.ofNullable(placed.get(member)).map(PlacementRow::waveKey))
            .map(wave -> wave.orElse("no wave"))
            .collect(Collectors.toCollection(TreeSet::new));
    if (waves.size() > 1) {
      split.put(group.key(), "Must cross together, but stands in " + String.join(" and ", waves));
    } else if (!waves.contains("no wave")) {
      placement.put(group.key(), waves.iterator().next());
    }
  }

  private List<Wave> waves() {
    Instant now = clock.instant();
    return mapper.waves().stream()
        .map(
            row ->
                new Wave(
                    row.waveKey(),
                    row.startsAt(),
                    row.endsAt(),
                    row.maxDatabases(),
                    row.maxBytes(),
                    row.startsAt().isAfter(now)))
        .toList();
  }

  private List<Freeze> freezes() {
    return mapper.freezes().stream()
        .map(row -> new Freeze(row.startsAt(), row.endsAt(), row.name()))
        .toList();
  }

  private GroupLoad load(
      MoveGroup group,
      Map<String, EstateObject> databases,
      long link,
      Map<String, OutageEstimate> longest) {
    long bytes = 0;
    boolean known = true;
    long permitted = Long.MAX_VALUE;
    int risk = 0;
    OutageEstimate longestHere = new OutageEstimate(0, 0, false);
    for (String member : group.members()) {
      EstateObject database = databases.get(member);
      Optional<Long> size = database.number(Attribute.SIZE_BYTES);
      known &= size.isPresent();
      bytes += size.orElse(0L);
      long outage =
          estate
              .effective(database, Attribute.PERMITTED_OUTAGE_MINUTES)
              .map(Long::valueOf)
              .orElse(NO_OUTAGE_STATED_MINUTES);
      permitted = Math.min(permitted, outage);
      OutageEstimate estimate = OutageEstimate.of(size.orElse(0L), outage, link);
      if (estimate.outageMinutes() > longestHere.outageMinutes()) {
        longestHere = estimate;
      }
      risk = Math.max(risk, risk(database));
    }
    longest.put(group.key(), longestHere);
    return new GroupLoad(
        group.key(),
        group.members().size(),
        bytes,
        known,
        longestHere.outageMinutes(),
        permitted,
        risk);
  }

  private int risk(EstateObject database) {
    return switch (estate.effective(database, Attribute.CRITICALITY).orElse("medium")) {
      case "critical" -> 3;
      case "high" -> 2;
      case "medium" -> 1;
      default -> 0;
    };
  }
}

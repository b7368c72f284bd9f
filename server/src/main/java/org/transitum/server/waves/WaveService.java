package org.transitum.server.waves;

import java.io.InputStream;
import java.time.Instant;
import java.util.ArrayList;
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
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.waves.Assessment;
import org.transitum.core.waves.Breach;
import org.transitum.core.waves.GreedyWavePlanner;
import org.transitum.core.waves.GroupLoad;
import org.transitum.core.waves.Plan;
import org.transitum.core.waves.PlanAssessor;
import org.transitum.core.waves.PlanCost;
import org.transitum.core.waves.PlanningProblem.GroupTie;
import org.transitum.core.waves.Wave;
import org.transitum.core.waves.WavePlanner;
import org.transitum.server.inventory.EstateStore;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Conflict;
import org.transitum.server.problems.Missing;
import org.transitum.server.problems.Refused;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.CurrentPerson;
import org.transitum.server.waves.WaveBoard.Board;
import org.transitum.server.waves.WaveMapper.FreezeRow;
import org.transitum.server.waves.WaveMapper.PlacementRow;
import org.transitum.server.waves.WaveMapper.PlanRow;
import org.transitum.server.waves.WaveMapper.WaveRow;
import org.transitum.sources.waves.WindowsCsv;
import tools.jackson.databind.json.JsonMapper;

/** Waves, where each move group stands, and plans. */
@Service
public class WaveService {
  private final WaveMapper mapper;
  private final WaveBoard board;
  private final EstateStore estate;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final CurrentPerson current;
  private final JsonMapper json;
  private final WavePlanner planner = new GreedyWavePlanner();

  WaveService(
      WaveMapper mapper,
      WaveBoard board,
      EstateStore estate,
      JournalService journal,
      LiveFeed live,
      ProgrammeClock clock,
      CurrentPerson current,
      JsonMapper json) {
    this.mapper = mapper;
    this.board = board;
    this.estate = estate;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
    this.current = current;
    this.json = json;
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

  public record PlanMove(String group, @Nullable String from, @Nullable String to, String reason) {}

  /** A proposed plan; nothing moves before somebody accepts it. */
  public record PlanDraft(
      long id,
      Instant at,
      String person,
      List<PlanMove> moves,
      Map<String, String> unplaced,
      double cost,
      double costNow,
      boolean converged) {}

  public WavesView view() {
    Board now = board.read();
    Assessment assessment = new PlanAssessor(now.problem()).assess(now.placement());
    Map<String, List<Breach>> byWave =
        assessment.breaches().stream().collect(Collectors.groupingBy(Breach::wave));
    Map<String, String> byGroup = new HashMap<>(now.split());
    assessment.breaches().forEach(breach -> byGroup.putIfAbsent(breach.group(), breach.sentence()));
    List<GroupView> groups =
        now.groups().stream().map(group -> groupView(group, now, byGroup)).toList();
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

  private GroupView groupView(MoveGroup group, Board now, Map<String, String> problems) {
    GroupLoad load =
        now.problem().groups().stream()
            .filter(l -> l.key().equals(group.key()))
            .findFirst()
            .orElseThrow();
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
        problems.get(group.key()));
  }

  /** The largest member's name stands for the group. */
  private String name(MoveGroup group) {
    return group.members().stream()
        .max(
            java.util.Comparator.comparingLong(
                    (String key) ->
                        estate
                            .find(ObjectKind.DATABASE, key)
                            .flatMap(
                                d -> d.number(org.transitum.core.inventory.Attribute.SIZE_BYTES))
                            .orElse(0L))
                .thenComparing(java.util.Comparator.reverseOrder()))
        .map(key -> key.substring(key.indexOf('/') + 1))
        .orElse(group.key());
  }

  private static int cut(Board now, Map<String, String> placement, @Nullable String group) {
    int cut = 0;
    for (GroupTie tie : now.problem().ties()) {
      String one = placement.get(tie.from());
      String other = placement.get(tie.to());
      boolean concerned = group == null || tie.from().equals(group) || tie.to().equals(group);
      cut += concerned && one != null && other != null && !one.equals(other) ? 1 : 0;
    }
    return cut;
  }

  /** What each wave would mean for a group. Only that group's placement is tried. */
  public List<WavePreview> preview(String group) {
    Board now = board.read();
    requireGroup(now, group);
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
    MoveGroup moved = requireGroup(now, group);
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
    write(moved.members(), wave, "by hand");
    live.announce("waves", group);
  }

  private void write(List<String> databases, @Nullable String wave, String note) {
    Map<String, PlacementRow> placed =
        mapper.placements().stream()
            .collect(Collectors.toMap(PlacementRow::databaseKey, row -> row));
    for (String database : databases) {
      PlacementRow before = placed.get(database);
      String from = before == null ? null : before.waveKey();
      if (Objects.equals(from, wave)) {
        continue;
      }
      if (wave == null) {
        mapper.unplace(database);
      } else {
        mapper.place(new PlacementRow(database, wave, before != null && before.locked()));
      }
      journal.write("placed", "DATABASE", database, "wave", from, wave, note);
    }
  }

  @Transactional
  public void lock(String group, boolean locked) {
    Board now = board.read();
    MoveGroup held = requireGroup(now, group);
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

  private static MoveGroup requireGroup(Board now, String group) {
    return now.groups().stream()
        .filter(g -> g.key().equals(group))
        .findFirst()
        .orElseThrow(
            () ->
                new Missing(
                    "There is no move group \"%s\"; ties may have changed it.".formatted(group)));
  }

  /** Proposes a plan around what is locked, committed or begun. */
  @Transactional
  public PlanDraft plan() {
    Board now = board.read();
    Plan plan = planner.plan(now.problem());
    mapper.replaceDrafts();
    Assessment before = new PlanAssessor(now.problem()).assess(now.placement());
    List<PlanMove> moves = new ArrayList<>();
    for (MoveGroup group : now.groups()) {
      String from = now.placement().get(group.key());
      String to = plan.placement().get(group.key());
      if (!Objects.equals(from, to)) {
        moves.add(new PlanMove(group.key(), from, to, why(now, plan, group.key(), to)));
      }
    }
    PlanDraft draft =
        new PlanDraft(
            0,
            clock.instant(),
            current.login(),
            moves,
            plan.unplaced(),
            plan.assessment().cost().total(),
            before.cost().total(),
            plan.converged());
    long id = mapper.insertPlan(draft.at(), draft.person(), json.writeValueAsString(draft));
    journal.write("planned", "PLAN", "plan " + id, null, null, null, moves.size() + " moves");
    live.announce("waves", "plan " + id);
    return withId(draft, id);
  }

  private static String why(Board now, Plan plan, String group, @Nullable String to) {
    if (to == null) {
      return plan.unplaced().getOrDefault(group, "");
    }
    Map<String, String> without = new TreeMap<>(plan.placement());
    PlanAssessor assessor = new PlanAssessor(now.problem());
    without.remove(group);
    double base = assessor.assess(without).cost().total();
    without.put(group, to);
    return "Costs %.1f there, the least of the waves that it fits."
        .formatted(assessor.assess(without).cost().total() - base);
  }

  private static PlanDraft withId(PlanDraft d, long id) {
    return new PlanDraft(
        id, d.at(), d.person(), d.moves(), d.unplaced(), d.cost(), d.costNow(), d.converged());
  }

  /** The draft that waits for a decision; null where none does. */
  public @Nullable PlanDraft openDraft() {
    return mapper.latestPlan("DRAFT").map(this::draft).orElse(null);
  }

  private PlanDraft draft(PlanRow row) {
    return withId(json.readValue(row.payload(), PlanDraft.class), row.id());
  }

  @Transactional
  public void accept(long id) {
    PlanRow row =
        mapper.plan(id).orElseThrow(() -> new Missing("There is no plan %d.".formatted(id)));
    if (mapper.closePlan(id, "ACCEPTED") == 0) {
      throw new Refused("Plan %d was closed already.".formatted(id));
    }
    Board now = board.read();
    for (PlanMove move : draft(row).moves()) {
      MoveGroup group = requireGroup(now, move.group());
      if (!Objects.equals(now.placement().get(move.group()), move.from())
          || now.committed().contains(move.group())) {
        throw new Refused(
            "%s has changed since plan %d was made; plan again.".formatted(move.group(), id));
      }
      write(group.members(), move.to(), "plan " + id);
    }
    journal.write("accepted plan", "PLAN", "plan " + id, null, null, null, null);
    live.announce("waves", "plan " + id);
  }

  @Transactional
  public void discard(long id) {
    if (mapper.closePlan(id, "DISCARDED") == 0) {
      throw new Refused("Plan %d is no draft.".formatted(id));
    }
    journal.write("discarded plan", "PLAN", "plan " + id, null, null, null, null);
    live.announce("waves", "plan " + id);
  }

  /** Takes a file of windows and freezes as a whole. */
  @Transactional
  public int read(String file, InputStream content) {
    WindowsCsv.Windows windows = WindowsCsv.read(file, content);
    Map<String, WaveRow> known =
        mapper.waves().stream().collect(Collectors.toMap(WaveRow::waveKey, row -> row));
    for (WindowsCsv.WindowRow row : windows.windows()) {
      WaveRow before = known.get(row.wave());
      int version = before == null ? 1 : before.version() + 1;
      mapper.save(
          new WaveRow(
              row.wave(),
              row.name(),
              row.start(),
              row.end(),
              row.maxDatabases(),
              row.maxBytes(),
              version));
      journal.write(
          before == null ? "added wave" : "changed wave",
          "WAVE",
          row.wave(),
          "window",
          before == null ? null : before.startsAt() + " to " + before.endsAt(),
          row.start() + " to " + row.end(),
          "from " + file);
    }
    for (WindowsCsv.FreezeRow row : windows.freezes()) {
      mapper.dropFreeze(row.name());
      mapper.insertFreeze(new FreezeRow(0, row.name(), row.start(), row.end()));
      journal.write(
          "set freeze",
          "FREEZE",
          row.name(),
          "period",
          null,
          row.start() + " to " + row.end(),
          null);
    }
    live.announce("waves", file);
    return windows.windows().size() + windows.freezes().size();
  }

  /** Wave of each placed database. */
  public Map<String, String> placements() {
    return mapper.placements().stream()
        .collect(Collectors.toMap(PlacementRow::databaseKey, PlacementRow::waveKey));
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
    return board.read().groups().stream()
        .filter(group -> group.members().contains(database))
        .map(MoveGroup::key)
        .findFirst()
        .orElse(null);
  }
}

package org.transitum.server.waves;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.dependencies.MoveGroup;
import org.transitum.core.waves.Assessment;
import org.transitum.core.waves.GreedyWavePlanner;
import org.transitum.core.waves.GroupLoad;
import org.transitum.core.waves.Plan;
import org.transitum.core.waves.PlanAssessor;
import org.transitum.core.waves.WavePlanner;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Missing;
import org.transitum.server.problems.Refused;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.CurrentPerson;
import org.transitum.server.waves.WaveBoard.Board;
import org.transitum.server.waves.WaveMapper.PlanRow;
import tools.jackson.databind.json.JsonMapper;

/** Proposes plans; nothing moves before somebody accepts one. */
@Service
public class PlanService {
  private final WaveMapper mapper;
  private final WaveBoard board;
  private final Placements placements;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final CurrentPerson current;
  private final JsonMapper json;
  private final WavePlanner planner = new GreedyWavePlanner();

  PlanService(
      WaveMapper mapper,
      WaveBoard board,
      Placements placements,
      JournalService journal,
      LiveFeed live,
      ProgrammeClock clock,
      CurrentPerson current,
      JsonMapper json) {
    this.mapper = mapper;
    this.board = board;
    this.placements = placements;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
    this.current = current;
    this.json = json;
  }

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

  /** Proposes a plan around what is locked, committed or begun. */
  @Transactional
  public PlanDraft plan() {
    Board now = board.read();
    Plan plan = planner.plan(now.problem());
    mapper.replaceDrafts();
    PlanAssessor assessor = new PlanAssessor(now.problem());
    Assessment before = assessor.assess(now.placement());
    List<PlanMove> moves = new ArrayList<>();
    for (GroupLoad load : now.problem().groups()) {
      String from = now.placement().get(load.key());
      String to = plan.placement().get(load.key());
      if (!Objects.equals(from, to)) {
        moves.add(new PlanMove(load.key(), from, to, why(assessor, load, plan, to)));
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

  private static String why(PlanAssessor assessor, GroupLoad load, Plan plan, @Nullable String to) {
    return to == null
        ? plan.unplaced().getOrDefault(load.key(), "")
        : "Costs %.1f there, the least of the waves that it fits."
            .formatted(assessor.share(load, plan.placement()));
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
      MoveGroup group = now.require(move.group());
      if (!Objects.equals(now.placement().get(move.group()), move.from())
          || now.committed().contains(move.group())) {
        throw new Refused(
            "%s has changed since plan %d was made; plan again.".formatted(move.group(), id));
      }
      placements.write(group.members(), move.to(), "plan " + id);
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
}

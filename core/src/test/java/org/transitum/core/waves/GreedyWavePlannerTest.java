package org.transitum.core.waves;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.transitum.core.waves.Breach.Limit;
import org.transitum.core.waves.PlanningProblem.GroupTie;

class GreedyWavePlannerTest {
  private static final Instant START = Instant.parse("2027-01-02T20:00:00Z");
  private static final long TIB = 1L << 40;

  private static Wave wave(int n, int databases, long bytes, boolean open) {
    Instant start = START.plus(Duration.ofDays(7L * n));
    return new Wave("W0" + n, start, start.plus(Duration.ofHours(8)), databases, bytes, open);
  }

  private static GroupLoad group(String key, int databases, long bytes, int risk) {
    return new GroupLoad(key, databases, bytes, true, 60, 480, risk);
  }

  private static PlanningProblem problem(
      List<Wave> waves, List<Freeze> freezes, List<GroupLoad> groups, List<GroupTie> ties) {
    return new PlanningProblem(waves, freezes, groups, ties, Map.of());
  }

  @Test
  void keepsToTheLimitsOfDatabasesAndBytes() {
    List<GroupLoad> groups =
        IntStream.range(0, 6).mapToObj(i -> group("G" + i, 2, TIB, 1)).toList();
    Plan plan =
        new GreedyWavePlanner()
            .plan(
                problem(
                    List.of(wave(1, 4, 9 * TIB, true), wave(2, 9, 3 * TIB, true)),
                    List.of(),
                    groups,
                    List.of()));
    assertThat(plan.assessment().breaches()).isEmpty();
    assertThat(plan.placement()).hasSize(5);
    assertThat(plan.unplaced()).hasSize(1);
    assertThat(plan.unplaced().values().iterator().next()).contains("W01", "W02");
  }

  @Test
  void anOrderedTieHoldsAndAFrozenOrBegunWaveStaysEmpty() {
    Wave frozen = wave(2, 9, 9 * TIB, true);
    Freeze freeze = new Freeze(frozen.start(), frozen.end(), "year end");
    Plan plan =
        new GreedyWavePlanner()
            .plan(
                problem(
                    List.of(
                        wave(1, 9, TIB, false),
                        frozen,
                        wave(3, 1, TIB, true),
                        wave(4, 9, TIB, true)),
                    List.of(freeze),
                    List.of(group("A", 1, 0, 0), group("B", 1, 0, 0)),
                    List.of(new GroupTie("A", "B", true, 1))));
    assertThat(plan.placement()).containsEntry("A", "W03").containsEntry("B", "W04");
  }

  @Test
  void looseTiesPullTogetherAndTheHardestDoNotGoFirst() {
    Plan plan =
        new GreedyWavePlanner()
            .plan(
                problem(
                    List.of(wave(1, 3, TIB, true), wave(2, 3, TIB, true), wave(3, 3, TIB, true)),
                    List.of(),
                    List.of(group("A", 1, 0, 0), group("B", 1, 0, 0), group("C", 1, 0, 3)),
                    List.of(new GroupTie("A", "B", false, 5))));
    assertThat(plan.placement().get("A")).isEqualTo(plan.placement().get("B"));
    assertThat(plan.placement()).containsEntry("C", "W02");
  }

  @Test
  void lockedGroupsStayEvenWhereTheyBreakALimit() {
    PlanningProblem problem =
        new PlanningProblem(
            List.of(wave(1, 1, TIB, true), wave(2, 9, TIB, true)),
            List.of(),
            List.of(group("A", 2, 0, 0), group("B", 1, 0, 0)),
            List.of(),
            Map.of("A", "W01"));
    Plan plan = new GreedyWavePlanner().plan(problem);
    assertThat(plan.placement()).containsEntry("A", "W01").containsEntry("B", "W02");
    assertThat(plan.assessment().breaches())
        .extracting(Breach::limit)
        .containsExactly(Limit.DATABASES);
  }

  @Test
  void neverBreaksALimitAndAnswersTheSameTwice() {
    Random random = new Random(11);
    for (int round = 0; round < 40; round++) {
      PlanningProblem problem = random(random, 18, 4);
      Plan plan = new GreedyWavePlanner().plan(problem);
      assertThat(plan.assessment().breaches()).isEmpty();
      assertThat(new GreedyWavePlanner().plan(problem)).isEqualTo(plan);
      assertThat(plan.placement().size() + plan.unplaced().size()).isEqualTo(18);
    }
  }

  @Test
  void comesNearTheBestOfAllPlansOnSmallCases() {
    Random random = new Random(12);
    double found = 0;
    double best = 0;
    for (int round = 0; round < 15; round++) {
      PlanningProblem problem = random(random, 6, 3);
      Plan plan = new GreedyWavePlanner().plan(problem);
      if (plan.unplaced().isEmpty()) {
        found += plan.assessment().cost().total();
        best += bestOf(problem, 0, new HashMap<>());
      }
    }
    assertThat(found).isBetween(best - 1e-6, best * 1.25);
  }

  @Test
  void whatAGroupAddsIsWhatTheWholeCostChangesBy() {
    Random random = new Random(13);
    for (int round = 0; round < 20; round++) {
      PlanningProblem problem = random(random, 12, 4);
      PlanAssessor assessor = new PlanAssessor(problem);
      Map<String, String> placement = new HashMap<>();
      for (GroupLoad load : problem.groups()) {
        double before = assessor.assess(placement).cost().total();
        placement.put(load.key(), problem.waves().get(random.nextInt(4)).key());
        assertThat(assessor.assess(placement).cost().total() - before)
            .isCloseTo(assessor.share(load, placement), within(1e-9));
      }
    }
  }

  @Test
  void theFirstOpenWaveIsTheTamestHoweverManyHaveCrossed() {
    List<Wave> waves =
        List.of(
            wave(1, 9, TIB, false),
            wave(2, 9, TIB, false),
            wave(3, 9, TIB, true),
            wave(4, 9, TIB, true),
            wave(5, 9, TIB, true));
    Plan plan =
        new GreedyWavePlanner()
            .plan(problem(waves, List.of(), List.of(group("C", 1, 0, 3)), List.of()));
    assertThat(plan.placement()).containsEntry("C", "W04");
  }

  private static double bestOf(PlanningProblem problem, int at, Map<String, String> placement) {
    if (at == problem.groups().size()) {
      Assessment assessment = new PlanAssessor(problem).assess(placement);
      return assessment.feasible() ? assessment.cost().total() : Double.POSITIVE_INFINITY;
    }
    double best = Double.POSITIVE_INFINITY;
    for (Wave wave : problem.waves()) {
      placement.put(problem.groups().get(at).key(), wave.key());
      best = Math.min(best, bestOf(problem, at + 1, placement));
    }
    placement.remove(problem.groups().get(at).key());
    return best;
  }

  private static PlanningProblem random(Random random, int groups, int waves) {
    List<GroupLoad> loads = new ArrayList<>();
    List<GroupTie> ties = new ArrayList<>();
    for (int i = 0; i < groups; i++) {
      loads.add(
          group(
              "G" + (10 + i),
              1 + random.nextInt(3),
              random.nextInt(500) * (TIB / 500),
              random.nextInt(4)));
      int to = random.nextInt(groups);
      if (to > i) {
        ties.add(
            new GroupTie("G" + (10 + i), "G" + (10 + to), random.nextBoolean(), random.nextInt(3)));
      }
    }
    return problem(
        IntStream.rangeClosed(1, waves).mapToObj(n -> wave(n, 12, 6 * TIB, true)).toList(),
        List.of(),
        loads,
        ties);
  }
}

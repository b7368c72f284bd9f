package org.transitum.bench;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SplittableRandom;
import org.transitum.core.waves.GreedyWavePlanner;
import org.transitum.core.waves.GroupLoad;
import org.transitum.core.waves.Plan;
import org.transitum.core.waves.PlanningProblem;
import org.transitum.core.waves.PlanningProblem.GroupTie;
import org.transitum.core.waves.Wave;

/** Planning estates of growing size over 60 waves, with five ties a group. */
final class WavesBench {
  private static final int WAVES = 60;

  private WavesBench() {}

  static void run() {
    for (int groups : new int[] {200, 500, 1_000, 2_000}) {
      PlanningProblem problem = problem(groups, WAVES);
      long start = System.nanoTime();
      Plan plan = new GreedyWavePlanner().plan(problem);
      System.out.printf(
          Locale.ROOT,
          "%,d groups, %,d ties, %d waves: %d ms, cost %.0f, %d unplaced, %s%n",
          groups,
          problem.ties().size(),
          WAVES,
          (System.nanoTime() - start) / 1_000_000,
          plan.assessment().cost().total(),
          plan.unplaced().size(),
          plan.converged() ? "converged" : "cut short");
    }
  }

  private static PlanningProblem problem(int groups, int waves) {
    SplittableRandom random = new SplittableRandom(3);
    Instant start = Instant.parse("2027-01-02T20:00:00Z");
    List<Wave> windows = new ArrayList<>();
    for (int i = 0; i < waves; i++) {
      Instant at = start.plus(Duration.ofDays(7L * i));
      windows.add(
          new Wave(
              "W%02d".formatted(i + 1),
              at,
              at.plus(Duration.ofHours(8)),
              3 * groups / waves,
              Long.MAX_VALUE / 2,
              true));
    }
    List<GroupLoad> loads = new ArrayList<>();
    List<GroupTie> ties = new ArrayList<>();
    for (int i = 0; i < groups; i++) {
      loads.add(
          new GroupLoad(
              "G%04d".formatted(i),
              1 + random.nextInt(3),
              random.nextLong(1L << 40),
              true,
              20,
              480,
              random.nextInt(4)));
      for (int t = 0; t < 10; t++) {
        int other = random.nextInt(groups);
        if (other > i) {
          ties.add(
              new GroupTie(
                  "G%04d".formatted(i),
                  "G%04d".formatted(other),
                  random.nextInt(8) == 0,
                  random.nextInt(3)));
        }
      }
    }
    return new PlanningProblem(windows, List.of(), loads, ties, Map.of());
  }
}

package org.transitum.core.waves;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.transitum.core.waves.PlanningProblem.GroupTie;

/**
 * A first planner: places groups one by one, predecessors first and the hardest of the rest first,
 * each into the wave that breaks nothing and adds least; then improves by single moves until none
 * helps, for at most {@value #ROUNDS} rounds.
 *
 * <p>Never breaks a limit on its own: a group that fits nowhere stays unplaced with the reason.
 * Locked groups stay where they are, breaches included. Groups in a cycle of ordered ties are
 * placed in the order of their keys, and the tie that cannot hold is named. A trial looks only at
 * what the group touches: O(groups² + rounds × waves × (groups + ties)); equal costs go to the
 * earlier wave.
 */
public final class GreedyWavePlanner implements WavePlanner {
  private static final int ROUNDS = 8;

  @Override
  public Plan plan(PlanningProblem problem) {
    return new Search(problem).run();
  }

  private static final class Search {
    private final PlanningProblem problem;
    private final PlanAssessor assessor;
    private final Map<String, String> placement = new TreeMap<>();
    private final Map<String, String> unplaced = new TreeMap<>();
    private final Map<String, Integer> databases = new HashMap<>();
    private final Map<String, Long> bytes = new HashMap<>();

    Search(PlanningProblem problem) {
      this.problem = problem;
      this.assessor = new PlanAssessor(problem);
    }

    Plan run() {
      keepLocked();
      placeAll();
      boolean converged = improve();
      return new Plan(
          Map.copyOf(placement), Map.copyOf(unplaced), assessor.assess(placement), converged);
    }

    private void keepLocked() {
      for (GroupLoad load : problem.groups()) {
        String wave = problem.locked().get(load.key());
        if (wave != null) {
          put(load, wave);
        }
      }
    }

    private void placeAll() {
      for (GroupLoad load : inOrder()) {
        String best = best(load);
        if (best == null) {
          unplaced.put(load.key(), whyNowhere(load));
        } else {
          put(load, best);
        }
      }
    }

    private boolean improve() {
      for (int round = 0; round < ROUNDS; round++) {
        boolean moved = false;
        for (GroupLoad load : problem.groups()) {
          String now = placement.get(load.key());
          if (now == null || problem.locked().containsKey(load.key())) {
            continue;
          }
          take(load, now);
          String best = best(load);
          put(load, best == null ? now : best);
          moved |= best != null && !best.equals(now);
        }
        if (!moved) {
          return true;
        }
      }
      return false;
    }

    /** Predecessors of ordered ties first; among the free ones the largest, then by key. */
    private List<GroupLoad> inOrder() {
      List<GroupLoad> waiting =
          new ArrayList<>(
              problem.groups().stream()
                  .filter(load -> !placement.containsKey(load.key()))
                  .sorted(
                      Comparator.comparingInt(GroupLoad::databases)
                          .thenComparingLong(GroupLoad::bytes)
                          .reversed()
                          .thenComparing(GroupLoad::key))
                  .toList());
      List<GroupLoad> ordered = new ArrayList<>();
      Set<String> open = new HashSet<>();
      waiting.forEach(load -> open.add(load.key()));
      while (!waiting.isEmpty()) {
        GroupLoad next =
            waiting.stream()
                .filter(load -> predecessors(load.key()).stream().noneMatch(open::contains))
                .findFirst()
                .orElse(waiting.get(0));
        waiting.remove(next);
        open.remove(next.key());
        ordered.add(next);
      }
      return ordered;
    }

    private List<String> predecessors(String group) {
      return assessor.tiesOf(group).stream()
          .filter(tie -> tie.ordered() && tie.to().equals(group))
          .map(GroupTie::from)
          .toList();
    }

    private @Nullable String best(GroupLoad load) {
      String best = null;
      double least = Double.POSITIVE_INFINITY;
      for (Wave wave : problem.waves()) {
        if (whyNot(load, wave) != null) {
          continue;
        }
        placement.put(load.key(), wave.key());
        double cost = assessor.share(load, placement);
        placement.remove(load.key());
        if (cost < least - 1e-9) {
          least = cost;
          best = wave.key();
        }
      }
      return best;
    }

    private @Nullable String whyNot(GroupLoad load, Wave wave) {
      List<Breach> alone = assessor.alone(wave, load);
      if (!alone.isEmpty()) {
        return alone.get(0).sentence();
      }
      int count = databases.getOrDefault(wave.key(), 0) + load.databases();
      if (count > wave.maxDatabases()) {
        return "%s has room for %d databases.".formatted(wave.key(), wave.maxDatabases());
      }
      if (bytes.getOrDefault(wave.key(), 0L) + load.bytes() > wave.maxBytes()) {
        return "%s has no room for its bytes.".formatted(wave.key());
      }
      placement.put(load.key(), wave.key());
      List<Breach> order = assessor.disorder(load.key(), placement);
      placement.remove(load.key());
      return order.isEmpty() ? null : order.get(0).sentence();
    }

    private String whyNowhere(GroupLoad load) {
      if (problem.waves().stream().noneMatch(Wave::open)) {
        return "No wave is open; add one.";
      }
      StringBuilder why = new StringBuilder("Fits no wave:");
      for (Wave wave : problem.waves()) {
        if (wave.open()) {
          why.append(" ").append(whyNot(load, wave));
        }
      }
      return why.toString();
    }

    private void put(GroupLoad load, String wave) {
      placement.put(load.key(), wave);
      databases.merge(wave, load.databases(), Integer::sum);
      bytes.merge(wave, load.bytes(), Long::sum);
    }

    private void take(GroupLoad load, String wave) {
      placement.remove(load.key());
      databases.merge(wave, -load.databases(), Integer::sum);
      bytes.merge(wave, -load.bytes(), Long::sum);
    }
  }
}

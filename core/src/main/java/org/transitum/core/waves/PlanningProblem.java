package org.transitum.core.waves;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.transitum.core.InvalidValue;
import org.transitum.core.dependencies.MoveGroup;
import org.transitum.core.dependencies.Tie;
import org.transitum.core.dependencies.TieKind;

/**
 * Everything a planner may know.
 *
 * @param waves by start
 * @param groups with their loads, by key
 * @param ties between databases of these groups; bound ones are inside groups already
 * @param locked group key to wave key: placements that stay
 */
public record PlanningProblem(
    List<Wave> waves,
    List<Freeze> freezes,
    List<GroupLoad> groups,
    List<GroupTie> ties,
    Map<String, String> locked) {

  /** A tie seen between two groups. */
  public record GroupTie(String from, String to, boolean ordered, double weight) {}

  public PlanningProblem {
    for (int i = 1; i < waves.size(); i++) {
      if (waves.get(i).start().isBefore(waves.get(i - 1).start())) {
        throw new InvalidValue("The waves must be given in the order of their start.");
      }
    }
  }

  /** Lifts ties between databases to ties between groups; ties inside a group vanish. */
  public static List<GroupTie> between(List<MoveGroup> groups, List<Tie> ties) {
    Map<String, String> groupOf = new TreeMap<>();
    groups.forEach(group -> group.members().forEach(m -> groupOf.put(m, group.key())));
    List<GroupTie> lifted = new ArrayList<>();
    for (Tie tie : ties) {
      String from = groupOf.get(tie.from());
      String to = groupOf.get(tie.to());
      if (from != null && to != null && !from.equals(to)) {
        lifted.add(new GroupTie(from, to, tie.kind() == TieKind.ORDERED, tie.weight()));
      }
    }
    return List.copyOf(lifted);
  }
}

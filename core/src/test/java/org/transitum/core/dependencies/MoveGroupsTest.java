package org.transitum.core.dependencies;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class MoveGroupsTest {

  @Test
  void boundTiesGroupAndOthersDoNot() {
    List<MoveGroup> groups =
        MoveGroups.of(
            List.of("A/1", "A/2", "A/3", "A/4"),
            List.of(
                new Tie("A/2", "A/1", TieKind.BOUND, 1),
                new Tie("A/2", "A/3", TieKind.LOOSE, 1),
                new Tie("A/3", "A/4", TieKind.ORDERED, 1),
                new Tie("A/4", "Z/9", TieKind.BOUND, 1)));
    assertThat(groups)
        .containsExactly(
            new MoveGroup("A/1", List.of("A/1", "A/2")),
            new MoveGroup("A/3", List.of("A/3")),
            new MoveGroup("A/4", List.of("A/4")));
  }

  @Test
  void agreesWithSpreadingLabelsOnRandomGraphs() {
    Random random = new Random(8);
    for (int round = 0; round < 60; round++) {
      List<String> keys = IntStream.range(0, 30).mapToObj(i -> "I/" + (100 + i)).toList();
      List<Tie> ties = new ArrayList<>();
      for (int i = 0; i < random.nextInt(40); i++) {
        ties.add(new Tie(any(keys, random), any(keys, random), TieKind.BOUND, 1));
      }
      Set<Set<String>> found =
          MoveGroups.of(keys, ties).stream()
              .map(group -> (Set<String>) new TreeSet<>(group.members()))
              .collect(Collectors.toSet());
      assertThat(found).isEqualTo(spread(keys, ties));
    }
  }

  private static String any(List<String> keys, Random random) {
    return keys.get(random.nextInt(keys.size()));
  }

  /** Slow and plainly right: merges sets until no tie joins two of them. */
  private static Set<Set<String>> spread(List<String> keys, List<Tie> ties) {
    List<Set<String>> sets = new ArrayList<>();
    keys.forEach(key -> sets.add(new TreeSet<>(Set.of(key))));
    for (Tie tie : ties) {
      Set<String> one = sets.stream().filter(s -> s.contains(tie.from())).findFirst().orElseThrow();
      Set<String> other = sets.stream().filter(s -> s.contains(tie.to())).findFirst().orElseThrow();
      if (one != other) {
        sets.remove(other);
        one.addAll(other);
      }
    }
    return Set.copyOf(sets);
  }
}

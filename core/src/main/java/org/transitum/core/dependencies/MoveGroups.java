package org.transitum.core.dependencies;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;

/** The connected components of bound ties. */
public final class MoveGroups {
  private MoveGroups() {}

  /**
   * Every database is in exactly one group; one without bound ties is a group of its own. Ties to
   * databases that are not listed are left out. O((V + E) log V), ordered by key.
   */
  public static List<MoveGroup> of(Collection<String> databases, Collection<Tie> ties) {
    Map<String, String> parent = new HashMap<>();
    databases.forEach(database -> parent.put(database, database));
    for (Tie tie : ties) {
      if (tie.kind() == TieKind.BOUND
          && parent.containsKey(tie.from())
          && parent.containsKey(tie.to())) {
        parent.put(root(parent, tie.from()), root(parent, tie.to()));
      }
    }
    Map<String, TreeSet<String>> components = new HashMap<>();
    databases.forEach(
        database ->
            components
                .computeIfAbsent(root(parent, database), root -> new TreeSet<>())
                .add(database));
    Map<String, MoveGroup> byKey = new TreeMap<>();
    components
        .values()
        .forEach(
            members ->
                byKey.put(members.first(), new MoveGroup(members.first(), List.copyOf(members))));
    return List.copyOf(byKey.values());
  }

  private static String root(Map<String, String> parent, String database) {
    String at = database;
    while (true) {
      String up = parent.getOrDefault(at, at);
      if (up.equals(at)) {
        return at;
      }
      String above = parent.getOrDefault(up, up);
      parent.put(at, above);
      at = above;
    }
  }
}

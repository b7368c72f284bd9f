package org.transitum.sources.inventory;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What a MariaDB or MySQL account may see. Without the right to it the server shows nothing instead
 * of an error, so that a reader has to know what a count of none means.
 */
final class MariaDbGrants {
  private static final Pattern GRANT =
      Pattern.compile("^GRANT (.+?) ON (?:TABLE )?(\\*|`[^`]*`|\\w+)\\.(\\*|`[^`]*`|\\w+) TO .*$");

  private final Map<String, Set<String>> byScope = new HashMap<>();

  /**
   * @param lines as {@code SHOW GRANTS} gives them
   */
  MariaDbGrants(List<String> lines) {
    for (String line : lines) {
      Matcher grant = GRANT.matcher(line);
      if (grant.matches()) {
        String scope = scope(grant.group(2), grant.group(3));
        Set<String> rights = byScope.computeIfAbsent(scope, key -> new HashSet<>());
        for (String right : grant.group(1).replaceAll("\\([^)]*\\)", "").split(",")) {
          rights.add(right.strip().toUpperCase(Locale.ROOT));
        }
      }
    }
  }

  private static String scope(String schema, String table) {
    String plain = schema.replace("`", "").replace("\\_", "_");
    return table.equals("*") ? plain : plain + "." + table.replace("`", "");
  }

  /** Whether any of these rights holds for a whole schema. */
  boolean has(String schema, String... rights) {
    return holds("*", rights) || holds(schema, rights);
  }

  /** Whether a table may be read. */
  boolean reads(String schema, String table) {
    return has(schema, "SELECT") || holds(schema + "." + table, "SELECT");
  }

  private boolean holds(String scope, String... rights) {
    Set<String> of = byScope.getOrDefault(scope, Set.of());
    for (String right : rights) {
      if (of.contains("ALL PRIVILEGES") || of.contains(right)) {
        return true;
      }
    }
    return false;
  }
}

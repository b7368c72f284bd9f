package org.transitum.sources.inventory;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Which of the two a server is, and what follows from its version.
 *
 * @param number as people write it, such as {@code 10.11.6}
 */
record MariaDbVersion(boolean maria, String number, int major, int minor, int patch) {
  private static final Pattern NUMBERS = Pattern.compile("(\\d+)\\.(\\d+)(?:\\.(\\d+))?.*");

  /** MySQL from here on says replica where it said slave, and from 8.4 on that only. */
  private static final int[] SAYS_REPLICA = {8, 0, 22};

  /**
   * @param version such as {@code 8.0.36-0ubuntu0.22.04.1} or {@code 5.5.5-10.6.17-MariaDB-log}
   * @param comment as the server tells beside it
   */
  static MariaDbVersion of(String version, String comment) {
    boolean maria = (version + comment).toLowerCase(Locale.ROOT).contains("mariadb");
    // what MariaDB put before its own version for old replicas of MySQL
    String plain = version.replaceFirst("^5\\.5\\.5-(?=\\d)", "");
    Matcher numbers = NUMBERS.matcher(plain);
    if (!numbers.matches()) {
      return new MariaDbVersion(maria, plain, 0, 0, 0);
    }
    return new MariaDbVersion(
        maria,
        plain.replaceFirst("-.*$", ""),
        Integer.parseInt(numbers.group(1)),
        Integer.parseInt(numbers.group(2)),
        numbers.group(3) == null ? 0 : Integer.parseInt(numbers.group(3)));
  }

  String engine() {
    return maria ? "MariaDB" : "MySQL";
  }

  /** The statement that tells whom the server follows. */
  String replicaStatus() {
    return !maria && atLeast(SAYS_REPLICA) ? "show replica status" : "show slave status";
  }

  private boolean atLeast(int[] other) {
    int[] own = {major, minor, patch};
    for (int i = 0; i < own.length; i++) {
      if (own[i] != other[i]) {
        return own[i] > other[i];
      }
    }
    return true;
  }
}

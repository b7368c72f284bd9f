package org.transitum.standins;

import java.util.List;

/**
 * A simulated server.
 *
 * @param instance its key in the inventory
 */
public record StandIn(
    String instance,
    String engine,
    String version,
    String edition,
    String host,
    String byteOrder,
    int port,
    String logMode,
    String encoding,
    int roles,
    Trouble trouble,
    List<Database> databases,
    List<Link> links) {

  /**
   * One of its databases.
   *
   * @param sizeMib at the start of 2026, growing by {@code growthMibPerDay}
   * @param transactionsPerSecond mean over a day; the night has a tenth of it
   * @param seen in which readings it is there: always, later (not in the first) or first (only)
   */
  public record Database(
      String name,
      long sizeMib,
      double growthMibPerDay,
      int tables,
      int tablesWithoutKey,
      int views,
      int routines,
      int triggers,
      double transactionsPerSecond,
      Seen seen,
      List<String> features) {}

  public enum Seen {
    ALWAYS,
    LATER,
    FIRST
  }

  /** A pointer from one of its databases to another server's. */
  public record Link(String from, String host, int port, String database, String how) {}
}

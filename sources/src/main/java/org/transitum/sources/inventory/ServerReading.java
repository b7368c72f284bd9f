package org.transitum.sources.inventory;

import java.util.List;
import org.transitum.core.inventory.Reading;

/** What a live server told: its estate objects and the ties seen on it. */
public record ServerReading(Reading reading, List<SeenTie> ties) {

  /**
   * A pointer from one database to another server's database, before anyone knows which database of
   * the estate that is.
   *
   * @param from key of the database it was seen in
   * @param how what was seen, such as {@code foreign table live.alarm_state}; holds no password
   */
  public record SeenTie(String from, String host, int port, String database, String how) {}
}

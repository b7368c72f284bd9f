package org.transitum.sources.inventory;

import java.util.List;
import org.transitum.core.inventory.Reading;

/** What a live server told: its estate objects and the ties seen on it. */
public record ServerReading(Reading reading, List<SeenTie> ties) {
  private static final String SOURCE = "server ";

  /** The name of an instance as a source. */
  public static String source(String instance) {
    return SOURCE + instance;
  }

  /** The instance behind a source that {@link #source} named. */
  public static String instance(String source) {
    return source.startsWith(SOURCE) ? source.substring(SOURCE.length()) : source;
  }

  /**
   * A pointer from one database to another server's database, before anyone knows which database of
   * the estate that is.
   *
   * @param from key of the database it was seen in
   * @param how what was seen, such as {@code foreign table live.alarm_state}; holds no password
   */
  public record SeenTie(String from, String host, int port, String database, String how) {}
}

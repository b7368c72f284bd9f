package org.transitum.core.waves;

import java.time.Instant;

/**
 * A window in which a set of move groups crosses.
 *
 * @param maxDatabases limit of databases, at least 1
 * @param maxBytes limit of bytes to copy, above 0
 * @param open whether the planner may still place groups here; false once it has begun
 */
public record Wave(
    String key, Instant start, Instant end, int maxDatabases, long maxBytes, boolean open) {

  public long windowMinutes() {
    return java.time.Duration.between(start, end).toMinutes();
  }
}

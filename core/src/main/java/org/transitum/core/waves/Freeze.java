package org.transitum.core.waves;

import java.time.Instant;

/** A period in which nothing may cross: [start, end). */
public record Freeze(Instant start, Instant end, String reason) {
  public boolean touches(Instant from, Instant to) {
    return start.isBefore(to) && from.isBefore(end);
  }
}

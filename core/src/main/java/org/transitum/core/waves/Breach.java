package org.transitum.core.waves;

/**
 * A hard limit that a placement breaks.
 *
 * @param wave where
 * @param group whose placement is concerned; the wave's key where it is the wave as a whole
 * @param sentence what breaks, with its numbers
 */
public record Breach(Limit limit, String wave, String group, String sentence) {
  public enum Limit {
    DATABASES,
    BYTES,
    WINDOW,
    PERMITTED_OUTAGE,
    FREEZE,
    ORDER,
    CLOSED
  }
}

package org.transitum.server.problems;

import org.transitum.core.InvalidValue;

/** Reads the version that an edit was made on from its If-Match header. */
public final class Versions {
  private Versions() {}

  /** Accepts {@code 3} and {@code "3"}. */
  public static long of(String ifMatch) {
    try {
      return Long.parseLong(ifMatch.replace("\"", "").strip());
    } catch (NumberFormatException e) {
      throw new InvalidValue(
          "If-Match must carry the version that the edit was made on, not \"%s\"."
              .formatted(ifMatch));
    }
  }
}

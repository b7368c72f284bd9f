package org.transitum.core.crossings;

import java.util.Locale;

/** What a crossing may be beside its stage. */
public enum Condition {
  RUNNING,
  /** Something failed; it goes on from the same stage once that is mended. */
  STALLED,
  /** Ended by a person before the switch; the source was never left. */
  STOPPED,
  /** Fell back to the source after the switch had begun. */
  REVERTED;

  public String words() {
    return name().toLowerCase(Locale.ROOT);
  }

  public boolean ended() {
    return this == STOPPED || this == REVERTED;
  }
}

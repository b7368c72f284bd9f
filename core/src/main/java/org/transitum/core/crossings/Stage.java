package org.transitum.core.crossings;

import java.util.Locale;

/** Where a crossing stands on its route. */
public enum Stage {
  SETTING_UP,
  COPYING,
  FOLLOWING,
  HELD,
  SWITCHING,
  PROVING,
  DONE;

  /** As in a sentence: {@code setting up}. */
  public String words() {
    return name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }
}

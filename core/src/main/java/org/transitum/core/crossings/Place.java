package org.transitum.core.crossings;

import java.util.Locale;

/** A database's place in the programme. */
public enum Place {
  OUT_OF_SCOPE,
  UNPLANNED,
  PLANNED,
  PREPARED,
  CROSSING,
  LANDED,
  SETTLED,
  RETIRED;

  public String words() {
    return name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }

  /**
   * The place that follows from what is known.
   *
   * @param inScope whether the database is to move at all
   * @param placed whether it is in a wave
   * @param prepared whether an engineer marked it prepared
   * @param crossingOpen whether a real crossing runs
   * @param crossingDone whether a real crossing is done
   * @param settled whether the lead marked it settled after its crossing
   * @param retired whether its source was retired
   */
  public static Place of(
      boolean inScope,
      boolean placed,
      boolean prepared,
      boolean crossingOpen,
      boolean crossingDone,
      boolean settled,
      boolean retired) {
    if (retired) {
      return RETIRED;
    }
    if (crossingOpen) {
      return CROSSING;
    }
    if (crossingDone) {
      return settled ? SETTLED : LANDED;
    }
    if (!inScope) {
      return OUT_OF_SCOPE;
    }
    if (!placed) {
      return UNPLANNED;
    }
    return prepared ? PREPARED : PLANNED;
  }
}

package org.transitum.core.crossings;

import static org.transitum.core.crossings.Stage.COPYING;
import static org.transitum.core.crossings.Stage.DONE;
import static org.transitum.core.crossings.Stage.FOLLOWING;
import static org.transitum.core.crossings.Stage.HELD;
import static org.transitum.core.crossings.Stage.PROVING;
import static org.transitum.core.crossings.Stage.SETTING_UP;
import static org.transitum.core.crossings.Stage.SWITCHING;

import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/**
 * The legal moves of a crossing, one line each: from which stages, in which condition, to which
 * stage and condition, and whether a reason is asked for. What is not listed is refused.
 */
public enum Move {
  COPY(EnumSet.of(SETTING_UP), Condition.RUNNING, COPYING, Condition.RUNNING, false),
  FOLLOW(EnumSet.of(COPYING), Condition.RUNNING, FOLLOWING, Condition.RUNNING, false),
  HOLD(EnumSet.of(FOLLOWING), Condition.RUNNING, HELD, Condition.RUNNING, true),
  GO_ON(EnumSet.of(HELD), Condition.RUNNING, FOLLOWING, Condition.RUNNING, false),
  SWITCH(EnumSet.of(FOLLOWING, HELD), Condition.RUNNING, SWITCHING, Condition.RUNNING, false),
  PROVE(EnumSet.of(SWITCHING), Condition.RUNNING, PROVING, Condition.RUNNING, false),
  FINISH(EnumSet.of(PROVING), Condition.RUNNING, DONE, Condition.RUNNING, false),
  STALL(
      EnumSet.of(SETTING_UP, COPYING, FOLLOWING, SWITCHING, PROVING),
      Condition.RUNNING,
      null,
      Condition.STALLED,
      true),
  RETRY(
      EnumSet.of(SETTING_UP, COPYING, FOLLOWING, SWITCHING, PROVING),
      Condition.STALLED,
      null,
      Condition.RUNNING,
      false),
  STOP(EnumSet.of(SETTING_UP, COPYING, FOLLOWING, HELD), null, null, Condition.STOPPED, true),
  REVERT(EnumSet.of(SWITCHING, PROVING), null, null, Condition.REVERTED, true);

  private final Set<Stage> from;
  private final @Nullable Condition when;
  private final @Nullable Stage to;
  private final Condition then;
  private final boolean reasonAsked;

  Move(
      Set<Stage> from,
      @Nullable Condition when,
      @Nullable Stage to,
      Condition then,
      boolean reasonAsked) {
    this.from = from;
    this.when = when;
    this.to = to;
    this.then = then;
    this.reasonAsked = reasonAsked;
  }

  public boolean reasonAsked() {
    return reasonAsked;
  }

  public boolean legalFrom(Stage stage, Condition condition) {
    boolean live = condition == Condition.RUNNING || condition == Condition.STALLED;
    return from.contains(stage) && (when == null ? live : when == condition);
  }

  Stage target(Stage stage) {
    return to == null ? stage : to;
  }

  Condition then() {
    return then;
  }

  public String words() {
    return name().toLowerCase(Locale.ROOT).replace('_', ' ');
  }
}

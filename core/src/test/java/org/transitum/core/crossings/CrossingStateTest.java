package org.transitum.core.crossings;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.Test;

class CrossingStateTest {
  private static final CrossingState FRESH =
      new CrossingState("X-0001", Stage.SETTING_UP, Condition.RUNNING, 0, null, null, true);

  private static CrossingState at(Stage stage, Long lag) {
    return new CrossingState("X-0001", stage, Condition.RUNNING, 1, lag, null, true);
  }

  @Test
  void goesTheWholeWay() {
    CrossingState copied =
        new CrossingState("X-0001", Stage.COPYING, Condition.RUNNING, 1, null, null, true);
    assertThat(FRESH.after(Move.COPY, null).stage()).isEqualTo(Stage.COPYING);
    assertThat(copied.after(Move.FOLLOW, null).stage()).isEqualTo(Stage.FOLLOWING);
    CrossingState proving =
        at(Stage.FOLLOWING, 0L)
            .after(Move.HOLD, "test")
            .after(Move.SWITCH, null)
            .after(Move.PROVE, null);
    assertThat(proving.after(Move.FINISH, null).open()).isFalse();
  }

  @Test
  void nobodySwitchesWhileTheTargetIsBehind() {
    assertThatThrownBy(() -> at(Stage.FOLLOWING, 41L).after(Move.SWITCH, null))
        .isInstanceOf(MoveRefused.class)
        .hasMessageContaining("41 s behind");
    assertThatThrownBy(() -> at(Stage.FOLLOWING, null).after(Move.SWITCH, null))
        .hasMessageContaining("lag is unknown");
    assertThat(at(Stage.FOLLOWING, 41L).legalMoves()).doesNotContain(Move.SWITCH);
  }

  @Test
  void copyingNeedsSomebodyWhoAnswersForIt() {
    CrossingState nobody =
        new CrossingState("X-0001", Stage.SETTING_UP, Condition.RUNNING, 0, null, null, false);
    assertThatThrownBy(() -> nobody.after(Move.COPY, null)).hasMessageContaining("assign");
  }

  @Test
  void anIllegalMoveSaysWhatIsLegal() {
    assertThatThrownBy(() -> FRESH.after(Move.PROVE, null))
        .hasMessageContaining("X-0001 is setting up and cannot prove; it can copy, stall, stop");
  }

  @Test
  void interruptionsNeedAReasonAndAStallGoesOnWhereItStopped() {
    assertThatThrownBy(() -> FRESH.after(Move.STALL, " ")).hasMessageContaining("reason");
    CrossingState stalled = FRESH.after(Move.STALL, "disk full");
    assertThat(stalled.reason()).isEqualTo("disk full");
    assertThat(stalled.legalMoves()).containsExactly(Move.RETRY, Move.STOP);
    CrossingState again = stalled.after(Move.RETRY, null);
    assertThat(again.stage()).isEqualTo(Stage.SETTING_UP);
    assertThat(again.reason()).isNull();
  }

  @Test
  void stoppingIsForBeforeTheSwitchAndFallingBackForAfterIt() {
    assertThat(at(Stage.FOLLOWING, 0L).legalMoves())
        .contains(Move.STOP)
        .doesNotContain(Move.REVERT);
    assertThat(at(Stage.PROVING, 0L).legalMoves()).contains(Move.REVERT).doesNotContain(Move.STOP);
    assertThat(at(Stage.DONE, 0L).legalMoves()).isEmpty();
    assertThat(at(Stage.PROVING, 0L).after(Move.REVERT, "checksum differs").legalMoves()).isEmpty();
  }

  @Test
  void thePlaceFollowsFromWhatIsKnown() {
    assertThat(Place.of(true, false, false, false, false, false, false)).isEqualTo(Place.UNPLANNED);
    assertThat(Place.of(true, true, true, false, false, false, false)).isEqualTo(Place.PREPARED);
    assertThat(Place.of(true, true, true, true, false, false, false)).isEqualTo(Place.CROSSING);
    assertThat(Place.of(true, true, true, false, true, true, false)).isEqualTo(Place.SETTLED);
    assertThat(Place.of(false, false, false, false, false, false, false))
        .isEqualTo(Place.OUT_OF_SCOPE);
  }
}

package org.transitum.core.crossings;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashSet;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What holds for every state that a crossing can reach. */
class MovesTest {

  private static CrossingState state(Stage stage, Condition condition) {
    return new CrossingState("X-0001", stage, condition, 1, 0L, null, true);
  }

  private static Set<CrossingState> reachable() {
    Set<CrossingState> seen = new HashSet<>();
    Deque<CrossingState> open = new ArrayDeque<>();
    open.add(state(Stage.SETTING_UP, Condition.RUNNING));
    while (!open.isEmpty()) {
      CrossingState at = open.poll();
      if (seen.add(at)) {
        at.legalMoves().forEach(move -> open.add(at.after(move, "for a reason")));
      }
    }
    return seen;
  }

  @Test
  void everyMoveThatIsOfferedIsTakenAndEveryOtherIsRefused() {
    for (CrossingState at : reachable()) {
      for (Move move : Move.values()) {
        if (at.legalMoves().contains(move)) {
          assertThat(at.after(move, "why").key()).isEqualTo("X-0001");
        } else {
          assertThatThrownBy(() -> at.after(move, "why"))
              .isInstanceOf(MoveRefused.class)
              .hasMessageContaining("X-0001");
        }
      }
    }
  }

  @Test
  void everyStageIsReachedAndEveryOpenStateHasAWayOn() {
    Set<CrossingState> all = reachable();
    assertThat(all).extracting(CrossingState::stage).contains(Stage.values());
    assertThat(all).extracting(CrossingState::condition).contains(Condition.values());
    for (CrossingState at : all) {
      assertThat(at.legalMoves().isEmpty()).as(at.toString()).isEqualTo(!at.open());
    }
  }

  @Test
  void beforeTheSwitchACrossingStopsAndAfterItReverts() {
    for (CrossingState at : reachable()) {
      if (at.open()) {
        boolean switched = at.stage() == Stage.SWITCHING || at.stage() == Stage.PROVING;
        assertThat(at.legalMoves().contains(Move.STOP)).as(at.toString()).isEqualTo(!switched);
        assertThat(at.legalMoves().contains(Move.REVERT)).as(at.toString()).isEqualTo(switched);
      }
    }
  }

  @ParameterizedTest
  @CsvSource({
    // in scope, placed, prepared, crossing, done, settled, retired
    "false, false, false, false, false, false, false, OUT_OF_SCOPE",
    "true, false, false, false, false, false, false, UNPLANNED",
    "true, true, false, false, false, false, false, PLANNED",
    "true, true, true, false, false, false, false, PREPARED",
    "true, true, true, true, false, false, false, CROSSING",
    "true, true, true, false, true, false, false, LANDED",
    "true, true, true, false, true, true, false, SETTLED",
    "true, true, true, false, true, true, true, RETIRED",
    "false, true, true, true, false, false, false, CROSSING",
    "false, true, true, false, true, false, false, LANDED"
  })
  void aPlaceFollowsFromWhatIsKnown(
      boolean inScope,
      boolean placed,
      boolean prepared,
      boolean crossing,
      boolean done,
      boolean settled,
      boolean retired,
      Place place) {
    assertThat(Place.of(inScope, placed, prepared, crossing, done, settled, retired))
        .isEqualTo(place);
  }
}

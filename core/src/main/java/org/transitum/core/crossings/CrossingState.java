package org.transitum.core.crossings;

import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What a crossing's moves depend on and change.
 *
 * @param progress share of the copy done, 0 to 1
 * @param lagSeconds how far the target is behind; null where not reported yet
 * @param reason why it is held, stalled, stopped or reverted; null otherwise
 * @param ownerAssigned whether somebody answers for it
 */
public record CrossingState(
    String key,
    Stage stage,
    Condition condition,
    double progress,
    @Nullable Long lagSeconds,
    @Nullable String reason,
    boolean ownerAssigned) {

  public boolean open() {
    return stage != Stage.DONE && !condition.ended();
  }

  /** The moves that are legal now, in the order of {@link Move}. */
  public List<Move> legalMoves() {
    return Arrays.stream(Move.values())
        .filter(move -> move.legalFrom(stage, condition) && objection(move) == null)
        .toList();
  }

  /**
   * The state after a move.
   *
   * @param why the reason given; asked for by moves that interrupt
   * @throws MoveRefused when the move is not legal now, saying why and what is
   */
  public CrossingState after(Move move, @Nullable String why) {
    if (!move.legalFrom(stage, condition)) {
      throw new MoveRefused(
          "%s is %s%s and cannot %s; it can %s."
              .formatted(
                  key,
                  stage.words(),
                  condition == Condition.RUNNING ? "" : ", " + condition.words(),
                  move.words(),
                  options()));
    }
    String objection = objection(move);
    if (objection != null) {
      throw new MoveRefused("%s cannot %s: %s".formatted(key, move.words(), objection));
    }
    if (move.reasonAsked() && (why == null || why.isBlank())) {
      throw new MoveRefused("To %s %s, give the reason.".formatted(move.words(), key));
    }
    return new CrossingState(
        key,
        move.target(stage),
        move.then(),
        move == Move.FOLLOW ? 1 : progress,
        lagSeconds,
        move.reasonAsked() && why != null ? why.strip() : null,
        ownerAssigned);
  }

  private @Nullable String objection(Move move) {
    if (move == Move.COPY && !ownerAssigned) {
      return "nobody is assigned; assign an owner first.";
    }
    if (move == Move.FOLLOW && progress < 1) {
      return "the copy stands at %.0f%%; report it whole first.".formatted(progress * 100);
    }
    if (move == Move.SWITCH && (lagSeconds == null || lagSeconds > 0)) {
      return lagSeconds == null
          ? "its lag is unknown; report it first."
          : "it is still %d s behind the source.".formatted(lagSeconds);
    }
    return null;
  }

  private String options() {
    List<Move> moves = legalMoves();
    return moves.isEmpty()
        ? "do nothing more"
        : String.join(", ", moves.stream().map(Move::words).toList());
  }
}

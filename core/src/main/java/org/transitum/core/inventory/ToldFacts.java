package org.transitum.core.inventory;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * What each source last told of one attribute, and which of it counts.
 *
 * <p>The rule: a value that a person pinned counts first; else what was observed on a server; else
 * the latest of what people and files say. Among several of the same rank the one that was told
 * last counts. Told again unchanged is not told later, so that reading an old file twice turns
 * nothing round.
 *
 * @param bySource the last fact of each source; all that people state is one source
 */
public record ToldFacts(Attribute attribute, List<Fact> bySource) {

  /** Sizes that differ by no more than this share of the larger are the same size. */
  private static final double SAME_SIZE = 0.1;

  private static final Comparator<Fact> RULE =
      Comparator.comparing(Fact::pinned)
          .thenComparing(fact -> fact.origin() == Origin.OBSERVED)
          .thenComparing(Fact::at)
          .thenComparingLong(Fact::id);

  /** The fact that counts; empty where nobody has told. */
  public Optional<Fact> counting() {
    return bySource.stream().max(RULE);
  }

  /** The fact that would count if {@code next} were its source's last. */
  public Fact countingWith(Fact next) {
    return bySource.stream()
        .filter(fact -> !fact.sameSource(next))
        .filter(fact -> RULE.compare(fact, next) > 0)
        .max(RULE)
        .orElse(next);
  }

  /** What the source of {@code next} told last; null where it never told. */
  public @Nullable Fact lastOf(Fact next) {
    return bySource.stream().filter(fact -> fact.sameSource(next)).findFirst().orElse(null);
  }

  /**
   * Whether sources disagree and nobody has settled it by pinning. Sizes within a tenth of each
   * other agree, as they grow while lists are written.
   */
  public boolean contradict() {
    Fact counts = counting().orElse(null);
    return counts != null
        && !counts.pinned()
        && bySource.stream().anyMatch(fact -> !agrees(fact.value(), counts.value()));
  }

  /** Whether no source has told the counting value since {@code limit}; a pinned one never is. */
  boolean staleSince(Instant limit) {
    Fact counts = counting().orElse(null);
    return counts != null
        && !counts.pinned()
        && bySource.stream()
            .filter(fact -> agrees(fact.value(), counts.value()))
            .allMatch(fact -> fact.seenAt().isBefore(limit));
  }

  private boolean agrees(String one, String other) {
    if (one.equals(other)) {
      return true;
    }
    if (attribute.type() != AttributeType.BYTES) {
      return one.equalsIgnoreCase(other);
    }
    double a = Double.parseDouble(one);
    double b = Double.parseDouble(other);
    return Math.abs(a - b) <= SAME_SIZE * Math.max(a, b);
  }
}

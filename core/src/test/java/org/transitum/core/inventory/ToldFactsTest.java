package org.transitum.core.inventory;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;

class ToldFactsTest {
  private static final Instant AT = Instant.parse("2026-11-24T12:00:00Z");

  private static Fact fact(long id, String value, Origin origin, boolean pinned, int day) {
    Instant at = AT.plus(Duration.ofDays(day));
    return new Fact(id, value, origin, origin + " " + id, "", at, at, pinned);
  }

  private static ToldFacts told(Attribute attribute, Fact... facts) {
    return new ToldFacts(attribute, List.of(facts));
  }

  @Test
  void pinnedBeforeObservedBeforeTheLatestOfTheRest() {
    Fact imported = fact(1, "a", Origin.IMPORTED, false, 9);
    Fact stated = fact(2, "b", Origin.STATED, false, 8);
    Fact observed = fact(3, "c", Origin.OBSERVED, false, 0);
    Fact pinned = fact(4, "d", Origin.STATED, true, -5);
    assertThat(told(Attribute.OWNER).counting()).isEmpty();
    assertThat(told(Attribute.OWNER, stated, imported).counting()).contains(imported);
    assertThat(told(Attribute.OWNER, imported, observed, stated).counting()).contains(observed);
    assertThat(told(Attribute.OWNER, observed, imported, pinned).counting()).contains(pinned);
  }

  @Test
  void theOrderInWhichFactsAreHeldDoesNotMatter() {
    Random random = new Random(4);
    for (int round = 0; round < 200; round++) {
      List<Fact> facts = new ArrayList<>();
      for (int i = 0; i < 5; i++) {
        facts.add(
            fact(
                i,
                "v" + random.nextInt(3),
                Origin.values()[random.nextInt(3)],
                random.nextInt(6) == 0,
                random.nextInt(3)));
      }
      Fact counts = new ToldFacts(Attribute.OWNER, facts).counting().orElseThrow();
      Collections.shuffle(facts, random);
      assertThat(new ToldFacts(Attribute.OWNER, List.copyOf(facts)).counting()).contains(counts);
    }
  }

  @Test
  void whatWouldCountIsWhatCountsOnceItIsTold() {
    Random random = new Random(5);
    for (int round = 0; round < 200; round++) {
      Fact one = fact(1, "a", Origin.values()[random.nextInt(3)], random.nextBoolean(), 0);
      Fact next = fact(2, "b", Origin.values()[random.nextInt(2)], false, random.nextInt(3));
      ToldFacts before = told(Attribute.OWNER, one);
      assertThat(before.countingWith(next))
          .isEqualTo(told(Attribute.OWNER, one, next).counting().orElseThrow());
    }
  }

  @Test
  void sourcesThatDisagreeContradictUntilSomebodyPins() {
    Fact one = fact(1, "Ann", Origin.IMPORTED, false, 0);
    Fact other = fact(2, "Bo", Origin.IMPORTED, false, 1);
    assertThat(told(Attribute.OWNER, one, other).contradict()).isTrue();
    assertThat(told(Attribute.OWNER, one, fact(2, "ANN", Origin.IMPORTED, false, 1)).contradict())
        .isFalse();
    assertThat(
            told(Attribute.OWNER, one, other, fact(3, "Cy", Origin.STATED, true, 2)).contradict())
        .isFalse();
  }

  @Test
  void sizesWithinATenthAgree() {
    Fact seen = fact(1, "1000", Origin.OBSERVED, false, 0);
    assertThat(
            told(Attribute.SIZE_BYTES, seen, fact(2, "1099", Origin.IMPORTED, false, 1))
                .contradict())
        .isFalse();
    assertThat(
            told(Attribute.SIZE_BYTES, seen, fact(2, "1200", Origin.IMPORTED, false, 1))
                .contradict())
        .isTrue();
  }

  @Test
  void aFactIsStaleUntilAnySourceTellsItAgain() {
    Fact old = fact(1, "5", Origin.IMPORTED, false, -60);
    EstateObject stale =
        EstateObject.of(
            ObjectKind.DATABASE,
            "A/b",
            Map.of(Attribute.TABLES, told(Attribute.TABLES, old)),
            Set.of(),
            false);
    assertThat(stale.stale(AT.minus(Duration.ofDays(30)))).containsExactly(Attribute.TABLES);
    assertThat(stale.stale(AT.minus(Duration.ofDays(90)))).isEmpty();
    ToldFacts again = told(Attribute.TABLES, old, fact(2, "5", Origin.IMPORTED, false, -2));
    assertThat(again.staleSince(AT.minus(Duration.ofDays(30)))).isFalse();
    assertThat(
            told(Attribute.TABLES, fact(3, "5", Origin.STATED, true, -400))
                .staleSince(AT.minus(Duration.ofDays(30))))
        .as("pinned")
        .isFalse();
  }
}

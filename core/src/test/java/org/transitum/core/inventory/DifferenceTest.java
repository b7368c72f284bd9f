package org.transitum.core.inventory;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.transitum.core.inventory.Difference.Change;
import org.transitum.core.inventory.Difference.Type;
import org.transitum.core.inventory.Reading.ReadObject;

class DifferenceTest {
  private static final Instant AT = Instant.parse("2026-11-24T12:00:00Z");

  private static EstateObject known(String key, String size, boolean pinned, boolean gone) {
    Fact fact = new Fact(size, Origin.IMPORTED, "list.csv", "row 2", AT, pinned);
    return new EstateObject(
        ObjectKind.DATABASE, key, Map.of(Attribute.SIZE_BYTES, fact), Set.of("list.csv"), gone);
  }

  private static Reading reading(List<String> unread, ReadObject... objects) {
    return new Reading("list.csv", Origin.IMPORTED, AT, List.of(objects), unread);
  }

  private static ReadObject read(String key, String size) {
    return new ReadObject(ObjectKind.DATABASE, key, "row 7", Map.of(Attribute.SIZE_BYTES, size));
  }

  @Test
  void readingTheSameAgainChangesNothing() {
    Difference difference =
        Difference.between(
            List.of(known("A/one", "5", false, false)), reading(List.of(), read("A/one", "5")));
    assertThat(difference.changes()).isEmpty();
  }

  @Test
  void tellsNewChangedAndGoneApart() {
    Difference difference =
        Difference.between(
            List.of(known("A/one", "5", false, false), known("A/two", "5", false, false)),
            reading(List.of(), read("A/one", "6"), read("A/three", "1")));
    assertThat(difference.changes())
        .extracting(Change::type, Change::key)
        .containsExactly(
            org.assertj.core.groups.Tuple.tuple(Type.CHANGED, "A/one"),
            org.assertj.core.groups.Tuple.tuple(Type.NEW, "A/three"),
            org.assertj.core.groups.Tuple.tuple(Type.GONE, "A/two"));
    assertThat(difference.changes().get(0).attributes().get(0).before().value()).isEqualTo("5");
  }

  @Test
  void aPinnedFactStays() {
    Difference difference =
        Difference.between(
            List.of(known("A/one", "5", true, false)), reading(List.of(), read("A/one", "6")));
    assertThat(difference.changes()).isEmpty();
  }

  @Test
  void whatCouldNotBeReadIsNotGone() {
    Difference difference =
        Difference.between(
            List.of(known("A/one", "5", false, false)), reading(List.of("A/one: refused")));
    assertThat(difference.count(Type.GONE)).isZero();
  }

  @Test
  void whatCameBackIsNewAgain() {
    Difference difference =
        Difference.between(
            List.of(known("A/one", "5", false, true)), reading(List.of(), read("A/one", "5")));
    assertThat(difference.changes()).extracting(Change::type).containsExactly(Type.NEW);
  }
}

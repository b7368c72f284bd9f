package org.transitum.core.inventory;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.transitum.core.inventory.Difference.AttributeChange;
import org.transitum.core.inventory.Difference.Change;
import org.transitum.core.inventory.Difference.Type;
import org.transitum.core.inventory.Reading.ReadObject;

class DifferenceTest {
  private static final Instant AT = Instant.parse("2026-11-24T12:00:00Z");

  private static Fact fact(String value, Origin origin, String source, boolean pinned) {
    return new Fact(1, value, origin, source, "row 2", AT, AT, pinned);
  }

  private static EstateObject known(String key, boolean gone, Fact... told) {
    return EstateObject.of(
        ObjectKind.DATABASE,
        key,
        Map.of(Attribute.SIZE_BYTES, new ToldFacts(Attribute.SIZE_BYTES, List.of(told))),
        Set.of("list.csv"),
        gone);
  }

  private static EstateObject known(String key, String size, boolean pinned, boolean gone) {
    return known(
        key, gone, fact(size, pinned ? Origin.STATED : Origin.IMPORTED, "list.csv", pinned));
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
            tuple(Type.CHANGED, "A/one"), tuple(Type.NEW, "A/three"), tuple(Type.GONE, "A/two"));
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
  void whatAServerShowedStaysAndTheFilesValueIsKeptBeside() {
    EstateObject seen = known("A/one", false, fact("5", Origin.OBSERVED, "server A", false));
    ReadObject both =
        new ReadObject(
            ObjectKind.DATABASE,
            "A/one",
            "row 7",
            Map.of(Attribute.SIZE_BYTES, "900", Attribute.ENCODING, "UTF8"));
    Change change = Difference.between(List.of(seen), reading(List.of(), both)).changes().get(0);
    assertThat(change.attributes())
        .extracting(AttributeChange::attribute, AttributeChange::kept)
        .containsExactly(tuple(Attribute.SIZE_BYTES, true), tuple(Attribute.ENCODING, false));
  }

  @Test
  void anOldFileReadTwiceTurnsNothingRound() {
    EstateObject object =
        known(
            "A/one",
            false,
            new Fact(1, "5", Origin.IMPORTED, "list.csv", "", AT, AT, false),
            new Fact(2, "6", Origin.IMPORTED, "other.csv", "", AT.plusSeconds(9), AT, false));
    assertThat(object.value(Attribute.SIZE_BYTES)).contains("6");
    assertThat(
            Difference.between(List.of(object), reading(List.of(), read("A/one", "5"))).changes())
        .isEmpty();
  }

  @Test
  void aLikeDatabaseIsProposedAndNotMerged() {
    EstateObject known = known("HEAD-PG-03/telemetry", "5000", false, false);
    Change change =
        Difference.between(
                List.of(known),
                reading(List.of(), read("head_pg03.fennmark.example/Telemetry", "900")))
            .changes()
            .get(0);
    assertThat(change.type()).isEqualTo(Type.NEW);
    assertThat(change.doubt().key()).isEqualTo("HEAD-PG-03/telemetry");
    assertThat(change.doubt().why()).contains("like names");
  }

  @Test
  void theSameNameElsewhereIsDoubtfulOnlyWithTheSameSize() {
    EstateObject known = known("A/orders", "1000000", false, false);
    Difference near =
        Difference.between(List.of(known), reading(List.of(), read("B/orders", "1004000")));
    Difference far =
        Difference.between(List.of(known), reading(List.of(), read("B/orders", "1300000")));
    assertThat(near.doubtful()).isEqualTo(1);
    assertThat(near.changes().get(0).doubt().why()).contains("same size");
    assertThat(far.doubtful()).isZero();
  }

  @Test
  void anInstanceAtAKnownAddressIsDoubtful() {
    EstateObject known =
        EstateObject.of(
            ObjectKind.INSTANCE,
            "HEAD-PG-01",
            Map.of(
                Attribute.HOST_NAME,
                new ToldFacts(
                    Attribute.HOST_NAME, List.of(fact("db1", Origin.IMPORTED, "s.csv", false))),
                Attribute.PORT,
                new ToldFacts(Attribute.PORT, List.of(fact("5432", Origin.IMPORTED, "s", false)))),
            Set.of(),
            false);
    ReadObject read =
        new ReadObject(
            ObjectKind.INSTANCE,
            "billing-main",
            "row 3",
            Map.of(Attribute.HOST_NAME, "db1", Attribute.PORT, "5432"));
    assertThat(
            Difference.between(List.of(known), reading(List.of(), read))
                .changes()
                .get(0)
                .doubt()
                .why())
        .isEqualTo("both are at db1:5432");
  }

  @Test
  void anotherNameOnceSaidHoldsForTheInstancesDatabases() {
    Aliases aliases =
        new Aliases(Map.of())
            .with(ObjectKind.INSTANCE, "billing-main", "A")
            .with(ObjectKind.DATABASE, "Z/uno", "A/one");
    Reading renamed =
        aliases.applyTo(reading(List.of(), read("billing-main/two", "5"), read("Z/uno", "6")));
    assertThat(renamed.objects()).extracting(ReadObject::key).containsExactly("A/two", "A/one");
    Reading joined = aliases.applyTo(reading(List.of(), read("A/one", "5"), read("Z/uno", "6")));
    assertThat(joined.objects()).hasSize(1);
    assertThat(joined.objects().get(0).values()).containsEntry(Attribute.SIZE_BYTES, "5");
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

package org.transitum.core.inventory;

import java.time.Instant;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * One object of the estate as it stands.
 *
 * @param told what each source last told, per attribute
 * @param facts the fact that counts, per attribute; follows from {@code told}
 * @param sources every source that has ever told of this object
 * @param gone whether an accepted reading no longer found it
 */
public record EstateObject(
    ObjectKind kind,
    String key,
    Map<Attribute, ToldFacts> told,
    Map<Attribute, Fact> facts,
    Set<String> sources,
    boolean gone) {

  public static EstateObject of(
      ObjectKind kind,
      String key,
      Map<Attribute, ToldFacts> told,
      Set<String> sources,
      boolean gone) {
    Map<Attribute, Fact> facts = new EnumMap<>(Attribute.class);
    told.forEach((attribute, all) -> all.counting().ifPresent(fact -> facts.put(attribute, fact)));
    return new EstateObject(kind, key, told, facts, sources, gone);
  }

  public Optional<String> value(Attribute attribute) {
    return Optional.ofNullable(facts.get(attribute)).map(Fact::value);
  }

  /** The value of a whole-number attribute; empty where unknown. */
  public Optional<Long> number(Attribute attribute) {
    return value(attribute).map(Long::valueOf);
  }

  public Optional<Double> decimal(Attribute attribute) {
    return value(attribute).map(Double::valueOf);
  }

  /** Attributes of which sources tell different values and nobody has settled which is right. */
  public List<Attribute> contradicted() {
    return told.values().stream()
        .filter(ToldFacts::contradict)
        .map(ToldFacts::attribute)
        .sorted()
        .toList();
  }

  /** Attributes whose counting value no source has told since {@code limit}; pinned ones stay. */
  public List<Attribute> stale(Instant limit) {
    return told.values().stream()
        .filter(all -> all.staleSince(limit))
        .map(ToldFacts::attribute)
        .sorted()
        .toList();
  }
}

package org.transitum.core.inventory;

import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * One object of the estate as it stands.
 *
 * @param facts the fact that counts, per attribute
 * @param sources every source that has ever told of this object
 * @param gone whether an accepted reading no longer found it
 */
public record EstateObject(
    ObjectKind kind, String key, Map<Attribute, Fact> facts, Set<String> sources, boolean gone) {

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
}

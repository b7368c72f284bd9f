package org.transitum.core.sizing;

import java.util.Map;

/** What a database needs in every dimension, and how far that can be trusted. */
public record Demand(Map<Dimension, DemandValue> values, Confidence confidence) {

  public DemandValue in(Dimension dimension) {
    DemandValue value = values.get(dimension);
    if (value == null) {
      throw new IllegalStateException("no demand for " + dimension);
    }
    return value;
  }
}

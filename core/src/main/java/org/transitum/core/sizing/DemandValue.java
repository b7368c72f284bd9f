package org.transitum.core.sizing;

import org.jspecify.annotations.Nullable;

/**
 * What a database needs in one dimension, or why that is unknown.
 *
 * @param measured the percentile on the source in the source's own unit; null where unknown
 * @param needed what the target must give, in the dimension's unit; null where unknown
 * @param reason how the number came about, or what to collect to know it
 */
public record DemandValue(
    Dimension dimension, @Nullable Double measured, @Nullable Double needed, String reason) {

  public boolean known() {
    return needed != null;
  }
}

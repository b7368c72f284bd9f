package org.transitum.core.sizing;

import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.jspecify.annotations.Nullable;

/**
 * What sizing needs to know of a database on its source.
 *
 * @param engine label as in the catalogue's kinds, such as {@code PostgreSQL}; null where unknown
 * @param cpuIndex speed of a source core against the reference; null counts as 1
 * @param cacheBytes the instance's configured cache; null where unknown
 * @param databasesOnInstance how many databases share that cache, at least 1
 * @param sizeBytes the size the inventory tells; null where unknown
 * @param growthPercentPerYear the growth the inventory tells; null where unknown
 * @param series what was measured, per dimension
 */
public record SourceProfile(
    String key,
    @Nullable String engine,
    @Nullable Double cpuIndex,
    @Nullable Long cacheBytes,
    int databasesOnInstance,
    @Nullable Long sizeBytes,
    @Nullable Double growthPercentPerYear,
    Map<Dimension, Quantiles> series,
    Optional<SizeTrend> sizeTrend,
    Confidence confidence) {

  /** Quantiles of one aligned series; exact or sketched. */
  public interface Quantiles {
    /** Percentile of the look-back's buckets; empty where there is none. */
    OptionalDouble percentile(double percent);
  }

  /**
   * Size over time.
   *
   * @param latestBytes at the last sample
   * @param bytesPerDay the robust line's slope; null for fewer than 8 days of sizes
   */
  public record SizeTrend(double latestBytes, @Nullable Double bytesPerDay) {}
}

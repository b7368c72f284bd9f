package org.transitum.sources.counters;

import java.util.Set;

/**
 * What was read of metrics.
 *
 * @param unknownTargets servers and machines that the estate does not know, left out
 */
public record MetricsRead(long samples, int series, Set<String> unknownTargets) {}

package org.transitum.sources.counters;

import org.transitum.core.counters.Counter;

/** One value of one series, as a server told it just now. */
public record Sample(String object, Counter counter, double value) {}

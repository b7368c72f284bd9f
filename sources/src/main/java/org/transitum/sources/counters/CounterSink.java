package org.transitum.sources.counters;

import org.transitum.core.counters.Counter;
import org.transitum.core.counters.DayChunk;
import org.transitum.core.counters.Measure;

/** Takes what a reader of counters aligned. */
public interface CounterSink {

  /** Whether a key names a host, an instance or a database of the estate. */
  boolean knows(String object);

  /** The grid in seconds of what is stored for this series; 0 for a new one. */
  int stepOf(String object, Measure measure);

  /** One finished day of a series. */
  void take(String object, Counter counter, DayChunk chunk);
}

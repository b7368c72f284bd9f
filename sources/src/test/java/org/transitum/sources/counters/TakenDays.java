package org.transitum.sources.counters;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.transitum.core.counters.AlignedSeries;
import org.transitum.core.counters.Counter;
import org.transitum.core.counters.DayChunk;
import org.transitum.core.counters.Measure;

/** Keeps in memory what a reader hands over. */
final class TakenDays implements CounterSink {
  private final Set<String> known;
  private final Map<String, List<DayChunk>> days = new HashMap<>();

  TakenDays(String... known) {
    this.known = Set.of(known);
  }

  @Override
  public boolean knows(String object) {
    return known.contains(object);
  }

  @Override
  public int stepOf(String object, Measure measure) {
    return 0;
  }

  @Override
  public void take(String object, Counter counter, DayChunk chunk) {
    days.computeIfAbsent(object + " " + counter.column(), key -> new ArrayList<>()).add(chunk);
  }

  Set<String> series() {
    return days.keySet();
  }

  /** The values of a series that are there, in order of time. */
  double[] values(String series) {
    return java.util.Arrays.stream(AlignedSeries.of(days.getOrDefault(series, List.of())).values())
        .filter(value -> !Double.isNaN(value))
        .toArray();
  }
}

package org.transitum.sources.counters;

import java.util.HashMap;
import java.util.Map;
import org.transitum.core.counters.Counter;
import org.transitum.core.counters.SeriesAligner;

/** Aligns samples of many series and hands their days to a sink. */
final class AlignedWriter {
  private final CounterSink sink;
  private final Map<String, SeriesAligner> aligners = new HashMap<>();
  private long samples;

  AlignedWriter(CounterSink sink) {
    this.sink = sink;
  }

  /**
   * Takes a sample; those of an object that is not known are left out.
   *
   * @return whether it was taken
   * @throws org.transitum.core.InvalidValue when the time goes back within one series
   */
  boolean take(String object, Counter counter, long millis, double value) {
    if (!Double.isFinite(value) || value < 0 || !sink.knows(object)) {
      return false;
    }
    SeriesAligner aligner =
        aligners.computeIfAbsent(
            object + "\n" + counter,
            key ->
                new SeriesAligner(
                    counter.kind(),
                    sink.stepOf(object, counter.measure()),
                    0,
                    chunk -> sink.take(object, counter, chunk)));
    aligner.add(millis, value);
    samples++;
    return true;
  }

  /** Hands over what is pending. */
  MetricsRead finish(MetricTargets targets) {
    aligners.values().forEach(SeriesAligner::finish);
    return new MetricsRead(samples, aligners.size(), targets.unknown());
  }
}

package org.transitum.server.bundles;

import org.transitum.core.counters.Counter;
import org.transitum.core.counters.DayChunk;
import org.transitum.core.counters.Measure;
import org.transitum.core.inventory.Aliases;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.sources.counters.CounterSink;

/** Gives a collector's samples to the objects that people said are meant by other names. */
record KnownNames(CounterSink sink, Aliases names) implements CounterSink {

  private String known(String object) {
    if (object.contains("/")) {
      return names.known(ObjectKind.DATABASE, object);
    }
    String instance = names.known(ObjectKind.INSTANCE, object);
    return instance.equals(object) ? names.known(ObjectKind.HOST, object) : instance;
  }

  @Override
  public boolean knows(String object) {
    return sink.knows(known(object));
  }

  @Override
  public int stepOf(String object, Measure measure) {
    return sink.stepOf(known(object), measure);
  }

  @Override
  public void take(String object, Counter counter, DayChunk chunk) {
    sink.take(known(object), counter, chunk);
  }
}

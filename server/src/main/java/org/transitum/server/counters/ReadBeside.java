package org.transitum.server.counters;

import java.io.IOException;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import org.jspecify.annotations.Nullable;
import org.transitum.core.counters.Counter;
import org.transitum.core.counters.DayChunk;
import org.transitum.core.counters.Measure;
import org.transitum.server.counters.CounterService.CounterReading;
import org.transitum.sources.counters.CounterSink;
import org.transitum.sources.counters.MetricsRead;

/**
 * Reads and aligns counters on a thread of its own while the caller's, which holds the transaction,
 * stores the days that are finished. A few wait between the two, so that memory stays bounded.
 */
final class ReadBeside {
  private static final int WAITING = 512;
  private static final int PATIENCE_MILLIS = 200;

  private record Day(String object, Counter counter, DayChunk chunk) {}

  private ReadBeside() {}

  /**
   * @param store called on the caller's thread only, but for {@code knows} and {@code stepOf}
   * @throws IOException what the reading threw; so are its unchecked exceptions
   */
  static MetricsRead run(CounterSink store, CounterReading reading) throws IOException {
    BlockingQueue<Day> days = new ArrayBlockingQueue<>(WAITING);
    ExecutorService beside =
        Executors.newSingleThreadExecutor(r -> new Thread(r, "counters-reader"));
    try {
      Future<MetricsRead> read = beside.submit(() -> reading.read(handing(store, days)));
      while (true) {
        boolean ended = read.isDone();
        Day day = days.poll(ended ? 0 : PATIENCE_MILLIS, TimeUnit.MILLISECONDS);
        if (day != null) {
          store.take(day.object(), day.counter(), day.chunk());
        } else if (ended) {
          return read.get();
        }
      }
    } catch (ExecutionException e) {
      throw unwrapped(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted while reading", e);
    } finally {
      beside.shutdownNow();
    }
  }

  private static IOException unwrapped(@Nullable Throwable cause) {
    if (cause instanceof RuntimeException unchecked) {
      throw unchecked;
    }
    if (cause instanceof Error error) {
      throw error;
    }
    return cause instanceof IOException io ? io : new IOException(cause);
  }

  private static CounterSink handing(CounterSink store, BlockingQueue<Day> days) {
    return new CounterSink() {
      @Override
      public boolean knows(String object) {
        return store.knows(object);
      }

      @Override
      public int stepOf(String object, Measure measure) {
        return store.stepOf(object, measure);
      }

      @Override
      public void take(String object, Counter counter, DayChunk chunk) {
        try {
          days.put(new Day(object, counter, chunk));
        } catch (InterruptedException e) {
          Thread.currentThread().interrupt();
          throw new IllegalStateException("storing has stopped", e);
        }
      }
    };
  }
}

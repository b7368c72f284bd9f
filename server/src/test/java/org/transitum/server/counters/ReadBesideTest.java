package org.transitum.server.counters;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.transitum.core.counters.Counter;
import org.transitum.core.counters.DayChunk;
import org.transitum.core.counters.Measure;
import org.transitum.sources.counters.CounterSink;
import org.transitum.sources.counters.MetricsRead;

class ReadBesideTest {
  private static final MetricsRead READ = new MetricsRead(1, 1, Set.of());

  private static class Store implements CounterSink {
    final List<Long> taken = new ArrayList<>();
    final Set<Thread> threads = new HashSet<>();

    @Override
    public boolean knows(String object) {
      return true;
    }

    @Override
    public int stepOf(String object, Measure measure) {
      return 0;
    }

    @Override
    public void take(String object, Counter counter, DayChunk chunk) {
      taken.add(chunk.dayEpoch());
      threads.add(Thread.currentThread());
    }
  }

  private static DayChunk day(int day) {
    return new DayChunk(day, 3_600, new double[24]);
  }

  @Test
  void everyDayArrivesInOrderOnTheCallersThread() throws IOException {
    Store store = new Store();
    MetricsRead read =
        ReadBeside.run(
            store,
            sink -> {
              for (int i = 0; i < 3_000; i++) {
                sink.take("A/b", Counter.CONNECTIONS, day(i));
              }
              return READ;
            });
    assertThat(read).isSameAs(READ);
    assertThat(store.taken).hasSize(3_000).isSorted();
    assertThat(store.threads).containsExactly(Thread.currentThread());
  }

  @Test
  void whatTheReadingThrowsIsThrownHere() {
    assertThatThrownBy(
            () ->
                ReadBeside.run(
                    new Store(),
                    sink -> {
                      throw new IllegalStateException("row 7");
                    }))
        .isInstanceOf(IllegalStateException.class)
        .hasMessage("row 7");
    assertThatThrownBy(
            () ->
                ReadBeside.run(
                    new Store(),
                    sink -> {
                      throw new IOException("cut off");
                    }))
        .isInstanceOf(IOException.class)
        .hasMessage("cut off");
  }

  @Test
  void aStoreThatFailsStopsTheReading() throws InterruptedException {
    AtomicInteger given = new AtomicInteger();
    Store full =
        new Store() {
          @Override
          public void take(String object, Counter counter, DayChunk chunk) {
            throw new IllegalStateException("disk full");
          }
        };
    assertThatThrownBy(
            () ->
                ReadBeside.run(
                    full,
                    sink -> {
                      while (true) {
                        sink.take("A/b", Counter.CONNECTIONS, day(given.incrementAndGet()));
                      }
                    }))
        .hasMessage("disk full");
    int then = given.get();
    Thread.sleep(300);
    assertThat(given.get()).as("nothing goes on reading").isLessThanOrEqualTo(then + 1);
  }
}

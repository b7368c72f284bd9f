package org.transitum.server.counters;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Objects;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Consumer;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionTemplate;
import org.transitum.server.counters.CounterService.CounterReading;
import org.transitum.server.counters.CounterService.SeriesChanged;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.sources.counters.CounterSink;
import org.transitum.sources.counters.MetricsRead;

/**
 * Writes series, one writer at a time until its transaction is over: a stored day is read, merged
 * and written again, so that two at once would lose what the other wrote.
 */
@Component
class SeriesWriter {
  private final SeriesStore store;
  private final TransactionTemplate transaction;
  private final JournalService journal;
  private final LiveFeed live;
  private final ApplicationEventPublisher events;
  private final ReentrantLock turn = new ReentrantLock(true);

  SeriesWriter(
      SeriesStore store,
      TransactionTemplate transaction,
      JournalService journal,
      LiveFeed live,
      ApplicationEventPublisher events) {
    this.store = store;
    this.transaction = transaction;
    this.journal = journal;
    this.live = live;
    this.events = events;
  }

  /**
   * Takes all that is read, or nothing of it; waits for its turn.
   *
   * @param kind and {@code name} of where it comes from, for the journal
   * @param also done in the same transaction
   */
  MetricsRead take(String kind, String name, CounterReading reading, Runnable also) {
    turn.lock();
    MetricsRead read;
    try {
      read = transaction.execute(status -> takeNow(kind, name, reading, also));
    } finally {
      turn.unlock();
    }
    changed(name);
    return Objects.requireNonNull(read);
  }

  private MetricsRead takeNow(String kind, String name, CounterReading reading, Runnable also) {
    try {
      MetricsRead done = ReadBeside.run(store.sink(), reading);
      also.run();
      journal.write("read counters", kind, name, null, null, null, MetricSourceService.words(done));
      return done;
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /**
   * Stores something small, unless another writer has its turn.
   *
   * @return whether it was stored
   */
  boolean storeIfFree(String name, Consumer<CounterSink> work) {
    if (!turn.tryLock()) {
      return false;
    }
    try {
      transaction.executeWithoutResult(status -> work.accept(store.sink()));
    } finally {
      turn.unlock();
    }
    changed(name);
    return true;
  }

  private void changed(String name) {
    events.publishEvent(new SeriesChanged());
    live.announce("counters", name);
  }
}

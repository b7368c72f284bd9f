package org.transitum.server.counters;

import jakarta.annotation.PreDestroy;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicBoolean;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import org.transitum.core.counters.SeriesAligner;
import org.transitum.server.inventory.SourceServers;
import org.transitum.server.inventory.SourceServers.Server;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.sources.counters.CounterSink;
import org.transitum.sources.counters.Sample;
import org.transitum.sources.counters.ServerSampler;
import org.transitum.sources.inventory.Unreachable;

/**
 * Samples the listed servers that the lead started, each at its own pace. A server that hangs or
 * refuses is noted on its entry and tried again at its next turn; it holds up no other, as each is
 * sampled on a thread of its own.
 */
@Component
class LiveSampler {
  private static final Logger LOG = LoggerFactory.getLogger(LiveSampler.class);
  private static final long HOUR = 3_600_000;
  private static final long FLUSH_MILLIS = 60_000;
  private static final int AT_A_TIME = 64;

  private final SourceServers servers;
  private final SeriesWriter writer;
  private final ProgrammeClock clock;
  private final Map<String, Run> runs = new ConcurrentHashMap<>();
  private final ExecutorService workers = Executors.newFixedThreadPool(AT_A_TIME);

  LiveSampler(SourceServers servers, SeriesWriter writer, ProgrammeClock clock) {
    this.servers = servers;
    this.writer = writer;
    this.clock = clock;
  }

  /** The samples of one server that are not in a stored bucket yet. */
  private static final class Run {
    final Map<String, List<TimedSample>> pending = new HashMap<>();
    final int seconds;
    final AtomicBoolean busy = new AtomicBoolean();
    volatile long nextMillis;
    long flushedMillis;

    Run(int seconds) {
      this.seconds = seconds;
    }
  }

  private record TimedSample(long millis, Sample sample) {}

  @Scheduled(fixedDelay = 1_000)
  void turn() {
    long now = clock.millis();
    for (Server server : servers.all()) {
      Integer seconds = server.samplingSeconds();
      if (seconds == null) {
        runs.remove(server.instance());
        continue;
      }
      Run run =
          runs.compute(
              server.instance(),
              (key, old) -> old == null || old.seconds != seconds ? new Run(seconds) : old);
      if (now >= run.nextMillis && run.busy.compareAndSet(false, true)) {
        run.nextMillis = now + seconds * 1000L;
        workers.execute(
            () -> {
              try {
                sample(server, run);
              } finally {
                run.busy.set(false);
              }
            });
      }
    }
  }

  @PreDestroy
  void stop() {
    workers.shutdownNow();
  }

  private void sample(Server server, Run run) {
    String instance = server.instance();
    try {
      List<Sample> samples =
          ServerSampler.of(server.engine()).sample(servers.address(instance), instance);
      long millis = clock.millis();
      for (Sample sample : samples) {
        run.pending
            .computeIfAbsent(sample.object() + "\n" + sample.counter(), k -> new ArrayList<>())
            .add(new TimedSample(millis, sample));
      }
      if (millis - run.flushedMillis >= FLUSH_MILLIS) {
        flush(run);
      }
      servers.sampled(instance, null);
    } catch (Unreachable e) {
      servers.sampled(instance, e.getMessage());
    } catch (RuntimeException e) {
      LOG.warn("sampling {} failed", instance, e);
      servers.sampled(instance, "Sampling met an unexpected error; the log says more.");
    }
  }

  /**
   * Stores what is pending, unless a large file is just being stored; the last hour stays pending,
   * so that its buckets become whole.
   */
  private void flush(Run run) {
    boolean stored =
        writer.storeIfFree(
            "live",
            sink -> run.pending.values().forEach(samples -> align(samples, run.seconds, sink)));
    if (!stored) {
      return;
    }
    long keepFrom = (clock.millis() / HOUR - 1) * HOUR;
    run.pending.values().forEach(samples -> forget(samples, keepFrom));
    run.flushedMillis = clock.millis();
  }

  /** Keeps the last sample before {@code keepFrom}, as the next rate starts from it. */
  private static void forget(List<TimedSample> samples, long keepFrom) {
    while (samples.size() > 1 && samples.get(1).millis() < keepFrom) {
      samples.remove(0);
    }
  }

  private static void align(List<TimedSample> samples, int seconds, CounterSink sink) {
    Sample first = samples.get(0).sample();
    if (!sink.knows(first.object())) {
      return;
    }
    SeriesAligner aligner =
        new SeriesAligner(
            first.counter().kind(),
            sink.stepOf(first.object(), first.counter().measure()),
            seconds,
            chunk -> sink.take(first.object(), first.counter(), chunk));
    samples.forEach(timed -> aligner.add(timed.millis(), timed.sample().value()));
    aligner.finish();
  }
}

package org.transitum.server.bundles;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.springframework.transaction.event.TransactionalEventListener;
import org.springframework.transaction.support.TransactionTemplate;
import org.transitum.server.bundles.BundleMapper.BundleRow;
import org.transitum.server.bundles.BundleService.BundleServer;
import org.transitum.server.bundles.BundleService.BundleState;
import org.transitum.server.counters.CounterService;
import org.transitum.server.inventory.ReadingService;
import org.transitum.server.inventory.ReadingService.ReadingClosed;
import org.transitum.server.jobs.JobService;
import org.transitum.server.jobs.JobService.Job;
import org.transitum.server.jobs.JobService.Outcome;
import org.transitum.server.jobs.JobService.Progress;
import org.transitum.server.live.LiveFeed;
import org.transitum.sources.bundles.BundleFile;
import org.transitum.sources.bundles.BundleManifest.BundledServer;
import org.transitum.sources.counters.CounterSink;
import org.transitum.sources.counters.CountersCsv;
import org.transitum.sources.counters.MetricsRead;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.inventory.ReadingJson;

/**
 * Reads bundles as jobs: opens their readings, stores their counters, and stores those that had to
 * wait once the readings are decided.
 */
@Component
class BundleIntake {
  private final BundleMapper mapper;
  private final BundleStore store;
  private final ReadingService readings;
  private final CounterService counters;
  private final JobService jobs;
  private final LiveFeed live;
  private final TransactionTemplate transaction;

  BundleIntake(
      BundleMapper mapper,
      BundleStore store,
      ReadingService readings,
      CounterService counters,
      JobService jobs,
      LiveFeed live,
      TransactionTemplate transaction) {
    this.mapper = mapper;
    this.store = store;
    this.readings = readings;
    this.counters = counters;
    this.jobs = jobs;
    this.live = live;
    this.transaction = transaction;
  }

  /** Bundles that a stopped server left behind are read at the next start. */
  @EventListener(ApplicationReadyEvent.class)
  public void goOn() {
    mapper.in(BundleState.RECEIVED).forEach(this::startReading);
    mapper.in(BundleState.STORING).forEach(this::startStoring);
  }

  /** Starts to read a bundle that was received. */
  Job startReading(BundleRow row) {
    return jobs.start(
        "bundle", "Bundle of " + row.site(), progress -> new Outcome(read(row, progress), null));
  }

  private String read(BundleRow row, Progress progress) throws IOException {
    try (BundleFile bundle = store.open(row)) {
      int opened = open(row, bundle, progress);
      MetricsRead stored = counters(row, bundle, progress);
      int open = readings.waitingOf(row.id()).size();
      settle(row, stored);
      return "%d of %d readings wait to be accepted; %,d samples stored%s"
          .formatted(
              open,
              opened,
              stored.samples(),
              stored.unknownTargets().isEmpty()
                  ? ""
                  : "; counters of %d objects wait until the inventory knows them"
                      .formatted(stored.unknownTargets().size()));
    } catch (IOException | RuntimeException e) {
      fail(row, e);
      throw e;
    }
  }

  private void fail(BundleRow row, Exception e) {
    if (jobs.stopping()) {
      return;
    }
    String why =
        e instanceof BadFile bad
            ? bad.problems().get(0).line()
            : "It could not be read to its end; the log says more. Send it again to have it read anew.";
    store.save(row, BundleState.FAILED, row.samples(), store.content(row).failed(why));
    live.announce("bundles", row.site());
  }

  /** Opens all of its readings, or none. */
  private int open(BundleRow row, BundleFile bundle, Progress progress) {
    Integer opened =
        transaction.execute(
            status -> {
              int count = 0;
              for (BundledServer server : bundle.manifest().servers()) {
                if (server.reading() == null) {
                  continue;
                }
                progress.tell("reading of " + server.instance());
                try (InputStream in = bundle.reading(server.reading())) {
                  readings.open(
                      ReadingJson.read(server.reading(), in, server.instance()), row.id());
                  count++;
                } catch (IOException e) {
                  throw new UncheckedIOException(e);
                }
              }
              return count;
            });
    return opened == null ? 0 : opened;
  }

  /** Stores the counters of what the inventory knows; taking some twice changes nothing. */
  private MetricsRead counters(BundleRow row, BundleFile bundle, Progress progress) {
    return counters.take(
        "bundle of " + row.site(),
        sink -> {
          CounterSink known = new KnownNames(sink, readings.otherNames());
          long samples = 0;
          int series = 0;
          Set<String> unknown = new TreeSet<>();
          for (BundledServer server : bundle.manifest().servers()) {
            if (server.counters() == null || server.samples() == 0) {
              continue;
            }
            try (InputStream in = bundle.content(server.counters())) {
              MetricsRead read =
                  CountersCsv.readKnown(
                      server.counters(),
                      in,
                      known,
                      rows ->
                          progress.tell("%s: %,d rows read".formatted(server.instance(), rows)));
              samples += read.samples();
              series += read.series();
              unknown.addAll(read.unknownTargets());
            }
          }
          return new MetricsRead(samples, series, unknown);
        });
  }

  /**
   * Keeps a bundle as long as counters in it are of servers with a reading that waits, its own or
   * that of a bundle before: a collector pushes a reading once and samples every hour.
   */
  private void settle(BundleRow row, MetricsRead stored) throws IOException {
    Set<String> waitsFor = new TreeSet<>();
    stored.unknownTargets().forEach(object -> waitsFor.add(instance(object)));
    waitsFor.retainAll(undecided(row.id()));
    store.save(
        row,
        waitsFor.isEmpty() ? BundleState.TAKEN : BundleState.WAITING,
        stored.samples(),
        store.content(row).stored(List.copyOf(stored.unknownTargets()), waitsFor));
    if (waitsFor.isEmpty()) {
      store.drop(row);
    }
    live.announce("bundles", row.site());
  }

  /**
   * Instances that a bundle brought a reading of which nobody has decided on: it waits, or its
   * bundle is yet to be read.
   *
   * @param but a bundle whose own readings are open by now
   */
  private Set<String> undecided(long but) {
    Set<String> instances = new TreeSet<>(readings.waitingInstances());
    for (BundleState state : List.of(BundleState.RECEIVED, BundleState.FAILED)) {
      mapper.in(state).stream()
          .filter(row -> row.id() != but)
          .flatMap(row -> store.content(row).servers().stream())
          .filter(BundleServer::read)
          .forEach(server -> instances.add(server.instance()));
    }
    return instances;
  }

  private static String instance(String object) {
    int slash = object.indexOf('/');
    return slash < 0 ? object : object.substring(0, slash);
  }

  /**
   * Once the readings that a bundle waits for are decided, its counters are stored; on a thread of
   * its own, as the transaction that decided is not quite over here.
   */
  @TransactionalEventListener
  public void decided(ReadingClosed closed) {
    if (closed.bundle() != null) {
      var unused = CompletableFuture.runAsync(this::storeWhatWaited);
    }
  }

  /** One at a time, so that two decisions at once do not start the same work. */
  synchronized void storeWhatWaited() {
    Set<String> undecided = undecided(0);
    for (BundleRow row : mapper.in(BundleState.WAITING)) {
      if (store.content(row).waitsFor().stream().noneMatch(undecided::contains)
          && mapper.move(row.id(), BundleState.WAITING, BundleState.STORING) == 1) {
        startStoring(row);
      }
    }
  }

  private void startStoring(BundleRow row) {
    jobs.start(
        "bundle",
        "Counters of " + row.site(),
        progress -> new Outcome(storeRest(row, progress), null));
  }

  private String storeRest(BundleRow row, Progress progress) throws IOException {
    try (BundleFile bundle = store.open(row)) {
      MetricsRead stored = counters(row, bundle, progress);
      settle(row, stored);
      return "%,d samples stored%s"
          .formatted(
              stored.samples(),
              stored.unknownTargets().isEmpty()
                  ? ""
                  : "; %d objects are not in the inventory, so theirs were left out"
                      .formatted(stored.unknownTargets().size()));
    } catch (IOException | RuntimeException e) {
      fail(row, e);
      throw e;
    }
  }
}

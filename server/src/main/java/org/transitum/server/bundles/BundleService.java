package org.transitum.server.bundles;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.concurrent.CompletableFuture;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.transaction.event.TransactionalEventListener;
import org.springframework.transaction.support.TransactionTemplate;
import org.transitum.server.bundles.BundleMapper.BundleRow;
import org.transitum.server.counters.CounterService;
import org.transitum.server.inventory.ReadingService;
import org.transitum.server.inventory.ReadingService.ReadingClosed;
import org.transitum.server.inventory.ReadingService.ReadingHead;
import org.transitum.server.jobs.JobService;
import org.transitum.server.jobs.JobService.Job;
import org.transitum.server.jobs.JobService.Outcome;
import org.transitum.server.jobs.JobService.Progress;
import org.transitum.server.jobs.Uploads;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Missing;
import org.transitum.server.problems.Refused;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.CurrentPerson;
import org.transitum.sources.bundles.BundleFile;
import org.transitum.sources.bundles.BundleManifest;
import org.transitum.sources.bundles.BundleManifest.BundledServer;
import org.transitum.sources.counters.CounterSink;
import org.transitum.sources.counters.CountersCsv;
import org.transitum.sources.counters.MetricsRead;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.inventory.ReadingJson;
import tools.jackson.databind.json.JsonMapper;

/**
 * Takes the bundles of collectors. Its readings wait to be accepted like any other; its counters
 * are stored for what the inventory knows, and the bundle is kept until the rest is known too or
 * nobody wants it.
 */
@Service
public class BundleService {
  private static final int MOST_NAMED = 200;

  private final BundleMapper mapper;
  private final ReadingService readings;
  private final CounterService counters;
  private final JobService jobs;
  private final Uploads uploads;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final CurrentPerson current;
  private final TransactionTemplate transaction;
  private final JsonMapper json;
  private final Path folder;

  BundleService(
      BundleMapper mapper,
      ReadingService readings,
      CounterService counters,
      JobService jobs,
      Uploads uploads,
      JournalService journal,
      LiveFeed live,
      ProgrammeClock clock,
      CurrentPerson current,
      TransactionTemplate transaction,
      JsonMapper json,
      @Value("${transitum.data}") Path data) {
    this.mapper = mapper;
    this.readings = readings;
    this.counters = counters;
    this.jobs = jobs;
    this.uploads = uploads;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
    this.current = current;
    this.transaction = transaction;
    this.json = json;
    this.folder = data.resolve("bundles");
  }

  /** How far a bundle is taken. */
  public enum BundleState {
    /** It is whole and about to be read. */
    RECEIVED,
    /** Counters of what the inventory does not know yet wait in it. */
    WAITING,
    /** What it waited for is decided, and its counters are being stored. */
    STORING,
    /** Nothing of it waits any more. */
    TAKEN,
    /** It could not be read, though it was whole. */
    FAILED,
    /** Somebody dropped what waited. */
    DISCARDED
  }

  /**
   * @param repeated whether the same bundle had come before, so that nothing was done
   * @param job that reads it
   */
  public record ReceivedBundle(long id, String site, boolean repeated, @Nullable Job job) {}

  /** A server in a bundle, with why something of it is missing. */
  public record BundleServer(
      String instance, String engine, boolean read, long samples, @Nullable String problem) {}

  /**
   * A bundle as people see it.
   *
   * @param samples stored so far
   * @param unknown objects that the inventory does not know, whose counters wait or were left out
   * @param waiting its readings that wait to be accepted
   */
  public record Bundle(
      long id,
      String name,
      String site,
      String person,
      Instant receivedAt,
      Instant from,
      Instant to,
      BundleState state,
      long samples,
      List<BundleServer> servers,
      List<String> unknown,
      @Nullable String problem,
      List<ReadingHead> waiting) {}

  /** What accepting a bundle's readings came to. */
  public record AcceptedBundle(int readings, int changes, int doubtful) {}

  /**
   * @param waitsFor instances whose readings are to be decided before its counters have a place
   */
  private record Payload(
      List<BundleServer> servers,
      List<String> unknown,
      Set<String> waitsFor,
      @Nullable String problem) {}

  public List<Bundle> latest() {
    return mapper.latest().stream().map(this::view).toList();
  }

  private Bundle view(BundleRow row) {
    Payload payload = json.readValue(row.payload(), Payload.class);
    return new Bundle(
        row.id(),
        row.name(),
        row.site(),
        row.person(),
        row.receivedAt(),
        row.fromAt(),
        row.toAt(),
        row.state(),
        row.samples(),
        payload.servers(),
        payload.unknown(),
        payload.problem(),
        readings.waitingOf(row.id()));
  }

  /**
   * Keeps a bundle that is whole, and starts to read it.
   *
   * @throws org.transitum.sources.files.BadFile when it is none, or was altered; nothing is kept
   */
  public ReceivedBundle receive(String name, InputStream content) throws IOException {
    Path upload = uploads.keep(name, content);
    try {
      BundleManifest manifest;
      try (BundleFile bundle = BundleFile.open(name, upload)) {
        manifest = bundle.manifest();
      }
      Optional<BundleRow> before = mapper.byUid(manifest.id().toString());
      if (before.isPresent() && before.get().state() == BundleState.FAILED) {
        return tryAgain(before.get());
      }
      if (before.isPresent()) {
        return new ReceivedBundle(before.get().id(), before.get().site(), true, null);
      }
      Files.createDirectories(folder);
      Files.move(upload, file(manifest.id().toString()), StandardCopyOption.REPLACE_EXISTING);
      long id = insert(name, manifest);
      live.announce("bundles", manifest.site());
      return new ReceivedBundle(id, manifest.site(), false, startReading(row(id)));
    } finally {
      Files.deleteIfExists(upload);
    }
  }

  private ReceivedBundle tryAgain(BundleRow row) {
    mapper.move(row.id(), BundleState.FAILED, BundleState.RECEIVED);
    return new ReceivedBundle(row.id(), row.site(), false, startReading(row(row.id())));
  }

  private long insert(String name, BundleManifest manifest) {
    List<BundleServer> servers =
        manifest.servers().stream()
            .map(
                server ->
                    new BundleServer(
                        server.instance(),
                        server.engine(),
                        server.reading() != null,
                        server.samples(),
                        server.problem()))
            .toList();
    Long id =
        transaction.execute(
            status -> {
              journal.write(
                  "received bundle",
                  "BUNDLE",
                  manifest.site(),
                  null,
                  null,
                  null,
                  "%s: %d servers".formatted(name, servers.size()));
              return mapper.insert(
                  new BundleRow(
                      0,
                      manifest.id().toString(),
                      name,
                      manifest.site(),
                      current.login(),
                      clock.instant(),
                      manifest.from(),
                      manifest.to(),
                      BundleState.RECEIVED,
                      0,
                      json.writeValueAsString(new Payload(servers, List.of(), Set.of(), null))));
            });
    return Objects.requireNonNull(id);
  }

  private Path file(String uid) {
    return folder.resolve(uid + ".zip");
  }

  private BundleRow row(long id) {
    return mapper.find(id).orElseThrow(() -> new Missing("There is no bundle %d.".formatted(id)));
  }

  /** Bundles that a stopped server left behind are read at the next start. */
  @EventListener(ApplicationReadyEvent.class)
  public void goOn() {
    mapper.in(BundleState.RECEIVED).forEach(this::startReading);
    mapper.in(BundleState.STORING).forEach(this::startStoring);
  }

  private Job startReading(BundleRow row) {
    return jobs.start(
        "bundle", "Bundle of " + row.site(), progress -> new Outcome(read(row, progress), null));
  }

  private String read(BundleRow row, Progress progress) throws IOException {
    try (BundleFile bundle = BundleFile.open(row.name(), file(row.uid()))) {
      int opened = open(row, bundle, progress);
      MetricsRead stored = store(row, bundle, progress);
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
    Payload payload = json.readValue(row.payload(), Payload.class);
    mapper.save(
        row.id(),
        BundleState.FAILED,
        row.samples(),
        json.writeValueAsString(new Payload(payload.servers(), List.of(), Set.of(), why)));
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
  private MetricsRead store(BundleRow row, BundleFile bundle, Progress progress) {
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
    Payload payload = json.readValue(row.payload(), Payload.class);
    List<String> unknown = new ArrayList<>(stored.unknownTargets());
    mapper.save(
        row.id(),
        waitsFor.isEmpty() ? BundleState.TAKEN : BundleState.WAITING,
        stored.samples(),
        json.writeValueAsString(
            new Payload(
                payload.servers(),
                unknown.subList(0, Math.min(MOST_NAMED, unknown.size())),
                waitsFor,
                null)));
    if (waitsFor.isEmpty()) {
      Files.deleteIfExists(file(row.uid()));
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
          .flatMap(row -> json.readValue(row.payload(), Payload.class).servers().stream())
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
  private synchronized void storeWhatWaited() {
    Set<String> undecided = undecided(0);
    for (BundleRow row : mapper.in(BundleState.WAITING)) {
      Payload payload = json.readValue(row.payload(), Payload.class);
      if (payload.waitsFor().stream().noneMatch(undecided::contains)
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
    try (BundleFile bundle = BundleFile.open(row.name(), file(row.uid()))) {
      MetricsRead stored = store(row, bundle, progress);
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

  /** Accepts its readings, but for those with a doubtful object, which wait for a look. */
  public AcceptedBundle accept(long id) {
    row(id);
    int taken = 0;
    int changes = 0;
    int doubtful = 0;
    for (ReadingHead reading : readings.waitingOf(id)) {
      if (readings.reading(reading.id()).doubtful() > 0) {
        doubtful++;
      } else {
        changes += readings.accept(reading.id(), null, Map.of());
        taken++;
      }
    }
    live.announce("bundles", Long.toString(id));
    return new AcceptedBundle(taken, changes, doubtful);
  }

  /** Drops what waits of a bundle; what was accepted and stored stays. */
  public void discard(long id) throws IOException {
    BundleRow row = row(id);
    List<ReadingHead> waiting = readings.waitingOf(id);
    if (row.state() == BundleState.RECEIVED || row.state() == BundleState.STORING) {
      throw new Refused("The bundle is being read; wait until that has ended.");
    }
    if (waiting.isEmpty() && row.state() != BundleState.WAITING) {
      throw new Refused("Nothing of the bundle waits any more.");
    }
    transaction.executeWithoutResult(
        status -> {
          mapper.move(id, row.state(), BundleState.DISCARDED);
          waiting.forEach(reading -> readings.discard(reading.id()));
          journal.write("discarded bundle", "BUNDLE", row.site(), null, null, null, row.name());
        });
    Files.deleteIfExists(file(row.uid()));
    live.announce("bundles", row.site());
    storeWhatWaited();
  }
}

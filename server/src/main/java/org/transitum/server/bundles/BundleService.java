package org.transitum.server.bundles;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;
import org.transitum.server.bundles.BundleMapper.BundleRow;
import org.transitum.server.bundles.BundleStore.Content;
import org.transitum.server.inventory.ReadingService;
import org.transitum.server.inventory.ReadingService.ReadingHead;
import org.transitum.server.jobs.JobService.Job;
import org.transitum.server.jobs.Uploads;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Refused;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.team.CurrentPerson;
import org.transitum.sources.bundles.BundleFile;
import org.transitum.sources.bundles.BundleManifest;

/**
 * Takes the bundles of collectors. Its readings wait to be accepted like any other; its counters
 * are stored for what the inventory knows, and the bundle is kept until the rest is known too or
 * nobody wants it.
 */
@Service
public class BundleService {
  private final BundleMapper mapper;
  private final BundleStore store;
  private final ReadingService readings;
  private final BundleIntake intake;
  private final Uploads uploads;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final CurrentPerson current;
  private final TransactionTemplate transaction;

  BundleService(
      BundleMapper mapper,
      BundleStore store,
      ReadingService readings,
      BundleIntake intake,
      Uploads uploads,
      JournalService journal,
      LiveFeed live,
      ProgrammeClock clock,
      CurrentPerson current,
      TransactionTemplate transaction) {
    this.mapper = mapper;
    this.store = store;
    this.readings = readings;
    this.intake = intake;
    this.uploads = uploads;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
    this.current = current;
    this.transaction = transaction;
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

  public List<Bundle> latest() {
    return mapper.latest().stream().map(this::view).toList();
  }

  private Bundle view(BundleRow row) {
    Content content = store.content(row);
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
        content.servers(),
        content.unknown(),
        content.problem(),
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
      store.keep(upload, manifest.id().toString());
      long id = insert(name, manifest);
      live.announce("bundles", manifest.site());
      return new ReceivedBundle(id, manifest.site(), false, intake.startReading(store.row(id)));
    } finally {
      Files.deleteIfExists(upload);
    }
  }

  private ReceivedBundle tryAgain(BundleRow row) {
    mapper.move(row.id(), BundleState.FAILED, BundleState.RECEIVED);
    return new ReceivedBundle(
        row.id(), row.site(), false, intake.startReading(store.row(row.id())));
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
                      store.written(Content.of(servers))));
            });
    return Objects.requireNonNull(id);
  }

  /** Accepts its readings, but for those with a doubtful object, which wait for a look. */
  public AcceptedBundle accept(long id) {
    store.row(id);
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
    BundleRow row = store.row(id);
    List<ReadingHead> waiting = readings.waitingOf(id);
    if (row.state() == BundleState.RECEIVED || row.state() == BundleState.STORING) {
      throw new Refused("The bundle is being read; wait until that has ended.");
    }
    boolean kept = row.state() == BundleState.WAITING || row.state() == BundleState.FAILED;
    if (waiting.isEmpty() && !kept) {
      throw new Refused("Nothing of the bundle waits any more.");
    }
    transaction.executeWithoutResult(
        status -> {
          mapper.move(id, row.state(), BundleState.DISCARDED);
          waiting.forEach(reading -> readings.discard(reading.id()));
          journal.write("discarded bundle", "BUNDLE", row.site(), null, null, null, row.name());
        });
    store.drop(row);
    live.announce("bundles", row.site());
    intake.storeWhatWaited();
  }
}

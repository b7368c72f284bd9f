package org.transitum.collector;

import java.io.IOException;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.transitum.collector.CollectionList.ListedServer;
import org.transitum.sources.bundles.BundleManifest;
import org.transitum.sources.bundles.BundleManifest.BundledServer;
import org.transitum.sources.bundles.BundleWriter;

/** Makes bundles of what a folder holds. */
final class Bundles {
  /** So that the first rates and buckets of a bundle are whole. */
  private static final Duration OVERLAP = Duration.ofHours(1);

  private Bundles() {}

  /**
   * A bundle that was made.
   *
   * @param readings when each reading in it was made
   */
  record Made(Path file, BundleManifest manifest, Map<String, Instant> readings) {
    long samples() {
      return manifest.servers().stream().mapToLong(BundledServer::samples).sum();
    }

    /** Such as {@code 3 readings and 1,204 samples}. */
    String words() {
      return "%d %s and %,d samples"
          .formatted(readings.size(), readings.size() == 1 ? "reading" : "readings", samples());
    }
  }

  /** Everything that the folder holds. */
  static Made whole(CollectionList list, Store store, State state, Path target, Instant now)
      throws IOException {
    return make(list, store, state, target, state.startedAt(), Map.of(), now);
  }

  /** What was not pushed yet. */
  static Made sinceLastPush(CollectionList list, Store store, State state, Path target, Instant now)
      throws IOException {
    Instant pushedTo = state.pushedTo();
    Instant from = state.startedAt();
    if (pushedTo != null && pushedTo.minus(OVERLAP).isAfter(from)) {
      from = pushedTo.minus(OVERLAP);
    }
    return make(list, store, state, target, from, state.pushedReadings(), now);
  }

  private static Made make(
      CollectionList list,
      Store store,
      State state,
      Path target,
      Instant from,
      Map<String, Instant> known,
      Instant now)
      throws IOException {
    Map<String, Instant> readings = new LinkedHashMap<>();
    List<BundledServer> servers = new ArrayList<>();
    try (BundleWriter writer = new BundleWriter(target)) {
      for (ListedServer server : list.servers()) {
        String instance = server.instance();
        String reading = null;
        Instant readAt = store.readAt(instance);
        if (readAt != null && !readAt.equals(known.get(instance))) {
          byte[] bytes = store.reading(instance);
          if (bytes != null) {
            reading = writer.add("readings", instance + ".json", out -> out.write(bytes));
            readings.put(instance, readAt);
          }
        }
        long[] samples = {0};
        String counters =
            store.hasSamples(instance, from)
                ? writer.add(
                    "counters",
                    instance + ".csv",
                    out -> samples[0] = store.writeCounters(instance, from, out))
                : null;
        servers.add(
            new BundledServer(
                instance,
                server.engineName(),
                reading,
                counters,
                samples[0],
                state.problems().get(instance)));
      }
      BundleManifest manifest =
          writer.finish(UUID.randomUUID(), list.site(), now, from, now, servers);
      return new Made(target, manifest, readings);
    }
  }

  /** A name for a bundle made at a time, such as {@code bankside-20261125-031200.zip}. */
  static String name(String site, Instant at) {
    String time = at.toString().substring(0, 19).replaceAll("[-:]", "").replace('T', '-');
    return "%s-%s.zip"
        .formatted(site.toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z0-9]+", "-"), time);
  }
}

package org.transitum.server.sizing;

import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;
import org.transitum.core.counters.AlignedSeries;
import org.transitum.core.counters.Measure;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.EstateObject;
import org.transitum.core.sizing.Confidence;
import org.transitum.core.sizing.Dimension;
import org.transitum.core.sizing.Percentile;
import org.transitum.core.sizing.QuantileSketch;
import org.transitum.core.sizing.SizingSettings;
import org.transitum.core.sizing.SourceProfile;
import org.transitum.core.sizing.SourceProfile.Quantiles;
import org.transitum.core.sizing.SourceProfile.SizeTrend;
import org.transitum.core.sizing.SourceProfiles;
import org.transitum.server.counters.CounterService.SeriesChanged;
import org.transitum.server.counters.SeriesStore;
import org.transitum.server.inventory.EstateStore;

/**
 * What sizing knows of each database. The series' part (quantile sketches, size trend, confidence)
 * is worked out once per change of the series and look-back; moving a slider reads only that.
 */
@Component
class ProfileStore {
  private final EstateStore estate;
  private final SeriesStore series;
  private final Map<String, Measured> measured = new ConcurrentHashMap<>();
  private volatile int lookBackDays = -1;

  ProfileStore(EstateStore estate, SeriesStore series) {
    this.estate = estate;
    this.series = series;
  }

  /** The part of a profile that comes from its series. */
  private record Measured(
      Map<Dimension, Quantiles> quantiles,
      java.util.Optional<SizeTrend> trend,
      Confidence confidence) {}

  @EventListener
  void changed(SeriesChanged event) {
    measured.clear();
    warm();
  }

  /** Works the series' part out beside the requests, so that the first of them need not wait. */
  @EventListener(ApplicationReadyEvent.class)
  void warm() {
    int days = lookBackDays > 0 ? lookBackDays : SizingSettings.DEFAULT.lookBackDays();
    CompletableFuture.runAsync(() -> all(days));
  }

  /** Sketched profiles of all databases that are there. */
  List<SourceProfile> all(int days) {
    if (days != lookBackDays) {
      measured.clear();
      lookBackDays = days;
    }
    Map<String, Integer> perInstance = new HashMap<>();
    List<EstateObject> databases = estate.databases();
    databases.forEach(database -> perInstance.merge(instanceKey(database), 1, Integer::sum));
    return databases.parallelStream()
        .map(
            database ->
                profile(
                    database,
                    perInstance.getOrDefault(instanceKey(database), 1),
                    measured.computeIfAbsent(
                        database.key(), key -> measure(series.of(key, days), days, true))))
        .toList();
  }

  /** The exact profile of one database. */
  SourceProfile exact(EstateObject database, Map<Measure, AlignedSeries> of, int days) {
    int onInstance =
        (int)
            estate.databases().stream()
                .filter(other -> instanceKey(other).equals(instanceKey(database)))
                .count();
    return profile(database, onInstance, measure(of, days, false));
  }

  private static Measured measure(Map<Measure, AlignedSeries> of, int days, boolean sketch) {
    Map<Dimension, Quantiles> quantiles = new EnumMap<>(Dimension.class);
    for (Dimension dimension : Dimension.values()) {
      AlignedSeries aligned = of.get(dimension.measure());
      if (aligned != null && dimension != Dimension.STORAGE) {
        double[] sorted = aligned.sortedPresent();
        quantiles.put(
            dimension,
            sketch ? QuantileSketch.of(sorted) : percent -> Percentile.of(sorted, percent));
      }
    }
    AlignedSeries sizes = of.get(Measure.SIZE_BYTES);
    AlignedSeries cpu = of.get(Measure.CPU_CORES);
    AlignedSeries judged =
        cpu != null ? cpu : of.values().stream().findFirst().orElse(AlignedSeries.of(List.of()));
    return new Measured(
        quantiles,
        sizes == null ? java.util.Optional.empty() : SourceProfiles.sizeTrend(sizes),
        SourceProfiles.confidence(judged, days));
  }

  private SourceProfile profile(EstateObject database, int onInstance, Measured from) {
    EstateObject instance = estate.instance(database).orElse(null);
    EstateObject host = instance == null ? null : estate.host(instance).orElse(null);
    return new SourceProfile(
        database.key(),
        instance == null ? null : instance.value(Attribute.ENGINE).orElse(null),
        host == null ? null : host.decimal(Attribute.CPU_INDEX).orElse(null),
        instance == null ? null : instance.number(Attribute.CACHE_BYTES).orElse(null),
        Math.max(1, onInstance),
        database.number(Attribute.SIZE_BYTES).orElse(null),
        database.decimal(Attribute.GROWTH_PERCENT_PER_YEAR).orElse(null),
        from.quantiles(),
        from.trend(),
        from.confidence());
  }

  private static String instanceKey(EstateObject database) {
    return database.key().substring(0, database.key().indexOf('/'));
  }
}

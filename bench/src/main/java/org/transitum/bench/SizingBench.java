package org.transitum.bench;

import java.io.IOException;
import java.io.InputStream;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.transitum.core.sizing.Catalogue;
import org.transitum.core.sizing.Confidence;
import org.transitum.core.sizing.Demand;
import org.transitum.core.sizing.DemandCalculator;
import org.transitum.core.sizing.Dimension;
import org.transitum.core.sizing.FitFinder;
import org.transitum.core.sizing.QuantileSketch;
import org.transitum.core.sizing.SizingSettings;
import org.transitum.core.sizing.SourceProfile;
import org.transitum.core.sizing.SourceProfile.Quantiles;
import org.transitum.core.sizing.SourceProfile.SizeTrend;
import org.transitum.demo.DemoEstate;
import org.transitum.sources.sizing.CatalogueJson;

/** Re-sizing 10,000 databases of 8 series each after a parameter change, on one thread. */
final class SizingBench {
  private static final int DATABASES = 10_000;
  private static final double GIB = 1L << 30;

  private SizingBench() {}

  static void run() throws IOException {
    Catalogue catalogue;
    try (InputStream in = new DemoEstate(LocalDate.of(2026, 11, 24)).open("catalogue.json")) {
      catalogue = CatalogueJson.read("catalogue.json", in);
    }
    List<SourceProfile> profiles = profiles();
    FitFinder finder = new FitFinder(catalogue);
    for (int round = 1; round <= 8; round++) {
      SizingSettings settings = new SizingSettings(85 + round, 20, 18, 30, 10);
      long start = System.nanoTime();
      double total = 0;
      DemandCalculator calculator = new DemandCalculator(settings);
      for (SourceProfile profile : profiles) {
        Demand demand = calculator.of(profile);
        var chosen = finder.find(profile, demand).chosen();
        total += chosen == null ? 0 : chosen.monthlyPrice();
      }
      System.out.printf(
          Locale.ROOT,
          "P%.0f: %,d databases in %d ms, %,.0f a month%n",
          settings.percentile(),
          profiles.size(),
          (System.nanoTime() - start) / 1_000_000,
          total);
    }
  }

  private static List<SourceProfile> profiles() {
    SplittableRandom random = new SplittableRandom(9);
    List<SourceProfile> profiles = new ArrayList<>();
    for (int i = 0; i < DATABASES; i++) {
      double load = Math.pow(2, random.nextDouble(-2, 4));
      Map<Dimension, Quantiles> series = new EnumMap<>(Dimension.class);
      for (Dimension dimension : Dimension.values()) {
        double scale =
            switch (dimension) {
              case CPU -> load;
              case MEMORY -> load * 3 * GIB;
              case THROUGHPUT, LOG -> load * (1 << 20);
              default -> load * 40;
            };
        double[] values = random.doubles(500, 0, scale).toArray();
        Arrays.sort(values);
        series.put(dimension, QuantileSketch.of(values));
      }
      profiles.add(
          new SourceProfile(
              "I" + i / 4 + "/d" + i,
              "PostgreSQL",
              1.0,
              null,
              4,
              null,
              null,
              series,
              Optional.of(new SizeTrend(load * 30 * GIB, 0.01 * GIB)),
              new Confidence(Confidence.Level.HIGH, "")));
    }
    return profiles;
  }
}

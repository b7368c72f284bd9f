package org.transitum.core.sizing;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalDouble;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.transitum.core.sizing.Catalogue.Limit;
import org.transitum.core.sizing.Catalogue.Storage;
import org.transitum.core.sizing.Catalogue.TargetKind;
import org.transitum.core.sizing.Catalogue.Tier;
import org.transitum.core.sizing.SourceProfile.Quantiles;
import org.transitum.core.sizing.SourceProfile.SizeTrend;

class FitFinderTest {
  private static final long GIB = 1L << 30;
  private static final SizingSettings PLAIN = new SizingSettings(95, 0, 0, 30, 0);

  private final Catalogue catalogue =
      new Catalogue(
          "Halden Cloud",
          "GBP",
          730,
          List.of(new TargetKind("db", "Managed database", List.of("PostgreSQL"))),
          List.of(tier("small", 2, 8, 0.1), tier("middle", 4, 16, 0.2), tier("large", 8, 32, 0.4)));
  private final FitFinder finder = new FitFinder(catalogue);

  private static Tier tier(String id, double cores, double memory, double price) {
    return new Tier(
        id,
        id,
        "db",
        cores,
        1.25,
        memory,
        price,
        0.1,
        new Storage(10, 1_000, 10),
        Map.of(Dimension.READS, new Limit(100, 3, 4_000.0)));
  }

  private static SourceProfile source(
      @Nullable Double cpu, @Nullable Double memoryGib, double reads, @Nullable Long size) {
    Map<Dimension, Quantiles> series = new EnumMap<>(Dimension.class);
    put(series, Dimension.CPU, cpu);
    put(series, Dimension.MEMORY, memoryGib == null ? null : memoryGib * GIB);
    put(series, Dimension.READS, reads);
    return new SourceProfile(
        "A/b",
        "PostgreSQL",
        1.0,
        null,
        1,
        size,
        null,
        series,
        Optional.empty(),
        new Confidence(Confidence.Level.HIGH, ""));
  }

  /** A series that stands at {@code value} up to P95 and climbs to its double at P100. */
  private static void put(
      Map<Dimension, Quantiles> series, Dimension dimension, @Nullable Double value) {
    if (value != null) {
      series.put(
          dimension,
          percent -> OptionalDouble.of(value * (percent <= 95 ? 1 : 1 + (percent - 95) / 5)));
    }
  }

  @Test
  void takesTheCheapestThatFitsAndNamesWhatBinds() {
    Fit fit = finder.explain(source(3.0, 6.0, 50, 40 * GIB), PLAIN);
    assertThat(fit.chosen()).isNotNull();
    assertThat(fit.chosen().tier().id()).isEqualTo("middle");
    assertThat(fit.chosen().binding()).contains(Dimension.CPU);
    assertThat(fit.runnerUp().tier().id()).isEqualTo("large");
    assertThat(fit.nextCheaper().tier().id()).isEqualTo("small");
    assertThat(fit.reason()).contains("CPU binds at 60%", "small, falls short: CPU by 20%");
  }

  @Test
  void buysStorageForTheReadsThatHangOnIt() {
    Fit fit =
        finder.find(source(1.0, 1.0, 1_000, 40 * GIB), demand(source(1.0, 1.0, 1_000, 40 * GIB)));
    assertThat(fit.chosen().tier().id()).isEqualTo("small");
    assertThat(fit.chosen().storageGib()).isEqualTo(300);
    assertThat(fit.chosen().monthlyPrice()).isEqualTo(0.1 * 730 + 0.1 * 300);
  }

  @Test
  void saysAtWhichPercentileTheAnswerTurns() {
    Fit fit = finder.explain(source(2.4, 4.0, 50, 40 * GIB), PLAIN);
    assertThat(fit.chosen().tier().id()).isEqualTo("small");
    assertThat(fit.turnsAtPercentile()).isEqualTo(96);
  }

  @Test
  void unknownProcessorUseIsUnsizedAndSaysWhatToCollect() {
    Fit fit = finder.explain(source(null, 4.0, 50, 40 * GIB), PLAIN);
    assertThat(fit.chosen()).isNull();
    assertThat(fit.reason()).contains("Unsized", "CPU unknown: collect cpu_cores");
  }

  @Test
  void whatFitsNothingSaysHowFarTheNearestFallsShort() {
    Fit fit = finder.explain(source(20.0, 4.0, 50, 40 * GIB), PLAIN);
    assertThat(fit.chosen()).isNull();
    assertThat(fit.reason()).contains("No tier fits", "large", "CPU by 100%");
  }

  @Test
  void anEngineThatNoKindRunsIsSaid() {
    SourceProfile other = source(1.0, 1.0, 1, GIB);
    SourceProfile oracle =
        new SourceProfile(
            other.key(),
            "Oracle",
            1.0,
            null,
            1,
            GIB,
            null,
            other.series(),
            Optional.empty(),
            other.confidence());
    assertThat(finder.explain(oracle, PLAIN).reason()).contains("No target kind", "Oracle");
  }

  @Test
  void storageGrowsToTheHorizonByWhatWasMeasured() {
    SourceProfile base = source(1.0, 1.0, 1, null);
    SourceProfile growing =
        new SourceProfile(
            base.key(),
            base.engine(),
            1.0,
            null,
            1,
            null,
            null,
            base.series(),
            Optional.of(new SizeTrend(100.0 * GIB, 1.0 * GIB)),
            base.confidence());
    DemandValue storage =
        new DemandCalculator(new SizingSettings(95, 20, 12, 30, 10))
            .of(growing)
            .in(Dimension.STORAGE);
    assertThat(storage.needed() / GIB)
        .isCloseTo((100 + 365.25) * 1.2, org.assertj.core.api.Assertions.within(1e-6));
    assertThat(storage.reason()).contains("measured growth");
  }

  @Test
  void storageGrowsAsTheInventoryTellsWhereTooFewSizesWereMeasured() {
    SourceProfile base = source(1.0, 1.0, 1, null);
    SourceProfile told =
        new SourceProfile(
            base.key(),
            base.engine(),
            1.0,
            null,
            1,
            100 * GIB,
            50.0,
            base.series(),
            Optional.empty(),
            base.confidence());
    DemandValue storage =
        new DemandCalculator(new SizingSettings(95, 20, 12, 30, 10)).of(told).in(Dimension.STORAGE);
    assertThat(storage.needed() / GIB)
        .isCloseTo(150 * 1.2, org.assertj.core.api.Assertions.within(1e-6));
    assertThat(storage.reason()).contains("inventory's 50% a year", "fewer than 8 days");
  }

  @Test
  void memoryFallsBackToAShareOfTheCacheAndSaysSo() {
    SourceProfile base = source(1.0, null, 1, GIB);
    SourceProfile cached =
        new SourceProfile(
            base.key(),
            base.engine(),
            1.0,
            8 * GIB,
            4,
            GIB,
            null,
            base.series(),
            Optional.empty(),
            base.confidence());
    DemandValue memory = new DemandCalculator(PLAIN).of(cached).in(Dimension.MEMORY);
    assertThat(memory.needed()).isEqualTo(2.0 * GIB);
    assertThat(memory.reason()).contains("shared equally by its 4 databases");
  }

  private static Demand demand(SourceProfile source) {
    return new DemandCalculator(PLAIN).of(source);
  }
}

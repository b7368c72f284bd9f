package org.transitum.server.sizing;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.DoubleStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.transitum.core.counters.AlignedSeries;
import org.transitum.core.counters.Measure;
import org.transitum.core.inventory.Attribute;
import org.transitum.core.inventory.EstateObject;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.core.sizing.Catalogue;
import org.transitum.core.sizing.Confidence;
import org.transitum.core.sizing.Configuration;
import org.transitum.core.sizing.Demand;
import org.transitum.core.sizing.DemandCalculator;
import org.transitum.core.sizing.DemandValue;
import org.transitum.core.sizing.Dimension;
import org.transitum.core.sizing.Fit;
import org.transitum.core.sizing.FitFinder;
import org.transitum.core.sizing.Percentile;
import org.transitum.core.sizing.SizingSettings;
import org.transitum.core.sizing.SourceProfile;
import org.transitum.server.counters.SeriesStore;
import org.transitum.server.inventory.EstateStore;
import org.transitum.server.problems.Missing;
import org.transitum.server.programme.ProgrammeService;

/** Fits under the kept settings and under any others that somebody tries. */
@Service
public class SizingService {
  private static final Set<String> STAYS = Set.of("retire", "keep", "replace");
  private static final int CURVE_POINTS = 200;

  private final EstateStore estate;
  private final SeriesStore series;
  private final ProfileStore profiles;
  private final CatalogueService catalogues;
  private final ProgrammeService programme;

  SizingService(
      EstateStore estate,
      SeriesStore series,
      ProfileStore profiles,
      CatalogueService catalogues,
      ProgrammeService programme) {
    this.estate = estate;
    this.series = series;
    this.profiles = profiles;
    this.catalogues = catalogues;
    this.programme = programme;
  }

  /**
   * A database's fit in one line.
   *
   * @param tier name of the fit; absent where unsized
   * @param keptTier name of the fit under the kept settings
   * @param reason why it is unsized; absent where it is sized
   */
  public record SizingRow(
      String key,
      @Nullable String tier,
      @Nullable String kind,
      @Nullable Double monthlyPrice,
      @Nullable String keptTier,
      @Nullable Dimension binding,
      @Nullable Double bindingUtilisation,
      Confidence confidence,
      @Nullable String reason) {}

  /**
   * The estate's fits under some settings.
   *
   * @param keptMonthlyPrice the total under the kept settings
   * @param changed how many databases change tier against the kept settings
   */
  public record EstateSizing(
      @Nullable String catalogue,
      @Nullable String currency,
      SizingSettings settings,
      SizingSettings kept,
      int keptVersion,
      double monthlyPrice,
      double keptMonthlyPrice,
      int sized,
      int unsized,
      int changed,
      int weak,
      List<SizingRow> rows) {}

  /**
   * A configuration with words for the screen.
   *
   * @param limits what it gives per dimension, in the dimension's unit
   */
  public record Rung(
      String tierId,
      String tier,
      String kind,
      double cpuCores,
      double memoryGib,
      int storageGib,
      double monthlyPrice,
      boolean feasible,
      Map<Dimension, Double> utilisation,
      Map<Dimension, Double> limits,
      @Nullable Dimension binding,
      String verdict) {}

  /**
   * One measured series with what the workbench draws of it.
   *
   * @param values in the measure's unit, one per bucket, thinned to the maximum of neighbours; null
   *     is missing
   * @param curve values sorted downwards at equal shares of time, {@code 0} to {@code 1}
   * @param heat percentile per weekday (0 = Monday) and hour in the programme's zone; null is
   *     missing
   */
  public record SeriesView(
      Dimension dimension,
      String label,
      String unit,
      long startSeconds,
      int stepSeconds,
      List<Double> values,
      List<Double> curve,
      List<List<Double>> heat,
      double factor) {}

  public record DimensionView(
      Dimension dimension,
      String label,
      String unit,
      @Nullable Double measured,
      @Nullable Double needed,
      String reason) {}

  public record DatabaseSizing(
      String key,
      String words,
      SizingSettings settings,
      @Nullable String currency,
      Confidence confidence,
      List<DimensionView> demand,
      String reason,
      @Nullable String chosen,
      @Nullable String runnerUp,
      List<Rung> ladder,
      List<SeriesView> series) {}

  public EstateSizing estate(SizingSettings settings) {
    ProgrammeService.Programme now = programme.current();
    Catalogue catalogue = catalogues.current().orElse(null);
    if (catalogue == null) {
      return new EstateSizing(
          null, null, settings, now.sizing(), now.version(), 0, 0, 0, 0, 0, 0, List.of());
    }
    FitFinder finder = new FitFinder(catalogue);
    DemandCalculator tried = new DemandCalculator(settings);
    DemandCalculator kept = new DemandCalculator(now.sizing());
    boolean same = settings.equals(now.sizing());
    List<Priced> priced =
        profiles.all(settings.lookBackDays()).parallelStream()
            .filter(profile -> !stays(profile.key()))
            .map(
                profile -> {
                  Fit fit = finder.find(profile, tried.of(profile));
                  Fit before = same ? fit : finder.find(profile, kept.of(profile));
                  return new Priced(row(profile, fit, before, catalogue), price(before));
                })
            .toList();
    List<SizingRow> rows = new ArrayList<>(priced.stream().map(Priced::row).toList());
    double keptTotal = priced.stream().mapToDouble(Priced::keptPrice).sum();
    rows.sort(
        Comparator.comparingDouble(
                (SizingRow row) -> row.monthlyPrice() == null ? -1 : row.monthlyPrice())
            .reversed()
            .thenComparing(SizingRow::key));
    return new EstateSizing(
        catalogue.name(),
        catalogue.currency(),
        settings,
        now.sizing(),
        now.version(),
        rows.stream().mapToDouble(row -> row.monthlyPrice() == null ? 0 : row.monthlyPrice()).sum(),
        keptTotal,
        (int) rows.stream().filter(row -> row.tier() != null).count(),
        (int) rows.stream().filter(row -> row.tier() == null).count(),
        (int) rows.stream().filter(SizingService::changed).count(),
        (int) rows.stream().filter(row -> row.confidence().level() == Confidence.Level.LOW).count(),
        rows);
  }

  private record Priced(SizingRow row, double keptPrice) {}

  private static double price(Fit fit) {
    return fit.chosen() == null ? 0 : fit.chosen().monthlyPrice();
  }

  private static boolean changed(SizingRow row) {
    return !java.util.Objects.equals(row.tier(), row.keptTier());
  }

  private boolean stays(String key) {
    return estate
        .find(ObjectKind.DATABASE, key)
        .flatMap(database -> database.value(Attribute.DISPOSITION))
        .filter(STAYS::contains)
        .isPresent();
  }

  private static SizingRow row(SourceProfile profile, Fit fit, Fit kept, Catalogue catalogue) {
    Configuration chosen = fit.chosen();
    return new SizingRow(
        profile.key(),
        chosen == null ? null : chosen.tier().name(),
        chosen == null ? null : catalogue.kind(chosen.tier().kind()).name(),
        chosen == null ? null : chosen.monthlyPrice(),
        kept.chosen() == null ? null : kept.chosen().tier().name(),
        chosen == null ? null : chosen.binding().orElse(null),
        chosen == null ? null : chosen.bindingUtilisation(),
        profile.confidence(),
        chosen == null ? fit.reason() : null);
  }

  public DatabaseSizing database(String key, SizingSettings settings) {
    EstateObject database =
        estate
            .find(ObjectKind.DATABASE, key)
            .orElseThrow(() -> new Missing("The inventory has no database \"%s\".".formatted(key)));
    Map<Measure, AlignedSeries> of = series.of(key, settings.lookBackDays());
    SourceProfile profile = profiles.exact(database, of, settings.lookBackDays());
    Demand demand = new DemandCalculator(settings).of(profile);
    Catalogue catalogue = catalogues.current().orElse(null);
    Fit fit =
        catalogue == null
            ? new Fit(null, null, null, List.of(), null, "No catalogue yet: read one first.")
            : new FitFinder(catalogue).explain(profile, settings);
    HeatGrid heat = new HeatGrid(programme.current().zone());
    List<SeriesView> views = new ArrayList<>();
    for (Dimension dimension : Dimension.values()) {
      AlignedSeries aligned = of.get(dimension.measure());
      if (aligned != null) {
        double factor =
            dimension == Dimension.CPU && profile.cpuIndex() != null ? profile.cpuIndex() : 1;
        views.add(view(dimension, aligned, settings.percentile(), factor, heat));
      }
    }
    return new DatabaseSizing(
        key,
        words(database),
        settings,
        catalogue == null ? null : catalogue.currency(),
        profile.confidence(),
        demand.values().values().stream().map(SizingService::view).toList(),
        fit.reason(),
        fit.chosen() == null ? null : fit.chosen().tier().id(),
        fit.runnerUp() == null ? null : fit.runnerUp().tier().id(),
        catalogue == null
            ? List.of()
            : fit.ladder().stream().map(rung -> rung(rung, fit, catalogue)).toList(),
        views);
  }

  private static DimensionView view(DemandValue value) {
    return new DimensionView(
        value.dimension(),
        value.dimension().label(),
        value.dimension().unit(),
        value.measured(),
        value.needed(),
        value.reason());
  }

  private static Rung rung(Configuration configuration, Fit fit, Catalogue catalogue) {
    Configuration chosen = fit.chosen();
    String verdict;
    if (!configuration.feasible()) {
      verdict = "short: " + FitFinder.shortfall(configuration);
    } else if (configuration == chosen) {
      verdict = "fits, the cheapest that does";
    } else {
      double more = chosen == null ? 0 : configuration.monthlyPrice() - chosen.monthlyPrice();
      verdict = "fits, %,.0f %s more a month".formatted(more, catalogue.currency());
    }
    return new Rung(
        configuration.tier().id(),
        configuration.tier().name(),
        catalogue.kind(configuration.tier().kind()).name(),
        configuration.tier().cpuCores(),
        configuration.tier().memoryGib(),
        configuration.storageGib(),
        configuration.monthlyPrice(),
        configuration.feasible(),
        configuration.utilisation(),
        limits(configuration),
        configuration.binding().orElse(null),
        verdict);
  }

  private static SeriesView view(
      Dimension dimension, AlignedSeries aligned, double percentile, double factor, HeatGrid heat) {
    double[] sorted = aligned.sortedPresent();
    List<Double> curve =
        DoubleStream.iterate(0, at -> at <= CURVE_POINTS, at -> at + 1)
            .map(at -> Percentile.of(sorted, 100 - 100 * at / CURVE_POINTS).orElse(0))
            .boxed()
            .toList();
    AlignedSeries thin = Thinning.thin(aligned);
    List<Double> values = new ArrayList<>();
    for (double value : thin.values()) {
      values.add(Double.isNaN(value) ? null : value);
    }
    return new SeriesView(
        dimension,
        dimension.label(),
        dimension.measure().unit(),
        thin.startSeconds(),
        thin.stepSeconds(),
        values,
        curve,
        heat.of(aligned, percentile),
        factor);
  }

  private String words(EstateObject database) {
    EstateObject instance = estate.instance(database).orElse(null);
    if (instance == null) {
      return "instance unknown";
    }
    Map<String, String> parts = new HashMap<>();
    estate
        .host(instance)
        .ifPresent(
            host -> {
              host.value(Attribute.CPU_CORES)
                  .ifPresent(
                      cores ->
                          parts.put(
                              "cpu",
                              ", %s cores at index %s"
                                  .formatted(
                                      cores, host.value(Attribute.CPU_INDEX).orElse("unknown"))));
              host.number(Attribute.MEMORY_BYTES)
                  .ifPresent(memory -> parts.put("memory", ", %d GiB".formatted(memory >> 30)));
            });
    return instance.value(Attribute.ENGINE).orElse("engine unknown")
        + instance.value(Attribute.VERSION).map(version -> " " + version).orElse("")
        + parts.getOrDefault("cpu", "")
        + parts.getOrDefault("memory", "");
  }

  private static Map<Dimension, Double> limits(Configuration configuration) {
    Map<Dimension, Double> limits = new EnumMap<>(Dimension.class);
    Configuration.limits(configuration.tier())
        .forEach((dimension, limit) -> limits.put(dimension, limit.at(configuration.storageGib())));
    limits.put(Dimension.STORAGE, configuration.storageGib() * (double) (1L << 30));
    return limits;
  }
}

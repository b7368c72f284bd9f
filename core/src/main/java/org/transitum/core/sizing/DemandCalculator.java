package org.transitum.core.sizing;

import java.util.EnumMap;
import java.util.Map;
import java.util.OptionalDouble;
import org.transitum.core.sizing.SourceProfile.Quantiles;
import org.transitum.core.sizing.SourceProfile.SizeTrend;

/**
 * Demand per dimension: percentile × headroom; storage: latest size extrapolated to the horizon
 * plus headroom as free-space reserve. Growth is measured over at least 8 days of sizes, else what
 * the inventory tells of the database, else the programme's default.
 *
 * <p>CPU counts in reference cores: cores used × the source's speed index. Memory is the measured
 * working set, else the configured cache's equal share among the instance's databases; the host's
 * total is never taken. A dimension without evidence is unknown and says what to collect.
 */
public final class DemandCalculator {
  private static final double DAYS_PER_MONTH = 365.25 / 12;

  private final SizingSettings settings;
  private final String percentileWords;
  private final String headroomWords;

  public DemandCalculator(SizingSettings settings) {
    this.settings = settings;
    this.percentileWords = "P" + trimmed(settings.percentile());
    this.headroomWords = " + " + settings.headroomPercent() + "% headroom";
  }

  public Demand of(SourceProfile source) {
    Map<Dimension, DemandValue> values = new EnumMap<>(Dimension.class);
    for (Dimension dimension : Dimension.values()) {
      values.put(
          dimension,
          switch (dimension) {
            case CPU -> cpu(source);
            case MEMORY -> memory(source);
            case STORAGE -> storage(source);
            default -> plain(source, dimension, 1, "");
          });
    }
    return new Demand(values, source.confidence());
  }

  private DemandValue cpu(SourceProfile source) {
    double index = source.cpuIndex() == null ? 1 : source.cpuIndex();
    String why =
        source.cpuIndex() == null
            ? "; the source's speed index is unknown and taken as 1"
            : " × speed index " + trimmed(Math.round(index * 100) / 100.0);
    return plain(source, Dimension.CPU, index, why);
  }

  private DemandValue memory(SourceProfile source) {
    if (source.series().containsKey(Dimension.MEMORY)) {
      return plain(source, Dimension.MEMORY, 1, "");
    }
    if (source.cacheBytes() == null) {
      return unknown(Dimension.MEMORY, "collect working_set_bytes, or read the configured cache");
    }
    double share = source.cacheBytes() / (double) source.databasesOnInstance();
    return new DemandValue(
        Dimension.MEMORY,
        share,
        share * settings.headroomFactor(),
        "configured cache of the instance shared equally by its "
            + source.databasesOnInstance()
            + " databases + "
            + settings.headroomPercent()
            + "%; no working set measured");
  }

  private DemandValue storage(SourceProfile source) {
    SizeTrend trend = source.sizeTrend().orElse(null);
    double latest;
    if (trend != null) {
      latest = trend.latestBytes();
    } else if (source.sizeBytes() != null) {
      latest = source.sizeBytes();
    } else {
      return unknown(Dimension.STORAGE, "read the server, or collect size_bytes");
    }
    double days = settings.horizonMonths() * DAYS_PER_MONTH;
    double growth;
    String why;
    if (trend != null && trend.bytesPerDay() != null) {
      growth = Math.max(0, trend.bytesPerDay() * days);
      why = "latest size + " + settings.horizonMonths() + " months at the measured growth";
    } else {
      Double told = source.growthPercentPerYear();
      double percent = told == null ? settings.growthPercentPerYear() : told;
      growth = Math.max(0, latest * (Math.pow(1 + percent / 100, days / 365.25) - 1));
      why =
          "latest size + %d months at the %s %s%% a year, as fewer than 8 days of sizes are known"
              .formatted(
                  settings.horizonMonths(),
                  told == null ? "assumed" : "inventory's",
                  trimmed(percent));
    }
    return new DemandValue(
        Dimension.STORAGE,
        latest,
        (latest + growth) * settings.headroomFactor(),
        why + " + " + settings.headroomPercent() + "% free space");
  }

  private DemandValue plain(
      SourceProfile source, Dimension dimension, double factor, String factorWords) {
    Quantiles quantiles = source.series().get(dimension);
    OptionalDouble measured =
        quantiles == null ? OptionalDouble.empty() : quantiles.percentile(settings.percentile());
    if (measured.isEmpty()) {
      return unknown(dimension, "collect " + dimension.measure().column() + " for this database");
    }
    return new DemandValue(
        dimension,
        measured.getAsDouble(),
        measured.getAsDouble() * factor * settings.headroomFactor(),
        percentileWords + factorWords + headroomWords);
  }

  private static DemandValue unknown(Dimension dimension, String collect) {
    return new DemandValue(dimension, null, null, "unknown: " + collect);
  }

  static String trimmed(double value) {
    return value == Math.rint(value) ? Long.toString((long) value) : Double.toString(value);
  }
}

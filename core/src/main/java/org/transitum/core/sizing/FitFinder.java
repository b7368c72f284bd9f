package org.transitum.core.sizing;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.transitum.core.sizing.Catalogue.Tier;
import org.transitum.core.sizing.Configuration.Offer;

/**
 * Chooses the cheapest feasible configuration per month.
 *
 * <p>Equal prices go to the lower binding utilisation, then to the tier's id, so that the answer
 * depends on nothing but its inputs. O(tiers × dimensions) for one database.
 */
public final class FitFinder {

  private static final Comparator<Configuration> BY_PRICE =
      Comparator.comparingDouble(Configuration::monthlyPrice)
          .thenComparingDouble(Configuration::bindingUtilisation)
          .thenComparing(configuration -> configuration.tier().id());

  private final Catalogue catalogue;
  private final Map<String, List<Offer>> byEngine = new HashMap<>();

  public FitFinder(Catalogue catalogue) {
    this.catalogue = catalogue;
    for (Tier tier : catalogue.tiers()) {
      Offer offer = new Offer(tier, Configuration.limits(tier), catalogue.hoursPerMonth());
      for (String engine : catalogue.kind(tier.kind()).engines()) {
        byEngine.computeIfAbsent(engine, key -> new ArrayList<>()).add(offer);
      }
    }
  }

  /** The fit with everything that explains it. */
  public Fit explain(SourceProfile source, SizingSettings settings) {
    Demand demand = new DemandCalculator(settings).of(source);
    Fit fit = find(source, demand);
    if (fit.chosen() == null) {
      return fit;
    }
    Double turn = turnsAt(source, settings, fit.chosen());
    String reason =
        reason(fit.chosen(), fit.runnerUp(), fit.nextCheaper())
            + (turn == null
                ? " No higher percentile changes the tier."
                : " Turns to another tier at P%s.".formatted(DemandCalculator.trimmed(turn)));
    return new Fit(fit.chosen(), fit.runnerUp(), fit.nextCheaper(), fit.ladder(), turn, reason);
  }

  /** The fit for a demand; gives its reason only where nothing is chosen. */
  public Fit find(SourceProfile source, Demand demand) {
    String missing =
        demand.values().values().stream()
            .filter(value -> value.dimension().required() && !value.known())
            .map(value -> value.dimension().label() + " " + value.reason())
            .collect(Collectors.joining("; "));
    if (!missing.isEmpty()) {
      return none("Unsized. " + capital(missing) + ".");
    }
    if (source.engine() == null) {
      return none("Unsized. The engine is unknown: read the server, or state it.");
    }
    String engine = source.engine();
    List<Configuration> ladder =
        byEngine.getOrDefault(engine, List.of()).stream()
            .map(offer -> Configuration.cheapest(offer, demand))
            .sorted(BY_PRICE)
            .toList();
    if (ladder.isEmpty()) {
      return none("No target kind of %s runs %s.".formatted(catalogue.name(), engine));
    }
    List<Configuration> feasible = ladder.stream().filter(Configuration::feasible).toList();
    if (feasible.isEmpty()) {
      return new Fit(null, null, null, ladder, null, nothingFits(ladder));
    }
    Configuration chosen = feasible.get(0);
    Configuration runnerUp = feasible.size() > 1 ? feasible.get(1) : null;
    Configuration cheaper =
        ladder.stream()
            .takeWhile(configuration -> configuration != chosen)
            .reduce((first, second) -> second)
            .orElse(null);
    return new Fit(chosen, runnerUp, cheaper, ladder, null, "");
  }

  private static Fit none(String reason) {
    return new Fit(null, null, null, List.of(), null, reason);
  }

  private String nothingFits(List<Configuration> ladder) {
    Configuration nearest =
        ladder.stream()
            .min(Comparator.comparingDouble(Configuration::bindingUtilisation))
            .orElseThrow();
    return "No tier fits. The nearest, %s, falls short: %s."
        .formatted(nearest.tier().name(), shortfall(nearest));
  }

  private String reason(
      Configuration chosen, @Nullable Configuration runnerUp, @Nullable Configuration cheaper) {
    StringBuilder words = new StringBuilder();
    Dimension binding = chosen.binding().orElse(Dimension.STORAGE);
    words.append(
        "%s with %,d GiB is the cheapest that fits; %s binds at %.0f%%."
            .formatted(
                chosen.tier().name(),
                chosen.storageGib(),
                binding.label(),
                chosen.bindingUtilisation() * 100));
    if (cheaper != null) {
      words.append(
          " The next cheaper, %s, falls short: %s."
              .formatted(cheaper.tier().name(), shortfall(cheaper)));
    }
    if (runnerUp != null) {
      words.append(
          " The runner-up, %s, costs %s %,.0f more a month."
              .formatted(
                  runnerUp.tier().name(),
                  catalogue.currency(),
                  runnerUp.monthlyPrice() - chosen.monthlyPrice()));
    }
    return words.toString();
  }

  /** In words: each dimension that is short and by how much of what the tier gives. */
  public static String shortfall(Configuration configuration) {
    return configuration.shortIn().stream()
        .map(
            dimension ->
                "%s by %.0f%%"
                    .formatted(
                        dimension.label(),
                        (Objects.requireNonNull(configuration.utilisation().get(dimension)) - 1)
                            * 100))
        .collect(Collectors.joining(", "));
  }

  private @Nullable Double turnsAt(
      SourceProfile source, SizingSettings settings, Configuration today) {
    return stopsAbove(settings.percentile())
        .filter(
            percentile -> {
              Demand demand =
                  new DemandCalculator(
                          new SizingSettings(
                              percentile,
                              settings.headroomPercent(),
                              settings.horizonMonths(),
                              settings.lookBackDays(),
                              settings.growthPercentPerYear()))
                      .of(source);
              Configuration then = find(source, demand).chosen();
              return then == null || !then.tier().id().equals(today.tier().id());
            })
        .boxed()
        .findFirst()
        .orElse(null);
  }

  /** Whole percents, then tenths from 99 on. */
  private static java.util.stream.DoubleStream stopsAbove(double percentile) {
    return IntStream.rangeClosed(500, 1000)
        .filter(tenths -> tenths % 10 == 0 || tenths > 990)
        .mapToDouble(tenths -> tenths / 10.0)
        .filter(stop -> stop > percentile);
  }

  private static String capital(String text) {
    return Character.toUpperCase(text.charAt(0)) + text.substring(1);
  }
}

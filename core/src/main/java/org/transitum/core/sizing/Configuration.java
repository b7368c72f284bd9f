package org.transitum.core.sizing;

import java.util.Comparator;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.transitum.core.sizing.Catalogue.Limit;
import org.transitum.core.sizing.Catalogue.Tier;

/**
 * A tier with an amount of storage, held against a demand.
 *
 * @param storageGib bought, a whole step
 * @param monthlyPrice in the catalogue's currency
 * @param utilisation needed / given per known dimension; above 1 it falls short
 */
public record Configuration(
    Tier tier, int storageGib, double monthlyPrice, Map<Dimension, Double> utilisation) {

  private static final double GIB = 1024.0 * 1024 * 1024;

  /** A tier with everything that does not hang on the demand. */
  record Offer(Tier tier, Map<Dimension, Limit> limits, int hoursPerMonth) {}

  /** The least storage of the tier that serves the demand, or its most where none does. */
  static Configuration cheapest(Offer offer, Demand demand) {
    Tier tier = offer.tier();
    double wanted = 0;
    for (Map.Entry<Dimension, Limit> limit : offer.limits().entrySet()) {
      DemandValue value = demand.in(limit.getKey());
      if (value.needed() != null) {
        double gib = limit.getValue().gibFor(value.needed());
        wanted = Math.max(wanted, Double.isInfinite(gib) ? 0 : gib);
      }
    }
    Double stored = demand.in(Dimension.STORAGE).needed();
    if (stored != null) {
      wanted = Math.max(wanted, stored / GIB);
    }
    int step = tier.storage().stepGib();
    double steps = Math.ceil(Math.max(wanted, tier.storage().minGib()) / step);
    int gib = (int) Math.min(tier.storage().maxGib(), steps * step);
    double price = tier.pricePerHour() * offer.hoursPerMonth() + tier.pricePerGibMonth() * gib;
    return new Configuration(tier, gib, price, utilisation(offer.limits(), gib, demand));
  }

  private static Map<Dimension, Double> utilisation(
      Map<Dimension, Limit> limits, int gib, Demand demand) {
    Map<Dimension, Double> result = new EnumMap<>(Dimension.class);
    for (Dimension dimension : Dimension.values()) {
      Double needed = demand.in(dimension).needed();
      if (needed == null) {
        continue;
      }
      if (dimension == Dimension.STORAGE) {
        result.put(dimension, needed / (gib * GIB));
      } else {
        Limit limit = limits.get(dimension);
        if (limit != null) {
          result.put(dimension, needed / limit.at(gib));
        }
      }
    }
    return result;
  }

  /** All limits of a tier in the dimensions' units, those of its cores and memory included. */
  public static Map<Dimension, Limit> limits(Tier tier) {
    Map<Dimension, Limit> limits = new EnumMap<>(Dimension.class);
    limits.putAll(tier.limits());
    limits.put(Dimension.CPU, Limit.fixed(tier.cpuCores() * tier.cpuIndex()));
    limits.put(Dimension.MEMORY, Limit.fixed(tier.memoryGib() * GIB));
    return limits;
  }

  public boolean feasible() {
    for (double used : utilisation.values()) {
      if (used > 1) {
        return false;
      }
    }
    return true;
  }

  /**
   * The dimension used most; ties go to the first in the order of {@link Dimension}. Storage counts
   * only where the tier gives no more of it: below that, just enough is bought, so that it is
   * always nearly full and says nothing.
   */
  public Optional<Dimension> binding() {
    return utilisation.entrySet().stream()
        .filter(entry -> limits(entry.getKey()))
        .max(
            Map.Entry.<Dimension, Double>comparingByValue()
                .thenComparing(Map.Entry.comparingByKey(Comparator.reverseOrder())))
        .map(Map.Entry::getKey);
  }

  /** How much of the binding dimension is used; 0 where nothing is limited. */
  public double bindingUtilisation() {
    return utilisation.entrySet().stream()
        .filter(entry -> limits(entry.getKey()))
        .mapToDouble(Map.Entry::getValue)
        .max()
        .orElse(0);
  }

  private boolean limits(Dimension dimension) {
    return dimension != Dimension.STORAGE || storageGib >= tier.storage().maxGib();
  }

  /** The dimensions in which it falls short, worst first. */
  public List<Dimension> shortIn() {
    return utilisation.entrySet().stream()
        .filter(entry -> entry.getValue() > 1)
        .sorted(Map.Entry.<Dimension, Double>comparingByValue().reversed())
        .map(Map.Entry::getKey)
        .toList();
  }
}

package org.transitum.core.sizing;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What a destination offers; read from a file that the lead can edit.
 *
 * @param currency ISO 4217 code
 * @param hoursPerMonth price hours of a month, 730 for round-the-clock running
 */
public record Catalogue(
    String name, String currency, int hoursPerMonth, List<TargetKind> kinds, List<Tier> tiers) {

  /**
   * @param engines labels of the engines this kind can run
   */
  public record TargetKind(String id, String name, List<String> engines) {}

  /**
   * A limit in one dimension: a fixed amount, or an amount per GiB of storage bought on top of a
   * base, up to a cap.
   */
  public record Limit(double base, double perGib, @Nullable Double cap) {
    public static Limit fixed(double amount) {
      return new Limit(amount, 0, null);
    }

    public double at(double gib) {
      double amount = base + perGib * gib;
      return cap == null ? amount : Math.min(cap, amount);
    }

    /** The least storage that gives {@code amount}; infinite where none does. */
    double gibFor(double amount) {
      if (amount <= base) {
        return 0;
      }
      if (perGib == 0 || (cap != null && amount > cap)) {
        return Double.POSITIVE_INFINITY;
      }
      return (amount - base) / perGib;
    }
  }

  /** Storage that can be bought, in GiB, in whole steps. */
  public record Storage(int minGib, int maxGib, int stepGib) {}

  /**
   * @param limits in the dimension's unit; CPU in reference cores, memory in bytes. A dimension
   *     that is absent is not limited. Storage is limited by {@code storage}.
   */
  public record Tier(
      String id,
      String name,
      String kind,
      double cpuCores,
      double cpuIndex,
      double memoryGib,
      double pricePerHour,
      double pricePerGibMonth,
      Storage storage,
      Map<Dimension, Limit> limits) {}

  public TargetKind kind(String id) {
    return kinds.stream()
        .filter(kind -> kind.id().equals(id))
        .findFirst()
        .orElseThrow(() -> new IllegalArgumentException("no target kind " + id));
  }
}

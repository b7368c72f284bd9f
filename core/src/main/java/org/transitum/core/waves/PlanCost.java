package org.transitum.core.waves;

/**
 * What a placement costs beside its breaches, in the lead's cost points.
 *
 * @param splitTies weight × days of loose ties between different waves
 * @param risk critical groups early, or on the last wave
 * @param waiting bytes × waves on the source, so that what can go early goes early
 */
public record PlanCost(double splitTies, double risk, double waiting) {
  public double total() {
    return splitTies + risk + waiting;
  }
}

package org.transitum.core.waves;

import java.util.List;

/** What a placement breaks and what it costs. */
public record Assessment(List<Breach> breaches, PlanCost cost) {
  public boolean feasible() {
    return breaches.isEmpty();
  }
}

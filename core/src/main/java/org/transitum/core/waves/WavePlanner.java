package org.transitum.core.waves;

/** Places move groups into waves. The same problem gives the same plan. */
public interface WavePlanner {
  Plan plan(PlanningProblem problem);
}

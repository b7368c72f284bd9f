package org.transitum.core.waves;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.transitum.core.waves.Breach.Limit;
import org.transitum.core.waves.PlanningProblem.GroupTie;

/**
 * Holds a placement against every hard limit and prices it. A plan of nothing breaks nothing and
 * costs nothing. O(groups + ties) for a whole plan.
 */
public final class PlanAssessor {
  private static final double RISK_WEIGHT = 4;
  private static final double WAITING_PER_TIB = 0.5;
  private static final double TIB = 1024.0 * 1024 * 1024 * 1024;

  private final PlanningProblem problem;
  private final Map<String, Integer> waveIndex = new HashMap<>();
  private final Map<String, GroupLoad> loads = new HashMap<>();

  public PlanAssessor(PlanningProblem problem) {
    this.problem = problem;
    for (int i = 0; i < problem.waves().size(); i++) {
      waveIndex.put(problem.waves().get(i).key(), i);
    }
    problem.groups().forEach(load -> loads.put(load.key(), load));
  }

  /**
   * @param placement group key to wave key; a group that is absent is unplaced
   */
  public Assessment assess(Map<String, String> placement) {
    List<Breach> breaches = new ArrayList<>();
    for (Wave wave : problem.waves()) {
      List<GroupLoad> placed =
          problem.groups().stream()
              .filter(load -> wave.key().equals(placement.get(load.key())))
              .toList();
      breaches.addAll(totals(wave, placed));
      placed.forEach(load -> breaches.addAll(alone(wave, load)));
    }
    for (GroupTie tie : problem.ties()) {
      Breach breach = order(tie, placement);
      if (breach != null) {
        breaches.add(breach);
      }
    }
    return new Assessment(List.copyOf(breaches), cost(placement));
  }

  /** What a group breaks in a wave, whatever else is placed there. */
  public List<Breach> alone(Wave wave, GroupLoad load) {
    List<Breach> breaches = new ArrayList<>();
    if (!wave.open() && !wave.key().equals(problem.locked().get(load.key()))) {
      breaches.add(breach(Limit.CLOSED, wave, load.key(), "%s has begun.", wave.key()));
    }
    if (load.outageMinutes() > wave.windowMinutes()) {
      breaches.add(
          breach(
              Limit.WINDOW,
              wave,
              load.key(),
              "%s needs %s of outage; the window of %s is %s.",
              load.key(),
              hours(load.outageMinutes()),
              wave.key(),
              hours(wave.windowMinutes())));
    }
    if (load.outageMinutes() > load.permittedMinutes()) {
      breaches.add(
          breach(
              Limit.PERMITTED_OUTAGE,
              wave,
              load.key(),
              "%s needs %s of outage; its applications permit %s.",
              load.key(),
              hours(load.outageMinutes()),
              hours(load.permittedMinutes())));
    }
    for (Freeze freeze : problem.freezes()) {
      if (freeze.touches(wave.start(), wave.end())) {
        breaches.add(
            breach(
                Limit.FREEZE,
                wave,
                load.key(),
                "%s lies in the freeze \"%s\".",
                wave.key(),
                freeze.reason()));
      }
    }
    return breaches;
  }

  private List<Breach> totals(Wave wave, List<GroupLoad> placed) {
    List<Breach> breaches = new ArrayList<>();
    int databases = placed.stream().mapToInt(GroupLoad::databases).sum();
    long bytes = placed.stream().mapToLong(GroupLoad::bytes).sum();
    if (databases > wave.maxDatabases()) {
      breaches.add(
          breach(
              Limit.DATABASES,
              wave,
              wave.key(),
              "%s would hold %d databases; its limit is %d.",
              wave.key(),
              databases,
              wave.maxDatabases()));
    }
    if (bytes > wave.maxBytes()) {
      breaches.add(
          breach(
              Limit.BYTES,
              wave,
              wave.key(),
              "%s would copy %.2f TiB; its limit is %.2f TiB.",
              wave.key(),
              bytes / TIB,
              wave.maxBytes() / TIB));
    }
    return breaches;
  }

  private @Nullable Breach order(GroupTie tie, Map<String, String> placement) {
    String second = placement.get(tie.to());
    if (!tie.ordered() || second == null) {
      return null;
    }
    String first = placement.get(tie.from());
    if (first == null) {
      return new Breach(
          Limit.ORDER,
          second,
          tie.to(),
          "%s must not cross before %s, which has no wave.".formatted(tie.to(), tie.from()));
    }
    if (index(first) <= index(second)) {
      return null;
    }
    return new Breach(
        Limit.ORDER,
        second,
        tie.to(),
        "%s in %s would cross before %s in %s, which must go first."
            .formatted(tie.to(), second, tie.from(), first));
  }

  private PlanCost cost(Map<String, String> placement) {
    double split = 0;
    for (GroupTie tie : problem.ties()) {
      split += splitCost(tie, placement);
    }
    double risk = 0;
    double waiting = 0;
    for (GroupLoad load : problem.groups()) {
      String wave = placement.get(load.key());
      if (wave != null) {
        risk += riskCost(load, index(wave));
        waiting += WAITING_PER_TIB * load.bytes() / TIB * index(wave);
      }
    }
    return new PlanCost(split, risk, waiting);
  }

  private double splitCost(GroupTie tie, Map<String, String> placement) {
    String one = placement.get(tie.from());
    String other = placement.get(tie.to());
    if (tie.ordered() || one == null || other == null || one.equals(other)) {
      return 0;
    }
    Duration apart =
        Duration.between(
            problem.waves().get(index(one)).start(), problem.waves().get(index(other)).start());
    return tie.weight() * Math.abs(apart.toHours()) / 24.0;
  }

  /** Waves ramp from low to high risk; the last wave carries no critical group. */
  private double riskCost(GroupLoad load, int index) {
    int waves = problem.waves().size();
    double early = waves < 2 ? 0 : 1 - index / (double) (waves - 1);
    double last = index == waves - 1 && load.risk() == 3 ? 1 : 0;
    return RISK_WEIGHT * (load.risk() * early * early + last);
  }

  private int index(String wave) {
    Integer index = waveIndex.get(wave);
    if (index == null) {
      throw new IllegalArgumentException("no wave " + wave);
    }
    return index;
  }

  /** The groups that this assessor knows, by key. */
  public @Nullable GroupLoad load(String group) {
    return loads.get(group);
  }

  private static Breach breach(
      Limit limit, Wave wave, String group, String sentence, Object... values) {
    return new Breach(limit, wave.key(), group, String.format(Locale.ROOT, sentence, values));
  }

  private static String hours(long minutes) {
    return minutes < 120 ? minutes + " min" : String.format(Locale.ROOT, "%.1f h", minutes / 60.0);
  }
}

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
  private final Map<String, List<GroupTie>> tiesOf = new HashMap<>();

  /** How many waves before the first open one; risk ramps over the open ones. */
  private final int begun;

  public PlanAssessor(PlanningProblem problem) {
    this.problem = problem;
    for (int i = 0; i < problem.waves().size(); i++) {
      waveIndex.put(problem.waves().get(i).key(), i);
    }
    for (GroupTie tie : problem.ties()) {
      tiesOf.computeIfAbsent(tie.from(), key -> new ArrayList<>()).add(tie);
      tiesOf.computeIfAbsent(tie.to(), key -> new ArrayList<>()).add(tie);
    }
    begun = (int) problem.waves().stream().takeWhile(wave -> !wave.open()).count();
  }

  /** The ties that touch a group. */
  List<GroupTie> tiesOf(String group) {
    return tiesOf.getOrDefault(group, List.of());
  }

  /**
   * @param placement group key to wave key; a group that is absent is unplaced
   */
  public Assessment assess(Map<String, String> placement) {
    List<Breach> breaches = new ArrayList<>();
    Map<String, List<GroupLoad>> inWave = new HashMap<>();
    for (GroupLoad load : problem.groups()) {
      String wave = placement.get(load.key());
      if (wave != null) {
        inWave.computeIfAbsent(wave, key -> new ArrayList<>()).add(load);
      }
    }
    for (Wave wave : problem.waves()) {
      List<GroupLoad> placed = inWave.getOrDefault(wave.key(), List.of());
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

  /**
   * What a group adds to the cost where it stands: its own risk and waiting, and its cut ties.
   * O(ties of the group); 0 where it has no wave.
   */
  public double share(GroupLoad load, Map<String, String> placement) {
    String wave = placement.get(load.key());
    if (wave == null) {
      return 0;
    }
    double share = riskCost(load, index(wave)) + waitingCost(load, index(wave));
    for (GroupTie tie : tiesOf(load.key())) {
      share += splitCost(tie, placement);
    }
    return share;
  }

  /** The ordered ties of a group that do not hold. O(ties of the group). */
  List<Breach> disorder(String group, Map<String, String> placement) {
    List<Breach> breaches = new ArrayList<>();
    for (GroupTie tie : tiesOf(group)) {
      Breach breach = order(tie, placement);
      if (breach != null) {
        breaches.add(breach);
      }
    }
    return breaches;
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
        waiting += waitingCost(load, index(wave));
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

  private static double waitingCost(GroupLoad load, int index) {
    return WAITING_PER_TIB * load.bytes() / TIB * index;
  }

  /**
   * The waves still open ramp from low to high risk, whatever has crossed before them; the last
   * carries no critical group.
   */
  private double riskCost(GroupLoad load, int index) {
    int finalIndex = problem.waves().size() - 1;
    int steps = finalIndex - begun;
    double early = steps < 1 ? 0 : 1 - Math.max(0, index - begun) / (double) steps;
    double last = index == finalIndex && load.risk() == 3 ? 1 : 0;
    return RISK_WEIGHT * (load.risk() * early * early + last);
  }

  private int index(String wave) {
    Integer index = waveIndex.get(wave);
    if (index == null) {
      throw new IllegalArgumentException("no wave " + wave);
    }
    return index;
  }

  private static Breach breach(
      Limit limit, Wave wave, String group, String sentence, Object... values) {
    return new Breach(limit, wave.key(), group, String.format(Locale.ROOT, sentence, values));
  }

  private static String hours(long minutes) {
    return minutes < 120 ? minutes + " min" : String.format(Locale.ROOT, "%.1f h", minutes / 60.0);
  }
}

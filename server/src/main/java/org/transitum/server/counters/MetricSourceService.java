package org.transitum.server.counters;

import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.transitum.core.InvalidValue;
import org.transitum.server.counters.MetricSourceMapper.MetricSourceRow;
import org.transitum.server.inventory.EstateStore;
import org.transitum.server.jobs.JobService;
import org.transitum.server.jobs.JobService.Job;
import org.transitum.server.jobs.JobService.Outcome;
import org.transitum.server.journal.JournalService;
import org.transitum.server.live.LiveFeed;
import org.transitum.server.problems.Conflict;
import org.transitum.server.problems.Missing;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.server.secrets.SecretBox;
import org.transitum.sources.counters.MetricMapping;
import org.transitum.sources.counters.MetricTargets;
import org.transitum.sources.counters.MetricsRead;
import org.transitum.sources.counters.PrometheusReader;
import org.transitum.sources.counters.PrometheusReader.Address;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Reads counters from the metrics servers that a lead has listed; no other is connected to. */
@Service
public class MetricSourceService {
  private static final int LEAST_STEP_SECONDS = 60;
  private static final int MOST_STEP_SECONDS = 3_600;
  private static final int MOST_DAYS = 120;

  private final MetricSourceMapper mapper;
  private final SeriesWriter writer;
  private final EstateStore estate;
  private final SecretBox secrets;
  private final JobService jobs;
  private final JournalService journal;
  private final LiveFeed live;
  private final ProgrammeClock clock;
  private final JsonMapper json;

  MetricSourceService(
      MetricSourceMapper mapper,
      SeriesWriter writer,
      EstateStore estate,
      SecretBox secrets,
      JobService jobs,
      JournalService journal,
      LiveFeed live,
      ProgrammeClock clock,
      JsonMapper json) {
    this.mapper = mapper;
    this.writer = writer;
    this.estate = estate;
    this.secrets = secrets;
    this.jobs = jobs;
    this.journal = journal;
    this.live = live;
    this.clock = clock;
    this.json = json;
  }

  /**
   * A listed metrics server; never with its password.
   *
   * @param targets key of the host or instance by target, where the names alone do not tell
   * @param mapping its own rules; absent where the standard ones are used
   * @param readUntil up to when it was read; absent before the first time
   * @param version for If-Match
   */
  public record MetricSource(
      String name,
      String url,
      @Nullable String user,
      int stepSeconds,
      Map<String, String> targets,
      @Nullable String mapping,
      @Nullable Instant readUntil,
      int version) {}

  public List<MetricSource> all() {
    return mapper.all().stream().map(this::view).toList();
  }

  private MetricSource view(MetricSourceRow row) {
    return new MetricSource(
        row.name(),
        row.url(),
        row.login(),
        row.stepSeconds(),
        targets(row),
        row.mapping(),
        row.readUntil(),
        row.version());
  }

  private Map<String, String> targets(MetricSourceRow row) {
    return json.readValue(row.targets(), new TypeReference<LinkedHashMap<String, String>>() {});
  }

  private MetricSourceRow row(String name) {
    return mapper
        .find(name)
        .orElseThrow(() -> new Missing("No metrics server \"%s\" is listed.".formatted(name)));
  }

  /**
   * Lists a metrics server or changes it.
   *
   * @param password null or empty to keep the stored one, as long as address and user stay
   * @param version of the one that was seen; 0 for a new one
   */
  @Transactional
  public void save(MetricSource source, @Nullable String password, long version) {
    Address address = Address.of(source.url(), source.user(), null);
    if (source.stepSeconds() < LEAST_STEP_SECONDS || source.stepSeconds() > MOST_STEP_SECONDS) {
      throw new InvalidValue(
          "A step of %d s is out of bounds; choose 60 to 3,600 s.".formatted(source.stepSeconds()));
    }
    if (source.mapping() != null) {
      MetricMapping.read("mapping", source.mapping());
    }
    MetricSourceRow before = mapper.find(source.name()).orElse(null);
    MetricSourceRow row =
        new MetricSourceRow(
            source.name(),
            address.base().toString(),
            source.user(),
            secret(source, address, password, before),
            source.stepSeconds(),
            json.writeValueAsString(source.targets()),
            source.mapping(),
            null,
            Math.toIntExact(version));
    if (before == null) {
      mapper.insert(row);
    } else if (mapper.update(row) == 0) {
      throw new Conflict(
          "%s was changed by somebody else meanwhile.".formatted(source.name()),
          source.url(),
          before.url(),
          before.version());
    }
    journal.write(
        before == null ? "listed metrics server" : "changed metrics server",
        "METRICS",
        source.name(),
        "address",
        before == null ? null : before.url(),
        row.url(),
        null);
    live.announce("servers", source.name());
  }

  private byte @Nullable [] secret(
      MetricSource source,
      Address address,
      @Nullable String password,
      @Nullable MetricSourceRow before) {
    if (source.user() == null) {
      return null;
    }
    if (password != null && !password.isEmpty()) {
      return secrets.seal(password);
    }
    boolean same =
        before != null
            && before.url().equals(address.base().toString())
            && source.user().equals(before.login());
    if (!same) {
      throw new InvalidValue("Enter the password of %s on %s.".formatted(source.user(), address));
    }
    return before.secret();
  }

  @Transactional
  public void drop(String name) {
    if (mapper.drop(name) == 0) {
      throw new Missing("No metrics server \"%s\" is listed.".formatted(name));
    }
    journal.write("removed metrics server", "METRICS", name, null, null, null, null);
    live.announce("servers", name);
  }

  /** Reads the last days as a job: all that it tells, or nothing. */
  public Job read(String name, int days) {
    row(name);
    if (days < 1 || days > MOST_DAYS) {
      throw new InvalidValue("%d days is out of bounds; choose 1 to 120.".formatted(days));
    }
    return jobs.start(
        "metrics",
        "Counters from " + name,
        progress -> {
          MetricSourceRow row = row(name);
          Instant to = clock.instant();
          MetricsRead read =
              writer.take(
                  "METRICS",
                  name,
                  sink ->
                      reader(row)
                          .read(
                              to.minus(Duration.ofDays(days)),
                              to,
                              Duration.ofSeconds(row.stepSeconds()),
                              sink,
                              progress::tell),
                  () -> mapper.readUntil(name, to));
          return new Outcome(words(read), null);
        });
  }

  private PrometheusReader reader(MetricSourceRow row) {
    MetricTargets targets = new MetricTargets(new TargetFinder(estate, targets(row)));
    Address address =
        Address.of(
            row.url(), row.login(), row.secret() == null ? null : secrets.open(row.secret()));
    MetricMapping mapping =
        row.mapping() == null
            ? MetricMapping.standard()
            : MetricMapping.read("mapping", row.mapping());
    return new PrometheusReader(address, mapping, targets);
  }

  /** As in "1,204 samples of 12 series; 2 targets are not known here: a:9187, b:9187". */
  static String words(MetricsRead read) {
    int unknown = read.unknownTargets().size();
    String left =
        unknown == 0
            ? ""
            : "; %d %s not known here: %s"
                .formatted(
                    unknown,
                    unknown == 1 ? "target is" : "targets are",
                    String.join(", ", read.unknownTargets().stream().limit(10).toList()));
    return "%,d samples of %,d series%s".formatted(read.samples(), read.series(), left);
  }
}

package org.transitum.server.counters;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Service;
import org.transitum.core.counters.DayChunk;
import org.transitum.core.counters.Measure;
import org.transitum.server.jobs.JobService;
import org.transitum.server.jobs.JobService.Job;
import org.transitum.server.jobs.JobService.Outcome;
import org.transitum.server.jobs.JobService.Progress;
import org.transitum.server.jobs.Uploads;
import org.transitum.server.programme.ProgrammeClock;
import org.transitum.sources.counters.CounterSink;
import org.transitum.sources.counters.MetricsRead;

/** Takes counters from files and shows what there is. */
@Service
public class CounterService {
  private static final int GLANCE_DAYS = 28;
  private static final int COVERAGE_DAYS = 42;

  private final SeriesStore store;
  private final CounterFiles files;
  private final JobService jobs;
  private final SeriesWriter writer;
  private final ProgrammeClock clock;
  private final Uploads uploads;

  CounterService(
      SeriesStore store,
      CounterFiles files,
      JobService jobs,
      SeriesWriter writer,
      ProgrammeClock clock,
      Uploads uploads) {
    this.store = store;
    this.files = files;
    this.jobs = jobs;
    this.writer = writer;
    this.clock = clock;
    this.uploads = uploads;
  }

  /** Series have changed; what was worked out from them is stale. */
  public record SeriesChanged() {}

  /**
   * What a database did lately.
   *
   * @param days mean cores of each of the last {@value CounterService#GLANCE_DAYS} days, oldest
   *     first; null where there is no sample
   */
  public record Glance(String key, List<Double> days) {}

  /**
   * Where a series has samples.
   *
   * @param from the first day, UTC
   * @param days share of each day that is covered, 0 to 1
   */
  public record SeriesCoverage(String label, LocalDate from, List<Double> days) {}

  /** Keeps the file aside, then reads it as a job, so that the browser need not stay. */
  public Job startImport(String name, InputStream content) throws IOException {
    Path file = uploads.keep(name, content);
    return jobs.start(
        "counters",
        "Counters from " + name,
        progress -> {
          try (InputStream in = Files.newInputStream(file)) {
            return new Outcome(MetricSourceService.words(importNow(name, in, progress)), null);
          } finally {
            Files.deleteIfExists(file);
          }
        });
  }

  /** Takes a whole file in one transaction, or nothing of it. */
  public MetricsRead importNow(String name, InputStream content, Progress progress) {
    return take(
        name,
        sink ->
            files.read(
                name, content, sink, rows -> progress.tell("%,d rows read".formatted(rows))));
  }

  /** What reads counters; gives finished days to the sink. */
  public interface CounterReading {
    MetricsRead read(CounterSink sink) throws IOException;
  }

  /**
   * Takes what is read in one transaction, or nothing of it.
   *
   * @param name of where it comes from, for the journal
   */
  public MetricsRead take(String name, CounterReading reading) {
    return writer.take("COUNTERS", name, reading, () -> {});
  }

  /** Where the series of an object have samples in the last weeks, and where not. */
  public List<SeriesCoverage> coverage(String object) {
    int today = Math.toIntExact(clock.instant().getEpochSecond() / DayChunk.SECONDS_PER_DAY);
    int from = today - COVERAGE_DAYS + 1;
    List<SeriesCoverage> coverage = new ArrayList<>();
    store
        .presence(object, from)
        .forEach(
            (measure, days) -> {
              List<Double> shares = new ArrayList<>();
              for (int day = from; day <= today; day++) {
                shares.add(days.getOrDefault(day, 0.0));
              }
              coverage.add(new SeriesCoverage(measure.label(), LocalDate.ofEpochDay(from), shares));
            });
    return coverage;
  }

  /** Databases with samples in the last four weeks. */
  public List<Glance> glances() {
    int today = Math.toIntExact(clock.instant().getEpochSecond() / DayChunk.SECONDS_PER_DAY);
    int from = today - GLANCE_DAYS + 1;
    List<Glance> glances = new ArrayList<>();
    for (Map.Entry<String, Map<Integer, Double>> entry :
        store.dailyMeans(Measure.CPU_CORES, from).entrySet()) {
      List<Double> days = new ArrayList<>();
      for (int day = from; day <= today; day++) {
        days.add(entry.getValue().get(day));
      }
      glances.add(new Glance(entry.getKey(), days));
    }
    return glances;
  }
}

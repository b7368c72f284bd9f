package org.transitum.sources.counters;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.format.DateTimeParseException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.function.ToDoubleFunction;
import org.jspecify.annotations.Nullable;
import org.transitum.core.counters.Counter;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.Problems;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Reads what {@code sadf -j} and {@code sadf -d} of the sysstat tools tell of a host: processors in
 * use, memory, reads and writes. Times are UTC, as sadf writes them unless it is asked otherwise.
 * Each value is the mean since the one before.
 */
public final class SadfReader {
  private static final int KIB = 1024;
  private static final int SECTOR = 512;
  private static final int MOST_BYTES = 256 << 20;
  private static final DateTimeFormatter SPACED =
      DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss");
  private static final JsonMapper JSON = JsonMapper.builder().build();

  private final String file;
  private final ToDoubleFunction<String> cores;
  private final AlignedWriter writer;
  private final MetricTargets targets;
  private final Problems problems;
  private boolean coresMissing;

  private SadfReader(
      String file, MetricTargets.Finder finder, ToDoubleFunction<String> cores, CounterSink sink) {
    this.file = file;
    this.cores = cores;
    this.writer = new AlignedWriter(sink);
    this.targets = new MetricTargets(finder);
    this.problems = new Problems(file);
  }

  /**
   * @param cores of a host by its key, for files that do not tell; {@code NaN} where unknown
   * @throws BadFile with everything that is wrong; the sink may have been given days by then
   */
  public static MetricsRead readJson(
      String file,
      InputStream content,
      MetricTargets.Finder finder,
      ToDoubleFunction<String> cores,
      CounterSink sink) {
    return new SadfReader(file, finder, cores, sink).json(content);
  }

  /** As {@link #readJson}, for the semicolon form: {@code sadf -d -- -u -r -b}. */
  public static MetricsRead readTable(
      String file,
      InputStream content,
      MetricTargets.Finder finder,
      ToDoubleFunction<String> cores,
      CounterSink sink) {
    return new SadfReader(file, finder, cores, sink).table(content);
  }

  private @Nullable String host(String name) {
    return targets.object(
        new MetricRule(
            Counter.CPU_CORES, List.of(), List.of(), Map.of(), ObjectKind.HOST, "hostname", ""),
        name,
        "");
  }

  private MetricsRead json(InputStream content) {
    JsonNode root;
    try {
      byte[] bytes = content.readNBytes(MOST_BYTES + 1);
      if (bytes.length > MOST_BYTES) {
        throw BadFile.whole(file, "More than 256 MiB; have sadf write it a day at a time.");
      }
      root = JSON.readTree(bytes);
    } catch (JacksonException e) {
      throw BadFile.whole(
          file, "Not whole JSON of sadf; it may be cut off. Write it again with sadf -j.");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    for (JsonNode host : root.path("sysstat").path("hosts")) {
      String key = host(host.path("nodename").asString(""));
      if (key != null) {
        double processors = host.path("number-of-cpus").asDouble(0);
        for (JsonNode sample : host.path("statistics")) {
          sample(key, processors, sample);
        }
      }
    }
    problems.throwIfAny();
    return finish();
  }

  private MetricsRead finish() {
    MetricsRead read = writer.finish(targets);
    if (read.samples() == 0 && read.unknownTargets().isEmpty()) {
      throw BadFile.whole(
          file,
          coresMissing
              ? "It tells shares of processors, but not how many there are. State the host's CPU cores, or write it with sadf -j."
              : "No sample of processors, memory or disks in it. Write it with sadf -j -- -u -r -b.");
    }
    return read;
  }

  private void sample(String host, double processors, JsonNode sample) {
    JsonNode stamp = sample.path("timestamp");
    OptionalDouble at =
        millis(stamp.path("date").asString("") + " " + stamp.path("time").asString(""));
    if (at.isEmpty()) {
      problems.add(null, "timestamp", "\"%s\" is no time of sadf.".formatted(stamp));
      return;
    }
    long millis = (long) at.getAsDouble();
    for (JsonNode cpu : sample.path("cpu-load")) {
      if (cpu.path("cpu").asString("").equals("all")) {
        double idle = cpu.path("idle").asDouble(0) + cpu.path("iowait").asDouble(0);
        put(host, Counter.CPU_CORES, millis, (100 - idle) / 100 * processors);
      }
    }
    JsonNode memory = sample.path("memory");
    if (memory.has("memused")) {
      put(host, Counter.WORKING_SET_BYTES, millis, memory.path("memused").asDouble() * KIB);
    }
    JsonNode io = sample.path("io");
    if (io.has("io-reads")) {
      JsonNode reads = io.path("io-reads");
      JsonNode writes = io.path("io-writes");
      put(host, Counter.READS_PER_S, millis, reads.path("rtps").asDouble());
      put(host, Counter.WRITES_PER_S, millis, writes.path("wtps").asDouble());
      put(
          host,
          Counter.IO_BYTES_PER_S,
          millis,
          (reads.path("bread").asDouble() + writes.path("bwrtn").asDouble()) * SECTOR);
    }
  }

  private void put(String host, Counter counter, long millis, double value) {
    writer.take(host, counter, millis, value);
  }

  private MetricsRead table(InputStream content) {
    List<String> header = List.of();
    long number = 0;
    try {
      BufferedReader lines =
          new BufferedReader(new InputStreamReader(content, StandardCharsets.UTF_8));
      for (String line = lines.readLine(); line != null; line = lines.readLine()) {
        number++;
        if (line.startsWith("# ")) {
          header = List.of(line.substring(2).split(";"));
        } else if (!line.isBlank() && !line.contains("LINUX-RESTART")) {
          row(header, line.split(";"), number);
        }
      }
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    problems.throwIfAny();
    return finish();
  }

  private void row(List<String> header, String[] cells, long number) {
    if (cells.length != header.size()) {
      problems.add(
          number,
          null,
          "The row has %d values, its header %d.".formatted(cells.length, header.size()));
      return;
    }
    Map<String, String> row = new HashMap<>();
    for (int i = 0; i < cells.length; i++) {
      row.put(header.get(i), cells[i]);
    }
    String host = host(row.getOrDefault("hostname", ""));
    OptionalDouble at = millis(row.getOrDefault("timestamp", "").replaceFirst(" UTC$", ""));
    if (at.isEmpty()) {
      problems.add(
          number, "timestamp", "\"%s\" is no time of sadf.".formatted(row.get("timestamp")));
    }
    if (host == null || at.isEmpty()) {
      return;
    }
    long millis = (long) at.getAsDouble();
    try {
      values(host, millis, row);
    } catch (NumberFormatException e) {
      problems.add(number, null, "A value is not a number: %s.".formatted(e.getMessage()));
    }
  }

  private void values(String host, long millis, Map<String, String> row) {
    double processors = cores.applyAsDouble(host);
    boolean load = "-1".equals(row.get("CPU"));
    coresMissing |= load && Double.isNaN(processors);
    if (load && !Double.isNaN(processors)) {
      double idle = of(row, "%idle") + of(row, "%iowait");
      put(host, Counter.CPU_CORES, millis, (100 - idle) / 100 * processors);
    }
    if (row.containsKey("kbmemused")) {
      put(host, Counter.WORKING_SET_BYTES, millis, of(row, "kbmemused") * KIB);
    }
    if (row.containsKey("rtps")) {
      put(host, Counter.READS_PER_S, millis, of(row, "rtps"));
      put(host, Counter.WRITES_PER_S, millis, of(row, "wtps"));
      put(host, Counter.IO_BYTES_PER_S, millis, (of(row, "bread/s") + of(row, "bwrtn/s")) * SECTOR);
    }
  }

  /** Decimals may be written with a comma, after the host's language. */
  private static double of(Map<String, String> row, String column) {
    return Double.parseDouble(row.getOrDefault(column, "0").replace(',', '.'));
  }

  private static OptionalDouble millis(String text) {
    try {
      return OptionalDouble.of(
          LocalDateTime.parse(text.strip(), SPACED).toEpochSecond(ZoneOffset.UTC) * 1000.0);
    } catch (DateTimeParseException e) {
      return OptionalDouble.empty();
    }
  }
}

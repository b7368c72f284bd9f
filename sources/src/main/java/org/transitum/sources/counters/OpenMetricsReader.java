package org.transitum.sources.counters;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import org.transitum.core.InvalidValue;
import org.transitum.core.counters.Counter;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.Problems;

/**
 * Reads OpenMetrics text with timestamps, as metrics servers dump and backfill it. Values of one
 * rule are added up per object and time; a file therefore tells each series in order of time, and
 * the series that are added up at the same times.
 */
public final class OpenMetricsReader {
  private static final int LONGEST_LINE = 1 << 16;
  private static final int REPORT_EVERY = 1 << 16;
  private static final int MOST_TIMES = 4_000_000;

  private final String file;
  private final MetricMapping mapping;
  private final MetricTargets targets;
  private final Problems problems;
  private final Map<Series, TreeMap<Long, Double>> sums = new LinkedHashMap<>();
  private long times;

  private record Series(String object, Counter counter) {}

  private OpenMetricsReader(String file, MetricMapping mapping, MetricTargets targets) {
    this.file = file;
    this.mapping = mapping;
    this.targets = targets;
    this.problems = new Problems(file);
  }

  /**
   * @throws BadFile with everything that is wrong; the sink may have been given days by then
   */
  public static MetricsRead read(
      String file,
      InputStream content,
      MetricMapping mapping,
      MetricTargets targets,
      CounterSink sink,
      LongConsumer progress) {
    return new OpenMetricsReader(file, mapping, targets).run(content, sink, progress);
  }

  private MetricsRead run(InputStream content, CounterSink sink, LongConsumer progress) {
    long number = 0;
    boolean ended = false;
    try {
      BufferedReader lines =
          new BufferedReader(
              new InputStreamReader(
                  content,
                  StandardCharsets.UTF_8
                      .newDecoder()
                      .onMalformedInput(CodingErrorAction.REPORT)
                      .onUnmappableCharacter(CodingErrorAction.REPORT)));
      for (String line = lines.readLine(); line != null; line = lines.readLine()) {
        number++;
        if (line.length() > LONGEST_LINE) {
          problems.add(number, null, "The line is longer than 64 KiB.");
        } else if (line.equals("# EOF")) {
          ended = true;
        } else if (!line.isEmpty() && line.charAt(0) != '#') {
          take(line, number);
        }
        if (number % REPORT_EVERY == 0) {
          progress.accept(number);
        }
      }
    } catch (CharacterCodingException e) {
      problems.add(number + 1, null, "Not UTF-8 text from about here on.");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    if (!ended) {
      problems.add(
          number, null, "The file does not end with \"# EOF\"; it may be cut off. Dump it again.");
    }
    problems.throwIfAny();
    AlignedWriter writer = new AlignedWriter(sink);
    sums.forEach(
        (series, values) ->
            values.forEach(
                (millis, value) -> writer.take(series.object(), series.counter(), millis, value)));
    return writer.finish(targets);
  }

  private void take(String line, long number) {
    Sample sample;
    try {
      sample = Sample.parse(line);
    } catch (InvalidValue e) {
      problems.add(number, null, e.getMessage());
      return;
    }
    for (MetricRule rule : mapping.rules()) {
      int sign = rule.sign(sample.metric(), sample.labels());
      if (sign != 0) {
        add(rule, sample, sign, number);
      }
    }
  }

  private void add(MetricRule rule, Sample sample, int sign, long number) {
    if (sample.millis() == null) {
      problems.add(
          number, null, "The sample has no time; only a file with times tells how things went.");
      return;
    }
    String object =
        targets.object(
            rule,
            sample.labels().getOrDefault(rule.target(), ""),
            sample.labels().getOrDefault(rule.database(), ""));
    if (object == null) {
      return;
    }
    TreeMap<Long, Double> values =
        sums.computeIfAbsent(new Series(object, rule.counter()), key -> new TreeMap<>());
    Double before = values.get(sample.millis());
    values.put(sample.millis(), (before == null ? 0 : before) + sign * sample.value());
    times += before == null ? 1 : 0;
    if (times > MOST_TIMES) {
      throw BadFile.whole(
          file, "More than %,d samples at once; split the file by time.".formatted(MOST_TIMES));
    }
  }

  /**
   * One line.
   *
   * @param millis null where the line tells no time
   */
  record Sample(String metric, Map<String, String> labels, double value, @Nullable Long millis) {

    /**
     * @throws InvalidValue naming what is wrong
     */
    static Sample parse(String line) {
      int at = 0;
      while (at < line.length() && isName(line.charAt(at), at == 0)) {
        at++;
      }
      if (at == 0) {
        throw new InvalidValue("A line begins with a metric's name.");
      }
      String metric = line.substring(0, at);
      Map<String, String> labels = new HashMap<>();
      if (at < line.length() && line.charAt(at) == '{') {
        at = labels(line, at + 1, labels);
      }
      String rest = at < line.length() ? line.substring(at).strip() : "";
      int exemplar = rest.indexOf(" # ");
      String[] parts = (exemplar >= 0 ? rest.substring(0, exemplar) : rest).split("\\s+");
      if (rest.isEmpty() || parts.length > 2) {
        throw new InvalidValue("After the labels come a value and a time, nothing else.");
      }
      return new Sample(
          metric, labels, number(parts[0]), parts.length == 2 ? millis(parts[1]) : null);
    }

    private static boolean isName(char c, boolean first) {
      return c == '_'
          || c == ':'
          || (c >= 'a' && c <= 'z')
          || (c >= 'A' && c <= 'Z')
          || (!first && c >= '0' && c <= '9');
    }

    private static int labels(String line, int from, Map<String, String> labels) {
      int at = from;
      while (true) {
        while (at < line.length() && (line.charAt(at) == ',' || line.charAt(at) == ' ')) {
          at++;
        }
        if (at < line.length() && line.charAt(at) == '}') {
          return at + 1;
        }
        int equals = line.indexOf("=\"", at);
        if (equals < 0) {
          throw new InvalidValue("The labels are never closed.");
        }
        StringBuilder value = new StringBuilder();
        int v = equals + 2;
        while (v < line.length() && line.charAt(v) != '"') {
          char c = line.charAt(v);
          if (c == '\\' && v + 1 < line.length()) {
            v++;
            char escaped = line.charAt(v);
            value.append(escaped == 'n' ? '\n' : escaped);
          } else {
            value.append(c);
          }
          v++;
        }
        if (v >= line.length()) {
          throw new InvalidValue("A label's value is never closed.");
        }
        labels.put(line.substring(at, equals).strip(), value.toString());
        at = v + 1;
      }
    }

    private static double number(String text) {
      try {
        return Double.parseDouble(text.replaceFirst("(?i)^([+-]?)inf$", "$1Infinity"));
      } catch (NumberFormatException e) {
        throw new InvalidValue("\"%s\" is not a number.".formatted(text));
      }
    }

    /** Seconds with decimals; the older text format has milliseconds, which are far larger. */
    private static long millis(String text) {
      double time = number(text);
      if (!Double.isFinite(time) || time < 0) {
        throw new InvalidValue("\"%s\" is no time in seconds since 1970.".formatted(text));
      }
      return time > 1e11 ? Math.round(time) : Math.round(time * 1000);
    }
  }
}

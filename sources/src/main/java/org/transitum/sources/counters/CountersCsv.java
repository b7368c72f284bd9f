package org.transitum.sources.counters;

import de.siegmar.fastcsv.reader.CsvParseException;
import de.siegmar.fastcsv.reader.CsvReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.CharacterCodingException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import org.transitum.core.InvalidValue;
import org.transitum.core.counters.Counter;
import org.transitum.core.counters.Measure;
import org.transitum.core.counters.SeriesAligner;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.FileProblem;
import org.transitum.sources.files.Problems;
import org.transitum.sources.files.TextSource;

/**
 * Reads counters in long form, one sample a row, the format of docs/formats/counters.md: a stream
 * of any length in bounded memory (one day of buckets per series).
 */
public final class CountersCsv {
  static final List<String> COLUMNS = List.of("object", "counter", "time", "value");
  private static final int REPORT_EVERY = 1 << 16;

  /** So much is refused only in a file that is none of counters; it is not read to its end. */
  private static final int MOST_REFUSED = 500_000;

  private static final int LONGEST_FIELD = 1 << 16;

  private final String file;
  private final CounterSink sink;
  private final boolean leaveUnknownOut;
  private final LongConsumer progress;
  private final Problems problems;
  private final Map<String, Map<String, SeriesAligner>> aligners = new HashMap<>();
  private final Set<String> refused = new HashSet<>();
  private final Set<String> unknown = new TreeSet<>();

  /** The same aligners by the row's numbers of object and counter. */
  private @Nullable SeriesAligner[][] numbered = new SeriesAligner[64][];

  private long samples;
  private int series;

  private CountersCsv(
      String file, CounterSink sink, boolean leaveUnknownOut, LongConsumer progress) {
    this.file = file;
    this.leaveUnknownOut = leaveUnknownOut;
    this.sink = sink;
    this.progress = progress;
    this.problems = new Problems(file);
  }

  /**
   * @param progress told the rows read so far, now and then; may throw to cancel
   * @throws BadFile with everything that is wrong; the sink may have been given days by then, so
   *     the caller must undo them
   */
  public static MetricsRead read(
      String file, InputStream content, CounterSink sink, LongConsumer progress) {
    return new CountersCsv(file, sink, false, progress).run(content);
  }

  /**
   * As {@link #read}, but what is told of objects that the sink does not know is left out and named
   * in the result.
   */
  public static MetricsRead readKnown(
      String file, InputStream content, CounterSink sink, LongConsumer progress) {
    return new CountersCsv(file, sink, true, progress).run(content);
  }

  private MetricsRead run(InputStream content) {
    long number = 1;
    try {
      TextSource source = TextSource.open(file, content);
      SampleRow row = new SampleRow();
      try (CsvReader<SampleRow> reader =
          CsvReader.builder()
              .fieldSeparator(source.delimiter())
              .maxBufferSize(LONGEST_FIELD)
              .allowMissingFields(true)
              .allowExtraFields(true)
              .build(row, source.reader())) {
        boolean header = true;
        for (SampleRow next : reader) {
          if (header) {
            row.columns(positions(next.header()));
            header = false;
            continue;
          }
          number++;
          take(next, number);
          if (number % REPORT_EVERY == 0) {
            progress.accept(number);
          }
        }
      }
    } catch (CharacterCodingException e) {
      problems.add(number + 1, null, "Not UTF-8 text from about here on. Save it again as UTF-8.");
    } catch (CsvParseException | UncheckedIOException e) {
      problems.add(
          number + 1,
          null,
          e.getCause() instanceof CharacterCodingException
              ? "Not UTF-8 text from about here on. Save it again as UTF-8."
              : "A quote opens here and is never closed. Write a quote inside a value twice.");
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
    if (samples == 0 && unknown.isEmpty()) {
      problems.add(null, null, "The file has a header but no sample. Choose a file with data.");
    }
    problems.throwIfAny();
    aligners.values().forEach(of -> of.values().forEach(SeriesAligner::finish));
    return new MetricsRead(samples, series, unknown);
  }

  private int[] positions(List<String> header) {
    int[] positions = new int[header.size()];
    List<String> missing = new ArrayList<>(COLUMNS);
    for (int i = 0; i < positions.length; i++) {
      positions[i] = COLUMNS.indexOf(header.get(i).strip().toLowerCase(Locale.ROOT));
      if (positions[i] >= 0) {
        missing.remove(COLUMNS.get(positions[i]));
      }
    }
    if (!missing.isEmpty()) {
      throw new BadFile(
          List.of(
              new FileProblem(
                  file,
                  1L,
                  null,
                  "The header must name object, counter, time and value; it lacks %s and has: %s."
                      .formatted(String.join(", ", missing), String.join(", ", header)))),
          1);
    }
    return positions;
  }

  private void take(SampleRow row, long number) {
    if (row.problem() != null) {
      problems.add(number, row.problemColumn(), row.problem());
      return;
    }
    SeriesAligner aligner = aligner(row, number);
    if (aligner == null) {
      return;
    }
    try {
      aligner.add(row.millis(), row.value());
      samples++;
    } catch (InvalidValue e) {
      problems.add(number, "time", e.getMessage());
    }
  }

  private @Nullable SeriesAligner aligner(SampleRow row, long number) {
    int object = row.object();
    int counter = row.counter();
    if (object < numbered.length) {
      @Nullable SeriesAligner[] of = numbered[object];
      if (of != null && counter < of.length) {
        SeriesAligner known = of[counter];
        if (known != null) {
          return known;
        }
      }
    }
    SeriesAligner opened = open(row.objectName(), row.counterName(), number);
    if (opened != null) {
      keep(object, counter, opened);
    }
    return opened;
  }

  private void keep(int object, int counter, SeriesAligner aligner) {
    if (object >= numbered.length) {
      numbered = Arrays.copyOf(numbered, Math.max(2 * numbered.length, object + 1));
    }
    @Nullable SeriesAligner[] of = numbered[object];
    of = of == null ? new SeriesAligner[counter + 1] : of;
    numbered[object] = counter < of.length ? of : Arrays.copyOf(of, counter + 1);
    numbered[object][counter] = aligner;
  }

  private @Nullable SeriesAligner open(String object, String name, long number) {
    if (!refused.add(object + "\n" + name)) {
      return null;
    }
    if (refused.size() > MOST_REFUSED) {
      problems.throwIfAny();
    }
    Counter counter = Counter.ofColumn(name).orElse(null);
    if (counter == null) {
      problems.add(
          number,
          "counter",
          "\"%s\" is no counter known here; docs/formats/counters.md lists them.".formatted(name));
      return null;
    }
    if (!sink.knows(object)) {
      if (leaveUnknownOut) {
        unknown.add(object);
        return null;
      }
      problems.add(
          number,
          "object",
          "\"%s\" is no host, instance or database of the inventory. Read its inventory first."
              .formatted(object));
      return null;
    }
    Map<String, SeriesAligner> of = aligners.computeIfAbsent(object, key -> new HashMap<>());
    Measure measure = counter.measure();
    for (String other : of.keySet()) {
      if (Counter.ofColumn(other).map(Counter::measure).orElse(null) == measure) {
        problems.add(
            number,
            "counter",
            "\"%s\" and \"%s\" of %s measure the same; keep one.".formatted(name, other, object));
        return null;
      }
    }
    SeriesAligner aligner =
        new SeriesAligner(
            counter.kind(),
            sink.stepOf(object, measure),
            0,
            chunk -> sink.take(object, counter, chunk));
    of.put(name, aligner);
    series++;
    return aligner;
  }
}

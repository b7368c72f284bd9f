package org.transitum.sources.counters;

import static org.assertj.core.api.Assertions.assertThat;
import static org.transitum.sources.Files.bytes;
import static org.transitum.sources.Files.of;
import static org.transitum.sources.Files.refused;

import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.transitum.core.counters.Counter;
import org.transitum.core.counters.DayChunk;
import org.transitum.core.counters.Measure;
import org.transitum.sources.files.BadFile;
import org.transitum.sources.files.FileProblem;

class CountersCsvTest {
  private final Map<String, DayChunk> taken = new HashMap<>();
  private final CounterSink sink =
      new CounterSink() {
        @Override
        public boolean knows(String object) {
          return object.startsWith("A/");
        }

        @Override
        public int stepOf(String object, Measure measure) {
          return 0;
        }

        @Override
        public void take(String object, Counter counter, DayChunk chunk) {
          taken.put(object + " " + counter.column() + " " + chunk.dayEpoch(), chunk);
        }
      };

  private MetricsRead read(InputStream content) {
    return CountersCsv.read("c.csv", content, sink, rows -> {});
  }

  private FileProblem problem(String... lines) {
    BadFile bad = refused(() -> read(of(lines)));
    assertThat(bad).isNotNull();
    return bad.problems().get(0);
  }

  @Test
  void interleavedSeriesInAnyColumnOrderAndTimeFormAreAligned() {
    StringBuilder text = new StringBuilder("value;time;counter;object\n");
    for (int i = 0; i < 50; i++) {
      long at = 1_764_000_000L + i * 300;
      text.append("1.5;").append(Instant.ofEpochSecond(at)).append(";cpu_cores;A/x\n");
      text.append("70;").append(at).append(";connections;A/y\n");
    }
    MetricsRead summary = read(bytes(text.toString().getBytes(StandardCharsets.UTF_8)));
    assertThat(summary).isEqualTo(new MetricsRead(100, 2, Set.of()));
    assertThat(taken.get("A/x cpu_cores 20416").values()).contains(1.5);
    assertThat(taken.get("A/y connections 20416").values()).contains(70);
  }

  @Test
  void timesAndNumbersAreReadAsTheLibraryWould() {
    Random random = new Random(2);
    for (int i = 0; i < 2_000; i++) {
      double value =
          random.nextBoolean() ? random.nextInt(1_000_000) / 1000.0 : random.nextDouble() * 1e18;
      Instant time = Instant.ofEpochSecond(random.nextInt(2_000_000_000));
      SampleRow row = new SampleRow();
      row.columns(new int[] {2, 3});
      row.beginRecord(1);
      add(row, time.toString());
      add(row, Double.toString(value));
      assertThat(row.millis()).isEqualTo(time.toEpochMilli());
      assertThat(row.value()).isEqualTo(value);
    }
  }

  private static void add(SampleRow row, String text) {
    row.addField(text.toCharArray(), 0, text.length(), false);
  }

  @Test
  void eachProblemHasItsRowAndColumn() {
    String head = "object,counter,time,value";
    String good = "A/x,cpu_cores,2026-11-24T00:00:00Z,1";
    assertThat(problem("object,counter,when,value", good).sentence()).contains("lacks time");
    FileProblem number = problem(head, good, "A/x,cpu_cores,2026-11-24T00:05:00Z,fast");
    assertThat(number.row()).isEqualTo(3);
    assertThat(number.column()).isEqualTo("value");
    assertThat(problem(head, "A/x,cpu_cores,yesterday,1").column()).isEqualTo("time");
    assertThat(problem(head, "A/x,cpu_cores,2026-02-30T00:00:00Z,1").column()).isEqualTo("time");
    assertThat(problem(head, "Z/x,cpu_cores,2026-11-24T00:00:00Z,1").sentence())
        .contains("no host, instance or database");
    assertThat(problem(head, "A/x,speed,2026-11-24T00:00:00Z,1").column()).isEqualTo("counter");
    assertThat(problem(head, "A/x,cpu_cores,2026-11-24T00:00:00Z,-1").column()).isEqualTo("value");
    assertThat(problem(head, good, "A/x,cpu_cores").sentence()).contains("cut off");
    assertThat(problem(head).sentence()).contains("no sample");
    assertThat(problem(head, good, "A/x,cpu_seconds_total,2026-11-24T00:00:00Z,1").sentence())
        .contains("measure the same");
    assertThat(problem(head, good, "A/x,cpu_cores,2026-11-23T00:00:00Z,1").sentence())
        .contains("goes back");
  }

  @Test
  void aQuoteThatNeverEndsIsFoundWithoutReadingItAllIntoMemory() {
    StringBuilder text = new StringBuilder("object,counter,time,value\n\"A/x,cpu_cores,1,1\n");
    text.append("A/x,cpu_cores,1764000000,1\n".repeat(20_000));
    BadFile bad = refused(() -> read(bytes(text.toString().getBytes(StandardCharsets.UTF_8))));
    assertThat(bad.problems().get(0).row()).isEqualTo(2);
    assertThat(bad.problems().get(0).sentence()).contains("quote");
  }

  @Test
  void manyProblemsAreCountedAndTheFirstHundredKept() {
    StringBuilder text = new StringBuilder("object,counter,time,value\n");
    text.append("A/x,cpu_cores,1764000000,oops\n".repeat(5_000));
    BadFile bad = refused(() -> read(bytes(text.toString().getBytes(StandardCharsets.UTF_8))));
    assertThat(bad.problems()).hasSize(100);
    assertThat(bad.total()).isGreaterThanOrEqualTo(5_000);
  }

  @Test
  void leavesOutWhatTheEstateDoesNotKnowWhereThatIsAskedFor() {
    InputStream content =
        of(
            "object,counter,time,value",
            "A/x,connections,2026-11-24T12:00:00Z,4",
            "unknown/x,connections,2026-11-24T12:00:00Z,4",
            "A/x,connections,2026-11-24T12:01:00Z,5");
    MetricsRead read = CountersCsv.readKnown("c.csv", content, sink, rows -> {});
    assertThat(read).isEqualTo(new MetricsRead(2, 1, Set.of("unknown/x")));
  }
}

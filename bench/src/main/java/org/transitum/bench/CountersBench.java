package org.transitum.bench;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.time.LocalDate;
import java.time.ZonedDateTime;
import java.util.Locale;
import org.transitum.core.counters.Counter;
import org.transitum.core.counters.DayChunk;
import org.transitum.core.counters.Measure;
import org.transitum.demo.DemoEstate;
import org.transitum.sources.counters.CounterSink;
import org.transitum.sources.counters.CountersCsv;

/** How fast counters are generated, and read into aligned day chunks, on one thread. */
final class CountersBench {
  private static final int MOST_BYTES = 256 << 20;

  private CountersBench() {}

  static void run() throws IOException {
    DemoEstate estate = new DemoEstate(LocalDate.of(2026, 11, 24));
    ZonedDateTime now = ZonedDateTime.of(2026, 11, 24, 12, 0, 0, 0, DemoEstate.ZONE);
    ByteArrayOutputStream copy = new ByteArrayOutputStream(MOST_BYTES);
    long began = System.nanoTime();
    try (InputStream in = estate.counters(now, 1)) {
      byte[] buffer = new byte[1 << 16];
      for (int n = in.read(buffer);
          n > 0 && copy.size() < MOST_BYTES - buffer.length;
          n = in.read(buffer)) {
        copy.write(buffer, 0, n);
      }
    }
    byte[] whole = copy.toByteArray();
    int end = whole.length;
    while (whole[end - 1] != '\n') {
      end--;
    }
    byte[] csv = java.util.Arrays.copyOf(whole, end);
    System.out.printf(
        Locale.ROOT, "generated %,d MiB in %.1f s%n", csv.length >> 20, seconds(began));
    for (int round = 1; round <= 4; round++) {
      Counted sink = new Counted();
      long start = System.nanoTime();
      CountersCsv.Summary summary =
          CountersCsv.read("bench.csv", new ByteArrayInputStream(csv), sink, rows -> {});
      double took = seconds(start);
      System.out.printf(
          Locale.ROOT,
          "round %d: %,d samples of %,d series into %,d days in %.2f s, %.2f million samples/s%n",
          round,
          summary.samples(),
          summary.series(),
          sink.days,
          took,
          summary.samples() / took / 1e6);
    }
  }

  private static double seconds(long began) {
    return (System.nanoTime() - began) / 1e9;
  }

  private static final class Counted implements CounterSink {
    private long days;

    @Override
    public boolean knows(String object) {
      return true;
    }

    @Override
    public int stepOf(String object, Measure measure) {
      return 0;
    }

    @Override
    public void take(String object, Counter counter, DayChunk chunk) {
      days++;
    }
  }
}

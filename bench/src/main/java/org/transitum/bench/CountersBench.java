package org.transitum.bench;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.time.ZonedDateTime;
import java.util.Locale;
import java.util.SplittableRandom;
import org.transitum.core.counters.Counter;
import org.transitum.core.counters.DayChunk;
import org.transitum.core.counters.Measure;
import org.transitum.demo.DemoEstate;
import org.transitum.sources.counters.CounterSink;
import org.transitum.sources.counters.CountersCsv;
import org.transitum.sources.counters.MetricsRead;

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
    System.out.println("series one after the other:");
    measure(csv);
    System.out.println("series interleaved, as collectors write them:");
    measure(interleaved());
  }

  /** Every series of 300 databases has a sample at each minute, before the next minute comes. */
  private static byte[] interleaved() {
    SplittableRandom random = new SplittableRandom(7);
    StringBuilder csv = new StringBuilder("object,counter,time,value\n");
    long start = 1_790_000_000L / 86_400 * 86_400;
    for (int minute = 0; minute < 2 * 1_440; minute++) {
      for (int database = 0; database < 300; database++) {
        for (String counter :
            new String[] {"cpu_cores", "reads_per_s", "writes_per_s", "connections"}) {
          csv.append("HEAD-PG-").append(database / 10).append("/database_").append(database);
          csv.append(',').append(counter).append(',').append(start + 60L * minute);
          csv.append(',').append(random.nextInt(100_000) / 100.0).append('\n');
        }
      }
    }
    return csv.toString().getBytes(StandardCharsets.US_ASCII);
  }

  private static void measure(byte[] csv) throws IOException {
    double best = Double.MAX_VALUE;
    long samples = 0;
    for (int round = 1; round <= 4; round++) {
      Counted sink = new Counted();
      long start = System.nanoTime();
      MetricsRead summary =
          CountersCsv.read("bench.csv", new ByteArrayInputStream(csv), sink, rows -> {});
      double took = seconds(start);
      best = Math.min(best, took);
      samples = summary.samples();
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
    peer(csv, samples, best);
  }

  /**
   * The same file read by an analytical SQL engine on one thread into the same buckets: mean and
   * maximum per series and five minutes, nothing stored. It does not check what it reads.
   */
  private static void peer(byte[] csv, long samples, double ours) throws IOException {
    Path file = Files.createTempFile("bench", ".csv");
    try {
      Files.write(file, csv);
      try (Connection connection = DriverManager.getConnection("jdbc:duckdb:");
          Statement statement = connection.createStatement()) {
        statement.execute("set threads = 1");
        double least = Double.MAX_VALUE;
        for (int round = 0; round < 3; round++) {
          long start = System.nanoTime();
          try (ResultSet row =
              statement.executeQuery(
                  "select count(*) from (select object, counter, time // 300 as bucket, avg(value), max(value) from read_csv('%s', header = true) group by all)"
                      .formatted(file))) {
            row.next();
          }
          least = Math.min(least, seconds(start));
        }
        System.out.printf(
            Locale.ROOT,
            "the peer, best of 3: %.2f s, %.2f million samples/s; we take %.2f times as long%n",
            least,
            samples / least / 1e6,
            ours / least);
      }
    } catch (SQLException e) {
      throw new IOException(e);
    } finally {
      Files.delete(file);
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

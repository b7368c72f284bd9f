package org.transitum.demo;

import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.ZonedDateTime;
import java.time.temporal.ChronoUnit;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;

/**
 * Writes the demo's counters as CSV while they are read: one series after the other, never whole.
 */
final class CounterStream extends InputStream {
  private static final Duration STEP = Duration.ofMinutes(5);
  private static final Duration SIZE_STEP = Duration.ofHours(6);
  private static final int MOST_ROW = 160;

  private final Deque<Series> waiting = new ArrayDeque<>();
  private final ZonedDateTime end;
  private final byte[] buffer = new byte[1 << 16];
  private int from;
  private int to;

  CounterStream(List<Rhythm> rhythms, ZonedDateTime now, long seed) {
    end = now.truncatedTo(ChronoUnit.HOURS);
    SplittableRandom seeds = new SplittableRandom(seed);
    for (Rhythm rhythm : rhythms) {
      for (Map.Entry<String, Double> peak : rhythm.peaks().entrySet()) {
        waiting.add(new Series(rhythm, peak.getKey(), peak.getValue(), STEP, seeds.split()));
      }
      waiting.add(new Series(rhythm, "size_bytes", rhythm.sizeBytes(), SIZE_STEP, seeds.split()));
    }
    to = put(buffer, 0, "object,counter,time,value\n");
  }

  @Override
  public int read() {
    return ready() ? buffer[from++] & 0xFF : -1;
  }

  @Override
  public int read(byte[] bytes, int offset, int length) {
    if (!ready()) {
      return -1;
    }
    int count = Math.min(length, to - from);
    System.arraycopy(buffer, from, bytes, offset, count);
    from += count;
    return count;
  }

  private boolean ready() {
    if (from < to) {
      return true;
    }
    from = 0;
    to = 0;
    while (!waiting.isEmpty() && to < buffer.length - MOST_ROW) {
      Series series = waiting.peek();
      if (series.at.isAfter(end)) {
        waiting.remove();
      } else {
        to = series.write(buffer, to);
      }
    }
    return to > 0;
  }

  private static int put(byte[] target, int at, String text) {
    byte[] bytes = text.getBytes(StandardCharsets.US_ASCII);
    System.arraycopy(bytes, 0, target, at, bytes.length);
    return at + bytes.length;
  }

  private final class Series {
    private final Rhythm rhythm;
    private final String counter;
    private final double peak;
    private final Duration step;
    private final SplittableRandom random;
    private final byte[] prefix;
    private ZonedDateTime at;
    private double drift;

    Series(Rhythm rhythm, String counter, double peak, Duration step, SplittableRandom random) {
      this.rhythm = rhythm;
      this.counter = counter;
      this.peak = peak;
      this.step = step;
      this.random = random;
      this.prefix = (rhythm.object() + "," + counter + ",").getBytes(StandardCharsets.US_ASCII);
      this.at = end.minusDays(rhythm.days());
    }

    int write(byte[] target, int start) {
      System.arraycopy(prefix, 0, target, start, prefix.length);
      int next = start + prefix.length;
      next = time(target, next, at.toEpochSecond());
      target[next++] = ',';
      boolean cores = counter.equals("cpu_cores");
      next = number(target, next, Math.round(value() * (cores ? 1_000 : 1)), cores);
      target[next++] = '\n';
      at = at.plus(step);
      return next;
    }

    private double value() {
      double weeksBack = Duration.between(at, end).toMinutes() / (7.0 * 24 * 60);
      if (counter.equals("size_bytes")) {
        return Math.max(0, peak - rhythm.growthPerWeek() * weeksBack * random.nextDouble(0.9, 1.1));
      }
      drift = drift * 0.9 + random.nextDouble(-0.08, 0.08);
      double load = Math.max(0.01, rhythm.load(at) + drift * 0.5);
      return switch (counter) {
        case "working_set_bytes" -> peak * (0.82 + 0.15 * load);
        case "connections" -> peak * (0.35 + 0.6 * load);
        default -> peak * load;
      };
    }

    private static int number(byte[] target, int start, long value, boolean thousandths) {
      String digits =
          thousandths
              ? value / 1000 + "." + Long.toString(1000 + value % 1000).substring(1)
              : Long.toString(value);
      return put(target, start, digits);
    }

    private static int time(byte[] target, int start, long epochSeconds) {
      return put(target, start, Long.toString(epochSeconds));
    }
  }
}

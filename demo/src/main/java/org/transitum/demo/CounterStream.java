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
      double[] loads = loads(rhythm);
      for (Map.Entry<String, Double> peak : rhythm.peaks().entrySet()) {
        waiting.add(new Series(rhythm, peak.getKey(), peak.getValue(), loads, STEP, seeds.split()));
      }
      waiting.add(
          new Series(rhythm, "size_bytes", rhythm.sizeBytes(), loads, SIZE_STEP, seeds.split()));
    }
    to = put(buffer, 0, "object,counter,time,value\n");
  }

  /** The load at each step of a rhythm's days, worked out once for all of its counters. */
  private double[] loads(Rhythm rhythm) {
    double[] loads =
        new double[(int) (Duration.ofDays(rhythm.days()).toMinutes() / STEP.toMinutes()) + 1];
    ZonedDateTime at = end.minusDays(rhythm.days());
    for (int i = 0; i < loads.length; i++) {
      loads[i] = rhythm.load(at);
      at = at.plus(STEP);
    }
    return loads;
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
      if (series.ended()) {
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
    private final double[] loads;
    private final long stepSeconds;
    private final SplittableRandom random;
    private final byte[] prefix;
    private final long startSeconds;
    private long seconds;
    private double drift;

    Series(
        Rhythm rhythm,
        String counter,
        double peak,
        double[] loads,
        Duration step,
        SplittableRandom random) {
      this.rhythm = rhythm;
      this.counter = counter;
      this.peak = peak;
      this.loads = loads;
      this.stepSeconds = step.toSeconds();
      this.random = random;
      this.prefix = (rhythm.object() + "," + counter + ",").getBytes(StandardCharsets.US_ASCII);
      this.startSeconds = end.minusDays(rhythm.days()).toEpochSecond();
    }

    boolean ended() {
      return startSeconds + seconds > end.toEpochSecond();
    }

    int write(byte[] target, int start) {
      System.arraycopy(prefix, 0, target, start, prefix.length);
      int next = digits(target, start + prefix.length, startSeconds + seconds);
      target[next++] = ',';
      boolean cores = counter.equals("cpu_cores");
      next = number(target, next, Math.round(value() * (cores ? 1_000 : 1)), cores);
      target[next++] = '\n';
      seconds += stepSeconds;
      return next;
    }

    private double value() {
      if (counter.equals("size_bytes")) {
        double weeksBack = (end.toEpochSecond() - startSeconds - seconds) / (7.0 * 86_400);
        return Math.max(0, peak - rhythm.growthPerWeek() * weeksBack * random.nextDouble(0.9, 1.1));
      }
      drift = drift * 0.9 + random.nextDouble(-0.08, 0.08);
      int at = (int) Math.min(loads.length - 1L, seconds / STEP.toSeconds());
      double load = Math.max(0.01, loads[at] + drift * 0.5);
      return switch (counter) {
        case "working_set_bytes" -> peak * (0.82 + 0.15 * load);
        case "connections" -> peak * (0.35 + 0.6 * load);
        default -> peak * load;
      };
    }

    private static int number(byte[] target, int start, long value, boolean thousandths) {
      int next = digits(target, start, thousandths ? value / 1000 : value);
      if (thousandths) {
        target[next] = '.';
        digits(target, next, 1000 + value % 1000);
        target[next] = '.';
        next += 4;
      }
      return next;
    }

    private static int digits(byte[] target, int start, long value) {
      int length = 1;
      for (long rest = value / 10; rest > 0; rest /= 10) {
        length++;
      }
      long rest = value;
      for (int at = start + length - 1; at >= start; at--) {
        target[at] = (byte) ('0' + rest % 10);
        rest /= 10;
      }
      return start + length;
    }
  }
}

package org.transitum.core.counters;

import java.util.Arrays;
import java.util.function.Consumer;
import org.transitum.core.InvalidValue;

/**
 * Turns one series' samples, in time order, into day chunks on a fixed grid.
 *
 * <p>The first {@value #LEARNING} samples are held back to learn the nominal interval (their median
 * distance); the grid's step is the shortest divisor of a day that is at least that interval and at
 * least 60 s. Rates are the time-weighted mean of a bucket, gauges its maximum; a bucket covered
 * for less than half of its time is missing. A reset or a gap of more than three nominal intervals
 * ends a run: nothing is made up across it. Memory is one day of buckets, whatever the series'
 * length.
 */
public final class SeriesAligner {

  static final int LEARNING = 16;
  private static final int NONE = -1;
  private static final long DAY_MILLIS = DayChunk.SECONDS_PER_DAY * 1000L;
  private static final int[] STEPS = {
    60, 120, 180, 240, 300, 360, 600, 720, 900, 1_200, 1_800, 3_600, 7_200, 10_800, 14_400, 21_600,
    43_200, 86_400
  };

  private final Counter.Kind kind;
  private final Consumer<DayChunk> sink;
  private final long[] heldTimes = new long[LEARNING];
  private final double[] heldValues = new double[LEARNING];
  private int held;
  private int stepSeconds;
  private long nominalMillis;
  private long lastMillis = Long.MIN_VALUE;
  private double lastValue;
  private boolean gaugeOpen;

  private long day = Long.MIN_VALUE;
  private double[] values = {};
  private boolean any;

  // the bucket that is being filled; times only go on, so that there is one
  private int bucket = NONE;
  private long bucketEnd;
  private double sum;
  private long covered;
  private boolean sampled;

  /**
   * @param stepSeconds the grid of chunks stored earlier for this series, or 0 to learn it
   * @param nominalSeconds the interval at which samples are taken, or 0 to learn it
   * @param sink takes each finished day, oldest first
   */
  public SeriesAligner(
      Counter.Kind kind, int stepSeconds, int nominalSeconds, Consumer<DayChunk> sink) {
    this.kind = kind;
    this.stepSeconds = stepSeconds;
    this.sink = sink;
    if (nominalSeconds > 0) {
      begin(nominalSeconds * 1000L);
    }
  }

  /**
   * Takes the next sample.
   *
   * @param millis time since the epoch; a repeat of the last time is ignored
   * @throws InvalidValue when the time goes back
   */
  public void add(long millis, double value) {
    long previous = nominalMillis > 0 ? lastMillis : held > 0 ? heldTimes[held - 1] : lastMillis;
    if (millis == previous) {
      return;
    }
    if (millis < previous) {
      throw new InvalidValue(
          "The time goes back within one series; sort the file by time and read it again.");
    }
    if (nominalMillis > 0) {
      take(millis, value);
      return;
    }
    heldTimes[held] = millis;
    heldValues[held] = value;
    if (++held == LEARNING) {
      learn();
    }
  }

  /** Hands over the last, unfinished day. */
  public void finish() {
    if (nominalMillis == 0 && held > 0) {
      learn();
    }
    if (kind == Counter.Kind.GAUGE && gaugeOpen) {
      gauge(lastMillis, Math.addExact(lastMillis, nominalMillis), lastValue);
      gaugeOpen = false;
    }
    flush();
  }

  /** The grid in seconds; 0 until it is learnt. */
  public int stepSeconds() {
    return stepSeconds;
  }

  private void learn() {
    long[] gaps = new long[Math.max(held - 1, 1)];
    for (int i = 1; i < held; i++) {
      gaps[i - 1] = heldTimes[i] - heldTimes[i - 1];
    }
    Arrays.sort(gaps);
    begin(gaps[gaps.length / 2]);
    for (int i = 0; i < held; i++) {
      take(heldTimes[i], heldValues[i]);
    }
  }

  private void begin(long medianMillis) {
    nominalMillis = Math.max(medianMillis, 1_000L);
    if (stepSeconds == 0) {
      stepSeconds =
          Arrays.stream(STEPS)
              .filter(step -> step * 1000L >= nominalMillis)
              .findFirst()
              .orElse(DayChunk.SECONDS_PER_DAY);
    }
  }

  private void take(long millis, double value) {
    if (kind == Counter.Kind.GAUGE) {
      if (gaugeOpen) {
        boolean gap = millis - lastMillis > 3 * nominalMillis;
        gauge(lastMillis, gap ? lastMillis + nominalMillis : millis, lastValue);
      }
      gaugeOpen = true;
    } else if (lastMillis != Long.MIN_VALUE && millis - lastMillis <= 3 * nominalMillis) {
      if (kind == Counter.Kind.RATE) {
        rate(lastMillis, millis, value);
      } else if (value >= lastValue) {
        rate(lastMillis, millis, (value - lastValue) * 1000.0 / (millis - lastMillis));
      }
    }
    lastMillis = millis;
    lastValue = value;
  }

  /** Spreads a rate that held over (from, to] on the buckets it touches. */
  private void rate(long from, long to, double rate) {
    for (long at = from; at < to; ) {
      open(at);
      long end = Math.min(to, bucketEnd);
      sum += rate * (end - at);
      covered += end - at;
      at = end;
    }
  }

  /** A level sampled at {@code from} and taken to stand until {@code to}. */
  private void gauge(long from, long to, double level) {
    for (long at = from; at < to; ) {
      open(at);
      long end = Math.min(to, bucketEnd);
      boolean own = at == from;
      // a level carried over from the bucket before only fills one that has no sample of its own
      if (own ? !sampled || level > sum : covered == 0) {
        sum = level;
      }
      sampled |= own;
      covered += end - at;
      at = end;
    }
  }

  /** Makes the bucket of a time the one that is being filled. */
  private void open(long millis) {
    if (bucket != NONE && millis < bucketEnd) {
      return;
    }
    long step = stepSeconds * 1000L;
    boolean next = bucket != NONE && millis < bucketEnd + step && bucket + 1 < values.length;
    int following = bucket + 1;
    close();
    if (next) {
      bucket = following;
      bucketEnd += step;
      return;
    }
    long wanted = Math.floorDiv(millis, DAY_MILLIS);
    if (wanted != day) {
      flush();
      day = wanted;
      values = new double[DayChunk.SECONDS_PER_DAY / stepSeconds];
      Arrays.fill(values, Double.NaN);
    }
    bucket = (int) ((millis - day * DAY_MILLIS) / step);
    bucketEnd = day * DAY_MILLIS + (bucket + 1) * step;
  }

  /** A bucket covered for less than half of its time stays missing. */
  private void close() {
    if (bucket != NONE && 2 * covered >= stepSeconds * 1000L) {
      values[bucket] = kind == Counter.Kind.GAUGE ? sum : sum / covered;
      any = true;
    }
    bucket = NONE;
    sum = 0;
    covered = 0;
    sampled = false;
  }

  private void flush() {
    close();
    if (any) {
      sink.accept(new DayChunk(day, stepSeconds, values));
    }
    any = false;
    day = Long.MIN_VALUE;
  }
}

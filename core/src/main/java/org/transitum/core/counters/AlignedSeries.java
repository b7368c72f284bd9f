package org.transitum.core.counters;

import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/**
 * A series on its grid over a window, oldest bucket first.
 *
 * @param startSeconds time of the first bucket since the epoch
 * @param stepSeconds the grid
 * @param values one value per bucket; {@code NaN} is missing
 */
public record AlignedSeries(long startSeconds, int stepSeconds, double[] values) {

  /**
   * Joins day chunks of one grid; missing days become missing buckets. No chunk gives no bucket.
   */
  public static AlignedSeries of(List<DayChunk> chunks) {
    if (chunks.isEmpty()) {
      return new AlignedSeries(0, 60, new double[0]);
    }
    List<DayChunk> ordered =
        chunks.stream().sorted(Comparator.comparingLong(DayChunk::dayEpoch)).toList();
    long first = ordered.get(0).dayEpoch();
    long last = ordered.get(ordered.size() - 1).dayEpoch();
    int perDay = ordered.get(0).values().length;
    double[] values = new double[Math.toIntExact((last - first + 1) * perDay)];
    Arrays.fill(values, Double.NaN);
    for (DayChunk chunk : ordered) {
      int at = Math.toIntExact((chunk.dayEpoch() - first) * perDay);
      System.arraycopy(chunk.values(), 0, values, at, perDay);
    }
    return new AlignedSeries(
        first * DayChunk.SECONDS_PER_DAY, ordered.get(0).stepSeconds(), values);
  }

  /** The buckets that are there, ascending. */
  public double[] sortedPresent() {
    double[] present = Arrays.stream(values).filter(value -> !Double.isNaN(value)).toArray();
    Arrays.sort(present);
    return present;
  }

  public long endSeconds() {
    return startSeconds + (long) values.length * stepSeconds;
  }

  /** The part within [from, to), both in seconds since the epoch. */
  public AlignedSeries between(long from, long to) {
    int first = index(from);
    int last = index(to);
    return new AlignedSeries(
        startSeconds + (long) first * stepSeconds,
        stepSeconds,
        Arrays.copyOfRange(values, first, Math.max(first, last)));
  }

  private int index(long seconds) {
    double buckets = Math.ceil((seconds - startSeconds) / (double) stepSeconds);
    return (int) Math.max(0, Math.min(values.length, buckets));
  }
}

package org.transitum.core.counters;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.TreeMap;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.transitum.core.counters.Counter.Kind;

/** Against an oracle that looks at every second of every bucket. */
class SeriesAlignerPropertyTest {
  private static final int STEP = 60;
  private static final int NOMINAL = 45;
  private static final int ROUNDS = 60;

  private record Sample(long second, double value) {}

  @ParameterizedTest
  @EnumSource(Kind.class)
  void bucketsAreWhatEachSecondSays(Kind kind) {
    for (int round = 0; round < ROUNDS; round++) {
      List<Sample> samples = samples(new SplittableRandom(round), kind);
      TreeMap<Long, Double> aligned = new TreeMap<>();
      SeriesAligner aligner =
          new SeriesAligner(
              kind,
              STEP,
              NOMINAL,
              chunk -> {
                for (int i = 0; i < chunk.values().length; i++) {
                  if (!Double.isNaN(chunk.values()[i])) {
                    aligned.put(
                        chunk.dayEpoch() * DayChunk.SECONDS_PER_DAY / STEP + i, chunk.values()[i]);
                  }
                }
              });
      samples.forEach(sample -> aligner.add(sample.second() * 1000, sample.value()));
      aligner.finish();
      TreeMap<Long, Double> expected = oracle(samples, kind);
      assertThat(aligned.keySet()).as("round %d", round).isEqualTo(expected.keySet());
      for (Map.Entry<Long, Double> bucket : expected.entrySet()) {
        assertThat(aligned.get(bucket.getKey()))
            .as("round %d, bucket %d", round, bucket.getKey())
            .isCloseTo(bucket.getValue(), within(1e-9 * Math.max(1, bucket.getValue())));
      }
    }
  }

  /** Jitter, gaps, resets and the turn of a day. */
  private static List<Sample> samples(SplittableRandom random, Kind kind) {
    List<Sample> samples = new ArrayList<>();
    long second = 20_000L * DayChunk.SECONDS_PER_DAY - 2_000 + random.nextInt(1_000);
    double total = 0;
    for (int i = 0; i < 150; i++) {
      total = random.nextInt(20) == 0 ? 0 : total + random.nextInt(500);
      samples.add(new Sample(second, kind == Kind.CUMULATIVE ? total : random.nextInt(1_000)));
      second += random.nextInt(12) == 0 ? 100 + random.nextInt(400) : 5 + random.nextInt(90);
    }
    return samples;
  }

  private static TreeMap<Long, Double> oracle(List<Sample> samples, Kind kind) {
    TreeMap<Long, List<Double>> seconds = new TreeMap<>();
    TreeMap<Long, Double> peaks = new TreeMap<>();
    for (int i = 0; i < samples.size(); i++) {
      Sample sample = samples.get(i);
      if (kind == Kind.GAUGE) {
        long next =
            i + 1 < samples.size() ? samples.get(i + 1).second() : sample.second() + NOMINAL;
        boolean gap = next - sample.second() > 3 * NOMINAL;
        peaks.merge(sample.second() / STEP, sample.value(), Math::max);
        fill(seconds, sample.second(), gap ? sample.second() + NOMINAL : next, sample.value());
      } else if (i > 0) {
        Sample before = samples.get(i - 1);
        long span = sample.second() - before.second();
        boolean reset = kind == Kind.CUMULATIVE && sample.value() < before.value();
        if (span <= 3 * NOMINAL && !reset) {
          double rate =
              kind == Kind.RATE ? sample.value() : (sample.value() - before.value()) / span;
          fill(seconds, before.second(), sample.second(), rate);
        }
      }
    }
    TreeMap<Long, Double> buckets = new TreeMap<>();
    seconds.forEach(
        (bucket, values) -> {
          if (values.size() * 2 >= STEP) {
            double mean = values.stream().mapToDouble(Double::doubleValue).average().orElseThrow();
            buckets.put(
                bucket, kind == Kind.GAUGE ? peaks.getOrDefault(bucket, values.get(0)) : mean);
          }
        });
    return buckets;
  }

  private static void fill(TreeMap<Long, List<Double>> seconds, long from, long to, double value) {
    for (long second = from; second < to; second++) {
      seconds.computeIfAbsent(second / STEP, bucket -> new ArrayList<>()).add(value);
    }
  }
}

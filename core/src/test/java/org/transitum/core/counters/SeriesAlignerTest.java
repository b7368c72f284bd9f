package org.transitum.core.counters;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.transitum.core.counters.Counter.Kind;

class SeriesAlignerTest {
  private static final long MINUTE = 60_000;
  private static final long DAY = 86_400_000;

  private final List<DayChunk> days = new ArrayList<>();

  private SeriesAligner aligner(Kind kind) {
    return new SeriesAligner(kind, 0, 0, days::add);
  }

  private double at(int day, long minute) {
    DayChunk chunk = days.get(day);
    return chunk.values()[(int) (minute * 60 / chunk.stepSeconds())];
  }

  @Test
  void aCumulativeCounterBecomesARateOnTheGridOfItsInterval() {
    SeriesAligner aligner = aligner(Kind.CUMULATIVE);
    for (int i = 0; i <= 40; i++) {
      aligner.add(i * 5 * MINUTE, i * 600.0);
    }
    aligner.finish();
    assertThat(aligner.stepSeconds()).isEqualTo(300);
    assertThat(days).hasSize(1);
    assertThat(days.get(0).present()).isEqualTo(40);
    assertThat(at(0, 0)).isCloseTo(2.0, within(1e-12));
  }

  @Test
  void aResetAndALongGapMakeUpNothing() {
    SeriesAligner aligner = aligner(Kind.CUMULATIVE);
    double value = 0;
    for (int i = 0; i <= 60; i++) {
      if (i == 20) {
        value = 0;
      }
      if (i <= 30 || i >= 40) {
        aligner.add(i * MINUTE, value);
      }
      value += 60;
    }
    aligner.finish();
    assertThat(at(0, 18)).isEqualTo(1.0);
    assertThat(at(0, 19)).isNaN();
    assertThat(at(0, 20)).isEqualTo(1.0);
    assertThat(at(0, 35)).isNaN();
    assertThat(at(0, 41)).isEqualTo(1.0);
  }

  @Test
  void ratesAreWeightedByTimeInEachBucket() {
    SeriesAligner aligner = new SeriesAligner(Kind.RATE, 300, 60, days::add);
    for (int minute = 0; minute <= 10; minute++) {
      aligner.add(minute * MINUTE, minute <= 2 ? 10 : 20);
    }
    aligner.finish();
    assertThat(at(0, 0)).isCloseTo((2 * 10 + 3 * 20) / 5.0, within(1e-12));
    assertThat(at(0, 5)).isEqualTo(20);
  }

  @Test
  void aGaugeKeepsItsPeakAndHalfABucketIsMissing() {
    SeriesAligner aligner = new SeriesAligner(Kind.GAUGE, 300, 60, days::add);
    for (int minute = 0; minute < 7; minute++) {
      aligner.add(minute * MINUTE, minute == 3 ? 90 : 10);
    }
    aligner.finish();
    assertThat(at(0, 0)).isEqualTo(90);
    assertThat(at(0, 5)).isNaN();
  }

  @Test
  void daysAreHandedOverWhileReadingInBoundedMemory() {
    SeriesAligner aligner = aligner(Kind.GAUGE);
    for (long at = 0; at < 3 * DAY; at += 10 * MINUTE) {
      aligner.add(at, 1);
      assertThat(days.size()).isLessThanOrEqualTo((int) (at / DAY));
    }
    aligner.finish();
    assertThat(days).extracting(DayChunk::dayEpoch).containsExactly(0L, 1L, 2L);
    assertThat(days).allSatisfy(day -> assertThat(day.present()).isEqualTo(144));
  }

  @Test
  void timeThatGoesBackIsRefusedAndARepeatIgnored() {
    SeriesAligner aligner = aligner(Kind.GAUGE);
    aligner.add(10 * MINUTE, 1);
    aligner.add(10 * MINUTE, 5);
    assertThatThrownBy(() -> aligner.add(9 * MINUTE, 1)).hasMessageContaining("goes back");
  }

  @Test
  void ratesKeepTheTotalWhateverTheJitter() {
    Random random = new Random(3);
    SeriesAligner aligner = new SeriesAligner(Kind.CUMULATIVE, 60, 60, days::add);
    long at = 0;
    double total = 0;
    aligner.add(at, total);
    while (at < DAY / 2) {
      at += 40_000 + random.nextInt(40_000);
      total += random.nextInt(1_000);
      aligner.add(at, total);
    }
    aligner.finish();
    double sum = 0;
    for (double value : days.get(0).values()) {
      sum += Double.isNaN(value) ? 0 : value * 60;
    }
    assertThat(sum).isCloseTo(total, within(1_000.0));
  }

  @Test
  void laterDaysFillAndReplaceEarlierBuckets() {
    DayChunk first = new DayChunk(3, 43_200, new double[] {1, Double.NaN});
    DayChunk later = new DayChunk(3, 43_200, new double[] {Double.NaN, 2});
    assertThat(first.mergedWith(later).values()).containsExactly(1, 2);
  }

  @Test
  void coverageCountsWhatIsThereOfTheWindow() {
    AlignedSeries series =
        AlignedSeries.of(List.of(new DayChunk(0, 21_600, new double[] {1, Double.NaN, 1, 1})));
    assertThat(Coverage.of(series, series.endSeconds(), 86_400).ratio()).isEqualTo(0.75);
    assertThat(Coverage.of(series, series.endSeconds(), 2 * 86_400).ratio()).isEqualTo(0.375);
    assertThat(AlignedSeries.of(List.of()).values()).isEmpty();
  }
}

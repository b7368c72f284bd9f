package org.transitum.server.counters;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** What is stored of a day comes back to the bit, gaps included. */
class ChunkCodecTest {

  @Test
  void everyValueComesBackExactly() {
    Random random = new Random(6);
    for (int count : new int[] {1, 4, 288, 1_440}) {
      double[] values =
          random
              .doubles(count, 0, 1e15)
              .map(v -> random.nextInt(9) == 0 ? Double.NaN : v)
              .toArray();
      assertThat(ChunkCodec.unpack(ChunkCodec.pack(values), count)).isEqualTo(values);
    }
  }

  @Test
  void anIdleDayTakesHardlyAnyRoom() {
    double[] idle = new double[1_440];
    Arrays.fill(idle, 0.25);
    assertThat(ChunkCodec.pack(idle)).hasSizeLessThan(400);
  }

  @Test
  void aCutDayIsSaidInsteadOfGuessed() {
    byte[] whole = ChunkCodec.pack(new Random(7).doubles(288).toArray());
    assertThatThrownBy(() -> ChunkCodec.unpack(Arrays.copyOf(whole, whole.length / 2), 288))
        .isInstanceOf(IllegalStateException.class);
  }
}

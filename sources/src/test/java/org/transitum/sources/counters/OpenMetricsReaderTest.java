package org.transitum.sources.counters;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.transitum.sources.Files.bytes;
import static org.transitum.sources.Files.refused;

import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.transitum.core.InvalidValue;
import org.transitum.sources.counters.OpenMetricsReader.Sample;
import org.transitum.sources.files.BadFile;

class OpenMetricsReaderTest {
  private static final long START = 1_790_000_100L;

  private static MetricsRead read(String text, TakenDays sink) {
    return OpenMetricsReader.read(
        "m.txt",
        bytes(text.getBytes(StandardCharsets.UTF_8)),
        MetricMapping.standard(),
        new MetricTargets((kind, target) -> target.equals("pg-03:9187") ? "PG-3" : null),
        sink,
        lines -> {});
  }

  @Test
  void committedAndRolledBackAddUpToTransactions() {
    StringBuilder text = new StringBuilder("# TYPE pg_stat_database_xact_commit counter\n");
    for (String metric : new String[] {"commit", "rollback"}) {
      for (int i = 0; i <= 100; i++) {
        text.append("pg_stat_database_xact_")
            .append(metric)
            .append("{instance=\"pg-03:9187\",datname=\"orders\"} ")
            .append(metric.equals("commit") ? i * 600 : i * 60)
            .append(' ')
            .append(START + i * 60)
            .append('\n');
      }
    }
    TakenDays sink = new TakenDays("PG-3/orders");
    MetricsRead read = read(text + "# EOF\n", sink);
    assertThat(read.samples()).isEqualTo(101);
    assertThat(sink.values("PG-3/orders transactions_total"))
        .hasSizeGreaterThan(97)
        .containsOnly(11.0);
  }

  @Test
  void whatIsCutOffOrTimelessIsSaidAndTargetsThatAreUnknownAreListed() {
    String line = "pg_database_size_bytes{instance=\"pg-03:9187\",datname=\"orders\"} 5";
    assertThat(refused(() -> read(line + " 1790000100\n", new TakenDays())))
        .hasMessageContaining("does not end with");
    assertThat(refused(() -> read(line + "\n# EOF\n", new TakenDays())))
        .hasMessageContaining("row 1")
        .hasMessageContaining("no time");
    MetricsRead read =
        read(
            "pg_database_size_bytes{instance=\"x:1\",datname=\"o\"} 5 1790000100\n# EOF\n",
            new TakenDays());
    assertThat(read.samples()).isZero();
    assertThat(read.unknownTargets()).containsExactly("x:1");
    BadFile bad =
        refused(
            () -> read("a{b=\"c} 1 2\n{x} 1\nm 1 2 3\nm{l=\"v\"} one 2\n# EOF\n", new TakenDays()));
    assertThat(bad.total()).isEqualTo(4);
    assertThat(bad.problems()).extracting(problem -> problem.row()).containsExactly(1L, 2L, 3L, 4L);
  }

  @Test
  void labelsValuesAndTimesAreReadAsTheFormatSays() {
    Sample sample =
        Sample.parse("m:x_total{a=\"q\\\"u\\\\o\\n\", b=\"}\"} +Inf 1790000100.25 # {t=\"1\"} 2");
    assertThat(sample.metric()).isEqualTo("m:x_total");
    assertThat(sample.labels()).isEqualTo(Map.of("a", "q\"u\\o\n", "b", "}"));
    assertThat(sample.value()).isEqualTo(Double.POSITIVE_INFINITY);
    assertThat(sample.millis()).isEqualTo(1_790_000_100_250L);
    assertThat(Sample.parse("m 1e3 1790000100250").millis()).isEqualTo(1_790_000_100_250L);
    assertThat(Sample.parse("m 4").millis()).isNull();
    assertThatThrownBy(() -> Sample.parse("m 4 -5")).isInstanceOf(InvalidValue.class);
  }

  /** Whatever stands in a line, it is a sample or a sentence; what was written comes back. */
  @Test
  void randomLinesNeverBreakTheReader() {
    Random random = new Random(31);
    String alphabet = "m{}=\",\\ \n#1.e+-:a_NaInf";
    for (int round = 0; round < 50_000; round++) {
      StringBuilder line = new StringBuilder();
      for (int i = random.nextInt(30); i >= 0; i--) {
        line.append(alphabet.charAt(random.nextInt(alphabet.length())));
      }
      try {
        assertThat(Sample.parse(line.toString()).metric()).isNotEmpty();
      } catch (InvalidValue e) {
        assertThat(e.getMessage()).isNotEmpty();
      }
    }
    for (int round = 0; round < 2_000; round++) {
      StringBuilder value = new StringBuilder();
      for (int i = random.nextInt(12); i >= 0; i--) {
        value.append("a\\\"\n}{=, é".charAt(random.nextInt(10)));
      }
      String written =
          value.toString().replace("\\", "\\\\").replace("\"", "\\\"").replace("\n", "\\n");
      assertThat(Sample.parse("m{l=\"" + written + "\"} 1 2").labels())
          .containsEntry("l", value.toString());
    }
  }
}

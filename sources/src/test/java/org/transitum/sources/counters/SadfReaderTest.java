package org.transitum.sources.counters;

import static org.assertj.core.api.Assertions.assertThat;
import static org.transitum.sources.Files.bytes;
import static org.transitum.sources.Files.refused;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Host counters as the sysstat tools write them. */
class SadfReaderTest {
  private static final String HEAD =
      "{\"sysstat\":{\"hosts\":[{\"nodename\":\"h1\",\"number-of-cpus\":8,\"statistics\":[";

  private static MetricsRead json(String text, TakenDays sink) {
    return SadfReader.readJson(
        "s.json",
        bytes(text.getBytes(StandardCharsets.UTF_8)),
        (kind, name) -> name.equals("h1") ? "H-1" : null,
        host -> Double.NaN,
        sink);
  }

  private static MetricsRead table(String text, double cores, TakenDays sink) {
    return SadfReader.readTable(
        "s.txt",
        bytes(text.getBytes(StandardCharsets.UTF_8)),
        (kind, name) -> name.equals("h1") ? "H-1" : null,
        host -> cores,
        sink);
  }

  private static String time(int minute) {
    return "%02d:%02d:00".formatted(minute / 60, minute % 60);
  }

  @Test
  void processorsMemoryAndDisksComeFromJson() {
    StringBuilder text = new StringBuilder(HEAD);
    for (int i = 0; i < 40; i++) {
      text.append(i == 0 ? "" : ",")
          .append(
              """
              {"timestamp":{"date":"2026-11-20","time":"%s","utc":1,"interval":600},
               "cpu-load":[{"cpu":"all","idle":70.0,"iowait":5.0},{"cpu":"0","idle":0}],
               "memory":{"memused":1048576},
               "io":{"tps":3,"io-reads":{"rtps":2.0,"bread":100},"io-writes":{"wtps":1.0,"bwrtn":28}}}
              """
                  .formatted(time(i * 10)));
    }
    TakenDays sink = new TakenDays("H-1");
    json(text + "]}]}}", sink);
    assertThat(sink.values("H-1 cpu_cores")).hasSizeGreaterThan(37).containsOnly(2.0);
    assertThat(sink.values("H-1 working_set_bytes")).containsOnly((double) (1L << 30));
    assertThat(sink.values("H-1 reads_per_s")).containsOnly(2.0);
    assertThat(sink.values("H-1 io_bytes_per_s")).containsOnly(128 * 512.0);
  }

  @Test
  void theTableFormTakesItsProcessorsFromTheInventory() {
    StringBuilder text =
        new StringBuilder("# hostname;interval;timestamp;CPU;%user;%iowait;%idle\n");
    for (int i = 0; i < 40; i++) {
      text.append("h1;600;2026-11-20 %s UTC;-1;20,0;0,0;75,0\n".formatted(time(i * 10)));
      text.append("h1;600;2026-11-20 %s UTC;0;99,0;0,0;1,0\n".formatted(time(i * 10)));
    }
    TakenDays sink = new TakenDays("H-1");
    table(text.toString(), 4, sink);
    assertThat(sink.values("H-1 cpu_cores")).containsOnly(1.0);
    assertThat(refused(() -> table(text.toString(), Double.NaN, new TakenDays("H-1"))))
        .as("without a number of processors none is made up")
        .hasMessageContaining("State the host's CPU cores");
  }

  @Test
  void whatIsBrokenOrNotOfSadfIsSaid() {
    assertThat(refused(() -> json(HEAD + "{\"timestamp\":", new TakenDays("H-1"))))
        .hasMessageContaining("cut off");
    assertThat(refused(() -> json(HEAD + "{\"timestamp\":{}}]}]}}", new TakenDays("H-1"))))
        .hasMessageContaining("no time of sadf");
    assertThat(refused(() -> json("{}", new TakenDays("H-1")))).hasMessageContaining("No sample");
    assertThat(
            refused(
                    () ->
                        table(
                            "# hostname;interval;timestamp;CPU\nh1;1;x;-1\nh1;1\n",
                            4,
                            new TakenDays("H-1")))
                .total())
        .isEqualTo(2);
    assertThat(json(HEAD.replace("h1", "other") + "]}]}}", new TakenDays("H-1")).unknownTargets())
        .containsExactly("other");
  }

  @Test
  void whatTheRealToolsWriteIsRead(@TempDir Path folder) throws Exception {
    Path data = folder.resolve("sa");
    run(folder.resolve("none"), "/usr/lib/sysstat/sadc", "1", "4", data.toString());
    Path json = folder.resolve("j");
    run(json, "sadf", "-j", data.toString(), "--", "-u", "-r", "-b");
    Path table = folder.resolve("d");
    run(table, "sadf", "-d", data.toString(), "--", "-u");
    String host =
        new String(Files.readAllBytes(json), StandardCharsets.UTF_8)
            .replaceAll("(?s).*\"nodename\": *\"([^\"]*)\".*", "$1");
    MetricTargets.Finder finder = (kind, name) -> name.equals(host) ? "H-1" : null;
    MetricsRead read =
        SadfReader.readJson(
            "j", Files.newInputStream(json), finder, h -> Double.NaN, new TakenDays("H-1"));
    assertThat(read.series()).isEqualTo(5);
    assertThat(
            SadfReader.readTable(
                    "d", Files.newInputStream(table), finder, h -> 2, new TakenDays("H-1"))
                .samples())
        .isPositive();
  }

  private static void run(Path output, String... command) throws Exception {
    Process process =
        new ProcessBuilder(command)
            .redirectOutput(output.toFile())
            .redirectError(ProcessBuilder.Redirect.DISCARD)
            .start();
    assertThat(process.waitFor(60, TimeUnit.SECONDS)).isTrue();
  }
}

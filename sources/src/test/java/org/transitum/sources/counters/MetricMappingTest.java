package org.transitum.sources.counters;

import static org.assertj.core.api.Assertions.assertThat;
import static org.transitum.sources.Files.refused;

import java.util.Map;
import org.junit.jupiter.api.Test;
import org.transitum.core.counters.Counter;

class MetricMappingTest {

  private static MetricRule standard(Counter counter, String metric) {
    return MetricMapping.standard().rules().stream()
        .filter(rule -> rule.counter() == counter && rule.metrics().contains(metric))
        .findFirst()
        .orElseThrow();
  }

  @Test
  void wholeDisksCountAndTheirPartsDoNot() {
    MetricRule reads = standard(Counter.READS_TOTAL, "node_disk_reads_completed_total");
    for (String disk : new String[] {"sda", "vda", "nvme0n1", "xvdb"}) {
      assertThat(reads.sign("node_disk_reads_completed_total", Map.of("device", disk))).isOne();
    }
    for (String part : new String[] {"sda1", "vda2", "nvme0n1p1", "dm-0", "loop3", "md127"}) {
      assertThat(reads.sign("node_disk_reads_completed_total", Map.of("device", part))).isZero();
    }
  }

  @Test
  void idleProcessorsAreNotInUseAndFreeMemoryIsTakenOff() {
    MetricRule cpu = standard(Counter.CPU_SECONDS_TOTAL, "node_cpu_seconds_total");
    assertThat(cpu.sign("node_cpu_seconds_total", Map.of("mode", "user"))).isOne();
    assertThat(cpu.sign("node_cpu_seconds_total", Map.of("mode", "idle"))).isZero();
    MetricRule memory = standard(Counter.WORKING_SET_BYTES, "node_memory_MemTotal_bytes");
    assertThat(memory.sign("node_memory_MemAvailable_bytes", Map.of())).isEqualTo(-1);
    assertThat(memory.sign("node_memory_MemFree_bytes", Map.of())).isZero();
  }

  @Test
  void aMappingThatCannotBeReadSaysWhere() {
    assertThat(refused(() -> MetricMapping.read("m.json", "{\"rules\": [\n{]}")))
        .hasMessageContaining("m.json, row 2")
        .hasMessageContaining("Not JSON");
    assertThat(refused(() -> MetricMapping.read("m.json", "{\"rules\": []}")))
        .hasMessageContaining("/rules");
    assertThat(
            refused(
                () ->
                    MetricMapping.read(
                        "m.json",
                        "{\"rules\": [{\"counter\": \"heat\", \"metrics\": [\"m\"], \"of\": \"database\", \"where\": {\"a\": \"(\"}}]}")))
        .hasMessageContaining("\"heat\" is no counter");
    assertThat(
            refused(
                    () ->
                        MetricMapping.read(
                            "m.json",
                            "{\"rules\": [{\"counter\": \"heat\", \"metrics\": [\"m\"], \"of\": \"database\", \"where\": {\"a\": \"(\"}}]}"))
                .total())
        .as("counter, pattern and the missing label, all at once")
        .isEqualTo(3);
  }
}

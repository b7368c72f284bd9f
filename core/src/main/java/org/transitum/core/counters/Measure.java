package org.transitum.core.counters;

import java.util.Locale;

/** What an aligned series measures, with its UCUM unit. */
public enum Measure {
  CPU_CORES("CPU", "{core}"),
  MEMORY_BYTES("memory", "By"),
  READS_PER_S("reads", "1/s"),
  WRITES_PER_S("writes", "1/s"),
  IO_BYTES_PER_S("throughput", "By/s"),
  LOG_BYTES_PER_S("change log", "By/s"),
  SIZE_BYTES("size", "By"),
  CONNECTIONS("connections", "{connection}"),
  TRANSACTIONS_PER_S("transactions", "1/s"),
  BLOCKS_HIT_PER_S("blocks from cache", "1/s"),
  TEMP_BYTES_PER_S("temporary files", "By/s");

  private final String label;
  private final String unit;

  Measure(String label, String unit) {
    this.label = label;
    this.unit = unit;
  }

  public String label() {
    return label;
  }

  public String unit() {
    return unit;
  }

  public String column() {
    return name().toLowerCase(Locale.ROOT);
  }
}

package org.transitum.core.sizing;

import org.transitum.core.counters.Measure;

/** A dimension in which a database needs something of its target. */
public enum Dimension {
  CPU("CPU", "reference cores", Measure.CPU_CORES, true),
  MEMORY("memory", "bytes", Measure.MEMORY_BYTES, true),
  READS("reads", "per second", Measure.READS_PER_S, false),
  WRITES("writes", "per second", Measure.WRITES_PER_S, false),
  THROUGHPUT("throughput", "bytes per second", Measure.IO_BYTES_PER_S, false),
  LOG("change log", "bytes per second", Measure.LOG_BYTES_PER_S, false),
  STORAGE("storage", "bytes", Measure.SIZE_BYTES, true),
  CONNECTIONS("connections", "connections", Measure.CONNECTIONS, false);

  private final String label;
  private final String unit;
  private final Measure measure;
  private final boolean required;

  Dimension(String label, String unit, Measure measure, boolean required) {
    this.label = label;
    this.unit = unit;
    this.measure = measure;
    this.required = required;
  }

  public String label() {
    return label;
  }

  public String unit() {
    return unit;
  }

  public Measure measure() {
    return measure;
  }

  /** Whether no tier can be chosen while this demand is unknown. */
  public boolean required() {
    return required;
  }
}

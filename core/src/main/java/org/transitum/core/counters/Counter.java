package org.transitum.core.counters;

import java.util.Arrays;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;

/** A counter as a file or a server tells it, and the measure that its samples become. */
public enum Counter {
  CPU_CORES(Kind.RATE, Measure.CPU_CORES),
  CPU_SECONDS_TOTAL(Kind.CUMULATIVE, Measure.CPU_CORES),
  WORKING_SET_BYTES(Kind.GAUGE, Measure.MEMORY_BYTES),
  READS_PER_S(Kind.RATE, Measure.READS_PER_S),
  READS_TOTAL(Kind.CUMULATIVE, Measure.READS_PER_S),
  WRITES_PER_S(Kind.RATE, Measure.WRITES_PER_S),
  WRITES_TOTAL(Kind.CUMULATIVE, Measure.WRITES_PER_S),
  IO_BYTES_PER_S(Kind.RATE, Measure.IO_BYTES_PER_S),
  IO_BYTES_TOTAL(Kind.CUMULATIVE, Measure.IO_BYTES_PER_S),
  LOG_BYTES_PER_S(Kind.RATE, Measure.LOG_BYTES_PER_S),
  LOG_BYTES_TOTAL(Kind.CUMULATIVE, Measure.LOG_BYTES_PER_S),
  SIZE_BYTES(Kind.GAUGE, Measure.SIZE_BYTES),
  CONNECTIONS(Kind.GAUGE, Measure.CONNECTIONS),
  TRANSACTIONS_TOTAL(Kind.CUMULATIVE, Measure.TRANSACTIONS_PER_S),
  BLOCKS_HIT_TOTAL(Kind.CUMULATIVE, Measure.BLOCKS_HIT_PER_S),
  TEMP_BYTES_TOTAL(Kind.CUMULATIVE, Measure.TEMP_BYTES_PER_S);

  /** How a sample's value relates to the time before it. */
  public enum Kind {
    /** Grows; the difference of two samples over their time is the rate between them. */
    CUMULATIVE,
    /** The mean rate since the sample before. */
    RATE,
    /** A level at the sample's time. */
    GAUGE
  }

  private static final Map<String, Counter> BY_COLUMN =
      Arrays.stream(values()).collect(Collectors.toMap(Counter::column, Function.identity()));

  private final Kind kind;
  private final Measure measure;

  Counter(Kind kind, Measure measure) {
    this.kind = kind;
    this.measure = measure;
  }

  public Kind kind() {
    return kind;
  }

  public Measure measure() {
    return measure;
  }

  /** The name in files, such as {@code log_bytes_total}. */
  public String column() {
    return name().toLowerCase(Locale.ROOT);
  }

  public static Optional<Counter> ofColumn(String column) {
    return Optional.ofNullable(BY_COLUMN.get(column));
  }
}

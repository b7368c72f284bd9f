package org.transitum.server.counters;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.stereotype.Component;
import org.transitum.core.counters.AlignedSeries;
import org.transitum.core.counters.Counter;
import org.transitum.core.counters.DayChunk;
import org.transitum.core.counters.Measure;
import org.transitum.core.inventory.ObjectKind;
import org.transitum.server.counters.SeriesMapper.DayRow;
import org.transitum.server.counters.SeriesMapper.SeriesRow;
import org.transitum.server.counters.SeriesMapper.StoredDay;
import org.transitum.server.inventory.EstateStore;
import org.transitum.sources.counters.CounterSink;

/** Stored series: day chunks in, aligned series out. */
@Component
public class SeriesStore {
  private final SeriesMapper mapper;
  private final EstateStore estate;

  SeriesStore(SeriesMapper mapper, EstateStore estate) {
    this.mapper = mapper;
    this.estate = estate;
  }

  /** A sink that writes within the running transaction. */
  CounterSink sink() {
    return new Writer();
  }

  private final class Writer implements CounterSink {
    /** Asked by the thread that reads while this one stores. */
    private final Map<String, SeriesRow> known = new ConcurrentHashMap<>();

    private final Map<Long, Set<Integer>> days = new HashMap<>();

    Writer() {
      mapper.all().forEach(row -> known.put(row.objectKey() + "\n" + row.measure(), row));
    }

    @Override
    public boolean knows(String object) {
      return estate.isPresent(ObjectKind.DATABASE, object)
          || estate.isPresent(ObjectKind.INSTANCE, object)
          || estate.isPresent(ObjectKind.HOST, object);
    }

    @Override
    public int stepOf(String object, Measure measure) {
      SeriesRow row = known.get(object + "\n" + measure);
      return row == null ? 0 : row.stepSeconds();
    }

    @Override
    public void take(String object, Counter counter, DayChunk chunk) {
      SeriesRow series =
          known.computeIfAbsent(
              object + "\n" + counter.measure(),
              key ->
                  new SeriesRow(
                      mapper.insert(object, counter.measure(), chunk.stepSeconds()),
                      object,
                      counter.measure(),
                      chunk.stepSeconds()));
      int day = Math.toIntExact(chunk.dayEpoch());
      boolean stored =
          !days.computeIfAbsent(series.id(), id -> new HashSet<>(mapper.dayNumbers(id))).add(day);
      if (stored) {
        save(series.id(), chunk(series, mapper.day(series.id(), day)).mergedWith(chunk), false);
      } else {
        save(series.id(), chunk, true);
      }
    }
  }

  private void save(long series, DayChunk chunk, boolean fresh) {
    double lowest = Double.POSITIVE_INFINITY;
    double highest = Double.NEGATIVE_INFINITY;
    double total = 0;
    for (double value : chunk.values()) {
      if (!Double.isNaN(value)) {
        lowest = Math.min(lowest, value);
        highest = Math.max(highest, value);
        total += value;
      }
    }
    StoredDay day =
        new StoredDay(
            series,
            Math.toIntExact(chunk.dayEpoch()),
            chunk.present(),
            lowest,
            highest,
            total,
            ChunkCodec.pack(chunk.values()));
    if (fresh) {
      mapper.insertDay(day);
    } else {
      mapper.updateDay(day);
    }
  }

  private static DayChunk chunk(SeriesRow series, DayRow row) {
    int count = DayChunk.SECONDS_PER_DAY / series.stepSeconds();
    return new DayChunk(
        row.dayEpoch(), series.stepSeconds(), ChunkCodec.unpack(row.payload(), count));
  }

  /** All series of an object; the last {@code days} days up to each one's last sample. */
  public Map<Measure, AlignedSeries> of(String object, int days) {
    Map<Measure, AlignedSeries> result = new TreeMap<>();
    for (SeriesRow row : mapper.of(object)) {
      load(row, days).ifPresent(series -> result.put(row.measure(), series));
    }
    return result;
  }

  private Optional<AlignedSeries> load(SeriesRow row, int days) {
    List<Integer> numbers = mapper.dayNumbers(row.id());
    if (numbers.isEmpty()) {
      return Optional.empty();
    }
    int last = numbers.stream().mapToInt(Integer::intValue).max().orElseThrow();
    List<DayChunk> chunks = new ArrayList<>();
    mapper.days(row.id(), last - days).forEach(day -> chunks.add(chunk(row, day)));
    AlignedSeries whole = AlignedSeries.of(chunks);
    long end = lastPresent(whole);
    return Optional.of(whole.between(end - (long) days * DayChunk.SECONDS_PER_DAY, end));
  }

  private static long lastPresent(AlignedSeries series) {
    for (int i = series.values().length - 1; i >= 0; i--) {
      if (!Double.isNaN(series.values()[i])) {
        return series.startSeconds() + (long) (i + 1) * series.stepSeconds();
      }
    }
    return series.startSeconds();
  }

  /** Share of each day since {@code fromDay} that each series of an object has samples for. */
  Map<Measure, Map<Integer, Double>> presence(String object, int fromDay) {
    Map<Measure, Map<Integer, Double>> presence = new TreeMap<>();
    mapper
        .presence(object, fromDay)
        .forEach(
            row ->
                presence
                    .computeIfAbsent(row.measure(), measure -> new TreeMap<>())
                    .put(
                        row.dayEpoch(),
                        row.present() * row.stepSeconds() / (double) DayChunk.SECONDS_PER_DAY));
    return presence;
  }

  /** Keys of all objects that have series. */
  public Set<String> measured() {
    Set<String> keys = new HashSet<>();
    mapper.all().forEach(row -> keys.add(row.objectKey()));
    return keys;
  }

  /**
   * Mean processor cores per object and UTC day since {@code fromDay}, for a glance at activity.
   */
  public Map<String, Map<Integer, Double>> dailyMeans(Measure measure, int fromDay) {
    Map<String, Map<Integer, Double>> means = new HashMap<>();
    mapper
        .totals(measure, fromDay)
        .forEach(
            row ->
                means
                    .computeIfAbsent(row.objectKey(), key -> new TreeMap<>())
                    .put(row.dayEpoch(), row.total() / Math.max(1, row.present())));
    return means;
  }
}

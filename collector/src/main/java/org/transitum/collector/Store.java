package org.transitum.collector;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.io.RandomAccessFile;
import java.io.Reader;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.net.URLEncoder;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Stream;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.jspecify.annotations.Nullable;
import org.transitum.core.InvalidValue;
import org.transitum.sources.counters.Sample;
import org.transitum.sources.inventory.ReadingJson;
import org.transitum.sources.inventory.ServerReading;

/**
 * The collector's folder: the latest reading of each server, and its samples in one file an hour,
 * compressed once the hour is over. All of it can be cut off at any moment and read again.
 */
final class Store implements AutoCloseable {
  private static final String HEADER = "object,counter,time,value\n";
  private static final String OPEN = ".csv";
  private static final String PACKED = ".csv.gz";

  /** Text beside its packed form: 7.8 measured on an hour of 300 databases with six counters. */
  private static final int PACKING = 8;

  private final Path folder;
  private final long budgetBytes;
  private final @Nullable FileChannel lockFile;
  private final Map<String, Instant> lastSamples = new ConcurrentHashMap<>();
  private long keptBytes;
  private long bundleBytes;

  private Store(Path folder, long budgetBytes, @Nullable FileChannel lockFile) {
    this.folder = folder;
    this.budgetBytes = budgetBytes;
    this.lockFile = lockFile;
  }

  /** Looks into a folder, beside a collector that may be working in it. */
  static Store look(Path folder, long budgetBytes) throws IOException {
    Store store = new Store(folder, budgetBytes, null);
    if (!Files.isDirectory(folder.resolve("counters"))) {
      throw new InvalidValue(
          "%s holds nothing collected yet; start with: transitum-collect run".formatted(folder));
    }
    store.measure();
    return store;
  }

  /**
   * Opens the folder for collecting, and mends what a stop in the middle left behind.
   *
   * @throws InvalidValue when another collector works in it
   */
  static Store open(Path folder, long budgetBytes, Instant now) throws IOException {
    for (String part : List.of("readings", "counters", "outbox")) {
      Files.createDirectories(folder.resolve(part));
    }
    FileChannel lockFile =
        FileChannel.open(
            folder.resolve("lock"), StandardOpenOption.CREATE, StandardOpenOption.WRITE);
    FileLock lock = tryLock(lockFile);
    if (lock == null) {
      lockFile.close();
      throw new InvalidValue("Another collector works in %s; stop it first.".formatted(folder));
    }
    Store store = new Store(folder, budgetBytes, lockFile);
    store.mend(now);
    return store;
  }

  private static @Nullable FileLock tryLock(FileChannel file) throws IOException {
    try {
      return file.tryLock();
    } catch (java.nio.channels.OverlappingFileLockException e) {
      return null;
    }
  }

  @Override
  public void close() throws IOException {
    if (lockFile != null) {
      lockFile.close();
    }
  }

  /** Cuts torn lines off, packs hours that are over, and drops what was packed already. */
  private void mend(Instant now) throws IOException {
    for (Path of : list(folder.resolve("counters"))) {
      for (Path file : list(of)) {
        String name = file.getFileName().toString();
        if (name.endsWith(".part")) {
          Files.delete(file);
        } else if (name.endsWith(OPEN)) {
          cutTornLine(file);
        }
      }
    }
    try (Stream<Path> parts = Files.list(folder.resolve("outbox"))) {
      for (Path part : parts.filter(p -> p.toString().endsWith(".part")).toList()) {
        Files.delete(part);
      }
    }
    packBefore(now);
  }

  private static void cutTornLine(Path file) throws IOException {
    try (RandomAccessFile open = new RandomAccessFile(file.toFile(), "rw")) {
      long end = open.length();
      while (end > 0) {
        open.seek(end - 1);
        if (open.read() == '\n') {
          break;
        }
        end--;
      }
      open.setLength(end);
    }
    if (Files.size(file) == 0) {
      Files.delete(file);
    }
  }

  private void measure() throws IOException {
    long kept = 0;
    long bundle = 0;
    try (Stream<Path> files = Files.walk(folder)) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        long size = Files.size(file);
        kept += size;
        String name = file.getFileName().toString();
        bundle += name.endsWith(PACKED) ? size : name.endsWith(OPEN) ? size / PACKING : 0;
      }
    }
    synchronized (this) {
      keptBytes = kept;
      bundleBytes = bundle;
    }
  }

  synchronized long keptBytes() {
    return keptBytes;
  }

  /** Whether what is kept, and a bundle made of it, would still be within the budget. */
  synchronized boolean hasRoom() {
    return keptBytes + bundleBytes < budgetBytes;
  }

  Path outbox() {
    return folder.resolve("outbox");
  }

  Path stateFile() {
    return folder.resolve("state.json");
  }

  /** A name as a file may have it. */
  private static String safe(String instance) {
    return URLEncoder.encode(instance, StandardCharsets.UTF_8);
  }

  private Path readingFile(String instance) {
    return folder.resolve("readings").resolve(safe(instance) + ".json");
  }

  void keep(String instance, ServerReading reading) throws IOException {
    Path file = readingFile(instance);
    Path part = file.resolveSibling(file.getFileName() + ".part");
    Files.write(part, ReadingJson.write(instance, reading));
    Files.move(part, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
    measure();
  }

  /** The latest reading's bytes, as they go into a bundle; null where there is none yet. */
  byte @Nullable [] reading(String instance) throws IOException {
    Path file = readingFile(instance);
    return Files.exists(file) ? Files.readAllBytes(file) : null;
  }

  /** When the latest reading was made; null where there is none. */
  @Nullable Instant readAt(String instance) throws IOException {
    byte[] bytes = reading(instance);
    return bytes == null
        ? null
        : ReadingJson.read(instance, new ByteArrayInputStream(bytes), instance).reading().at();
  }

  /**
   * Appends what a server told at a time.
   *
   * @return whether it was kept; not where the clock has gone back
   */
  boolean keep(String instance, Instant at, List<Sample> samples) throws IOException {
    Instant second = at.truncatedTo(ChronoUnit.SECONDS);
    Instant before = lastSamples.put(instance, second);
    if (before != null && !second.isAfter(before)) {
      lastSamples.put(instance, before);
      return false;
    }
    String time = second.toString();
    StringWriter text = new StringWriter();
    try (CsvWriter csv = CsvWriter.builder().lineDelimiter(LineDelimiter.LF).build(text)) {
      for (Sample sample : samples) {
        csv.writeRecord(sample.object(), sample.counter().column(), time, number(sample.value()));
      }
    }
    Path of = folder.resolve("counters").resolve(safe(instance));
    Files.createDirectories(of);
    byte[] bytes = text.toString().getBytes(StandardCharsets.UTF_8);
    Files.write(
        of.resolve(hour(second) + OPEN),
        bytes,
        StandardOpenOption.CREATE,
        StandardOpenOption.APPEND);
    synchronized (this) {
      keptBytes += bytes.length;
      bundleBytes += bytes.length / PACKING;
    }
    return true;
  }

  private static String number(double value) {
    return value == Math.rint(value) && Math.abs(value) < 1e15
        ? Long.toString((long) value)
        : Double.toString(value);
  }

  /** Such as {@code 2026-11-25T03}. */
  private static String hour(Instant at) {
    return at.toString().substring(0, 13);
  }

  /** Packs the hours that ended before {@code now}. */
  void packBefore(Instant now) throws IOException {
    String current = hour(now);
    for (Path of : list(folder.resolve("counters"))) {
      for (Path file : list(of)) {
        String name = file.getFileName().toString();
        if (name.endsWith(OPEN) && name.compareTo(current + OPEN) < 0) {
          pack(file);
        }
      }
    }
    measure();
  }

  private static void pack(Path file) throws IOException {
    String hour = file.getFileName().toString().replace(OPEN, "");
    Path packed = file.resolveSibling(hour + PACKED);
    if (!Files.exists(packed)) {
      Path part = file.resolveSibling(hour + PACKED + ".part");
      try (OutputStream out = new GZIPOutputStream(Files.newOutputStream(part))) {
        Files.copy(file, out);
      }
      Files.move(part, packed, StandardCopyOption.ATOMIC_MOVE);
    }
    // a packed hour that is there already was packed whole before a stop kept this from going
    Files.delete(file);
  }

  /** The hours of a server that there are samples of, oldest first. */
  private List<Path> hours(String instance) throws IOException {
    Path of = folder.resolve("counters").resolve(safe(instance));
    return Files.isDirectory(of) ? list(of) : List.of();
  }

  private static String hourOf(Path file) {
    return file.getFileName().toString().substring(0, 13);
  }

  /** Whether there are samples of a server in the hours since {@code from}. */
  boolean hasSamples(String instance, Instant from) throws IOException {
    String first = hour(from);
    return hours(instance).stream().anyMatch(file -> hourOf(file).compareTo(first) >= 0);
  }

  /**
   * Writes a server's samples since the hour of {@code from} as one counters file.
   *
   * @return how many samples
   */
  long writeCounters(String instance, Instant from, OutputStream out) throws IOException {
    out.write(HEADER.getBytes(StandardCharsets.UTF_8));
    String first = hour(from);
    long samples = 0;
    for (Path file : hours(instance)) {
      if (hourOf(file).compareTo(first) < 0 || file.toString().endsWith(".part")) {
        continue;
      }
      try (Reader lines = reader(file)) {
        samples += copyWholeLines(lines, out);
      } catch (NoSuchFileException e) {
        // packed just now by the collector that is at work
        try (Reader lines = reader(file.resolveSibling(hourOf(file) + PACKED))) {
          samples += copyWholeLines(lines, out);
        }
      }
    }
    return samples;
  }

  private static Reader reader(Path file) throws IOException {
    InputStream in = Files.newInputStream(file);
    return new BufferedReader(
        new InputStreamReader(
            file.toString().endsWith(PACKED) ? new GZIPInputStream(in, 1 << 16) : in,
            StandardCharsets.UTF_8));
  }

  /** A last line that is being written just now is left out. */
  private static long copyWholeLines(Reader lines, OutputStream out) throws IOException {
    long count = 0;
    StringBuilder line = new StringBuilder();
    for (int c = lines.read(); c >= 0; c = lines.read()) {
      line.append((char) c);
      if (c == '\n') {
        out.write(line.toString().getBytes(StandardCharsets.UTF_8));
        line.setLength(0);
        count++;
      }
    }
    return count;
  }

  /**
   * Deletes whole hours before {@code pushed}, oldest first, until there is room again.
   *
   * @return whether there is room now
   */
  boolean makeRoom(Instant pushed) throws IOException {
    List<Path> old = new ArrayList<>();
    String limit = hour(pushed);
    for (Path of : list(folder.resolve("counters"))) {
      for (Path file : list(of)) {
        if (file.toString().endsWith(PACKED) && hourOf(file).compareTo(limit) < 0) {
          old.add(file);
        }
      }
    }
    old.sort(Comparator.comparing(Store::hourOf));
    for (Path file : old) {
      if (hasRoom()) {
        break;
      }
      Files.delete(file);
      measure();
    }
    return hasRoom();
  }

  private static List<Path> list(Path folder) {
    try (Stream<Path> files = Files.list(folder)) {
      return files.sorted().toList();
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }
}

package org.transitum.collector;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Instant;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.json.JsonMapper;

/**
 * What a collector must remember over restarts.
 *
 * @param startedAt when it sampled first, from which its end is counted
 * @param pushedTo up to when samples were pushed; null before the first push
 * @param pushedReadings when the pushed reading of each instance was made
 * @param problems why the last try of an instance failed
 */
record State(
    Instant startedAt,
    @Nullable Instant pushedTo,
    Map<String, Instant> pushedReadings,
    Map<String, String> problems) {
  private static final JsonMapper JSON = JsonMapper.builder().build();

  static State fresh(Instant now) {
    return new State(now, null, Map.of(), Map.of());
  }

  /** What was remembered; null where there is nothing, or nothing that can be read. */
  static @Nullable State read(Path file) throws IOException {
    if (!Files.exists(file)) {
      return null;
    }
    try {
      return JSON.readValue(Files.readAllBytes(file), State.class);
    } catch (JacksonException e) {
      return null;
    }
  }

  void write(Path file) throws IOException {
    Path part = file.resolveSibling(file.getFileName() + ".part");
    Files.write(part, JSON.writerWithDefaultPrettyPrinter().writeValueAsBytes(this));
    Files.move(part, file, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
  }

  State withProblem(String instance, @Nullable String problem) {
    Map<String, String> next = new TreeMap<>(problems);
    if (problem == null) {
      next.remove(instance);
    } else {
      next.put(instance, problem);
    }
    return new State(startedAt, pushedTo, pushedReadings, next);
  }

  State pushed(Instant to, Map<String, Instant> readings) {
    Map<String, Instant> next = new TreeMap<>(pushedReadings);
    next.putAll(readings);
    return new State(startedAt, to, next, problems);
  }
}

package org.transitum.core.inventory;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.transitum.core.inventory.Reading.ReadObject;

/**
 * Finds the known object that a newly read one may be under another name. Only proposes: nothing is
 * merged before a person says so.
 *
 * <p>Names are alike when they are equal without case, domain and separators. A database is like
 * one of the same name on an instance of a like name or on the same host, or on any instance when
 * their sizes differ by less than a hundredth.
 */
public final class Duplicates {
  private static final double SAME_SIZE = 0.01;

  private final Reading reading;
  private final Map<String, EstateObject> known = new HashMap<>();
  private final Map<String, List<EstateObject>> alike = new HashMap<>();
  private final Map<String, String> hostOfRead = new HashMap<>();

  /**
   * @param key of the known object
   * @param why they may be the same, in words
   */
  public record Doubt(String key, String why) {}

  Duplicates(Collection<EstateObject> estate, Reading reading) {
    this.reading = reading;
    for (EstateObject object : estate) {
      known.put(object.kind() + ":" + object.key(), object);
      if (!object.gone()) {
        alike
            .computeIfAbsent(bucket(object.kind(), object.key()), key -> new ArrayList<>())
            .add(object);
      }
    }
    for (ReadObject object : reading.objects()) {
      String host = object.values().get(Attribute.HOST_NAME);
      if (object.kind() == ObjectKind.INSTANCE && host != null) {
        hostOfRead.put(object.key(), host);
      }
    }
  }

  /** What a read object may be; null where nothing known is like it. */
  @Nullable Doubt of(ReadObject read) {
    for (EstateObject candidate : alike.getOrDefault(bucket(read.kind(), read.key()), List.of())) {
      if (candidate.key().equals(read.key())) {
        continue;
      }
      String why =
          read.kind() == ObjectKind.DATABASE
              ? likeDatabase(read, candidate)
              : "their names are alike";
      if (why != null) {
        return new Doubt(candidate.key(), why);
      }
    }
    return read.kind() == ObjectKind.INSTANCE ? sameAddress(read) : null;
  }

  private @Nullable String likeDatabase(ReadObject read, EstateObject candidate) {
    String instance = DatabaseKey.parse(read.key()).instance();
    String other = DatabaseKey.parse(candidate.key()).instance();
    if (instance.equals(other)) {
      return "only their spelling differs";
    }
    if (plain(instance).equals(plain(other))) {
      return "their instances have like names";
    }
    String host = hostOf(instance);
    if (host != null && host.equals(hostOf(other))) {
      return "both are on host " + host;
    }
    Optional<Long> size = candidate.number(Attribute.SIZE_BYTES);
    String written = read.values().get(Attribute.SIZE_BYTES);
    if (written != null && size.isPresent() && size.get() > 0) {
      double ratio = Double.parseDouble(written) / size.get();
      return Math.abs(ratio - 1) < SAME_SIZE ? "same name and the same size" : null;
    }
    return null;
  }

  private @Nullable Doubt sameAddress(ReadObject read) {
    String host = read.values().get(Attribute.HOST_NAME);
    String port = read.values().get(Attribute.PORT);
    if (host == null || port == null) {
      return null;
    }
    return known.values().stream()
        .filter(object -> object.kind() == ObjectKind.INSTANCE && !object.gone())
        .filter(object -> !object.key().equals(read.key()))
        .filter(object -> object.value(Attribute.HOST_NAME).filter(host::equals).isPresent())
        .filter(object -> object.value(Attribute.PORT).filter(port::equals).isPresent())
        .map(object -> new Doubt(object.key(), "both are at %s:%s".formatted(host, port)))
        .findFirst()
        .orElse(null);
  }

  private @Nullable String hostOf(String instance) {
    String read = hostOfRead.get(instance);
    if (read != null) {
      return plain(read);
    }
    EstateObject object = known.get(ObjectKind.INSTANCE + ":" + instance);
    return object == null
        ? null
        : object.value(Attribute.HOST_NAME).map(Duplicates::plain).orElse(null);
  }

  private static String bucket(ObjectKind kind, String key) {
    return kind
        + ":"
        + (kind == ObjectKind.DATABASE
            ? DatabaseKey.parse(key).name().toLowerCase(Locale.ROOT)
            : plain(key));
  }

  /**
   * A name without case, domain and separators: {@code Head_PG-03.fennmark.example} as headpg03.
   */
  private static String plain(String name) {
    return name.toLowerCase(Locale.ROOT)
        .replaceFirst("^([^.]*[a-z][^.]*)\\..*$", "$1")
        .replaceAll("[^\\p{L}\\p{N}]", "");
  }
}

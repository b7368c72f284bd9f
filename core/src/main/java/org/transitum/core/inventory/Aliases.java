package org.transitum.core.inventory;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.transitum.core.inventory.Reading.ReadObject;

/**
 * Other names under which sources tell of known objects, as people have said. An instance's other
 * name holds for its databases too.
 *
 * @param names known key by kind and other key
 */
public record Aliases(Map<ObjectKind, Map<String, String>> names) {

  /** The reading with every other name replaced; objects that become one are joined. */
  public Reading applyTo(Reading reading) {
    if (names.values().stream().allMatch(Map::isEmpty)) {
      return reading;
    }
    Map<String, ReadObject> objects = new LinkedHashMap<>();
    for (ReadObject object : reading.objects()) {
      ReadObject renamed =
          new ReadObject(
              object.kind(),
              known(object.kind(), object.key()),
              object.place(),
              values(object.values()));
      objects.merge(renamed.kind() + ":" + renamed.key(), renamed, Aliases::joined);
    }
    return new Reading(
        reading.source(),
        reading.origin(),
        reading.at(),
        new ArrayList<>(objects.values()),
        reading.unread());
  }

  /** The key under which an object is known. */
  public String known(ObjectKind kind, String key) {
    String own = names.getOrDefault(kind, Map.of()).get(key);
    if (own != null || kind != ObjectKind.DATABASE) {
      return own == null ? key : own;
    }
    DatabaseKey parts = DatabaseKey.parse(key);
    return new DatabaseKey(known(ObjectKind.INSTANCE, parts.instance()), parts.name()).toString();
  }

  private Map<Attribute, String> values(Map<Attribute, String> values) {
    Map<Attribute, String> renamed = new EnumMap<>(Attribute.class);
    renamed.putAll(values);
    renamed.computeIfPresent(Attribute.HOST_NAME, (a, name) -> known(ObjectKind.HOST, name));
    renamed.computeIfPresent(
        Attribute.APPLICATION_NAME, (a, name) -> known(ObjectKind.APPLICATION, name));
    return renamed;
  }

  private static ReadObject joined(ReadObject first, ReadObject second) {
    Map<Attribute, String> values = new EnumMap<>(Attribute.class);
    values.putAll(second.values());
    values.putAll(first.values());
    return new ReadObject(first.kind(), first.key(), first.place(), values);
  }

  /** These and one more. */
  public Aliases with(ObjectKind kind, String other, String known) {
    Map<ObjectKind, Map<String, String>> next = new EnumMap<>(ObjectKind.class);
    for (ObjectKind each : List.of(ObjectKind.values())) {
      Map<String, String> of = new LinkedHashMap<>(names.getOrDefault(each, Map.of()));
      if (each == kind) {
        of.put(other, known);
      }
      next.put(each, of);
    }
    return new Aliases(next);
  }
}

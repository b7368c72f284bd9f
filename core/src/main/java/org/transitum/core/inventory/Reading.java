package org.transitum.core.inventory;

import java.time.Instant;
import java.util.List;
import java.util.Map;

/**
 * What one source said of the estate at one time, before anybody accepted it.
 *
 * @param source the name under which later readings of the same source are compared with this one
 * @param objects what was found, in the source's order
 * @param unread what could not be read and why, in words
 */
public record Reading(
    String source, Origin origin, Instant at, List<ReadObject> objects, List<String> unread) {

  /**
   * @param place where in the source this object stands, such as {@code row 12}
   * @param values canonical values; an attribute that the source does not tell is absent
   */
  public record ReadObject(
      ObjectKind kind, String key, String place, Map<Attribute, String> values) {}

  /** The fact that accepting an object's value would keep. */
  public Fact fact(ReadObject object, String value) {
    return new Fact(0, value, origin, source, object.place(), at, at, false);
  }
}

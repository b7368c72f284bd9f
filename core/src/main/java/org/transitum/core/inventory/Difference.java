package org.transitum.core.inventory;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.transitum.core.inventory.Duplicates.Doubt;
import org.transitum.core.inventory.Reading.ReadObject;

/**
 * What accepting a reading would change: objects that are new, changed or gone from this source.
 *
 * <p>A value that equals the one that counts, or that this source told before, makes no change, so
 * reading the same again gives an empty difference. A value that the rule of {@link ToldFacts} does
 * not let count is listed as kept: it is recorded beside. An object is gone when an earlier
 * accepted reading of the same source told of it and this one does not; a reading that could not
 * see everything ({@link Reading#unread} not empty) declares nothing gone.
 */
public record Difference(List<Change> changes) {

  public enum Type {
    NEW,
    CHANGED,
    GONE
  }

  /**
   * @param before the fact that counts now; null where there was none
   * @param after the value the reading brings, canonical
   * @param kept true where {@code before} goes on counting and the value is recorded beside it
   */
  public record AttributeChange(
      Attribute attribute, @Nullable Fact before, String after, boolean kept) {}

  /**
   * @param place where in the source the object stands; empty for one that is gone
   * @param attributes in the order of {@link Attribute}; empty for one that is gone
   * @param doubt for a new object, the known one that it may be; null where none is like it
   */
  public record Change(
      Type type,
      ObjectKind kind,
      String key,
      String place,
      List<AttributeChange> attributes,
      @Nullable Doubt doubt) {
    /** The name by which a person picks this change out of the difference. */
    public String id() {
      return kind + ":" + key;
    }
  }

  /** Compares in O(objects × attributes). */
  public static Difference between(Collection<EstateObject> estate, Reading reading) {
    Map<String, EstateObject> known = new HashMap<>();
    estate.forEach(object -> known.put(object.kind() + ":" + object.key(), object));
    Duplicates duplicates = new Duplicates(estate, reading);
    List<Change> changes = new ArrayList<>();
    Set<String> read = new HashSet<>();
    for (ReadObject object : reading.objects()) {
      read.add(object.kind() + ":" + object.key());
      Change change =
          compare(known.get(object.kind() + ":" + object.key()), object, reading, duplicates);
      if (change != null) {
        changes.add(change);
      }
    }
    if (reading.unread().isEmpty()) {
      estate.stream()
          .filter(object -> !object.gone() && object.sources().contains(reading.source()))
          .filter(object -> !read.contains(object.kind() + ":" + object.key()))
          .map(object -> new Change(Type.GONE, object.kind(), object.key(), "", List.of(), null))
          .forEach(changes::add);
    }
    return new Difference(List.copyOf(changes));
  }

  private static @Nullable Change compare(
      @Nullable EstateObject known, ReadObject read, Reading reading, Duplicates duplicates) {
    boolean isNew = known == null || known.gone();
    List<AttributeChange> attributes = new ArrayList<>();
    new TreeMap<>(read.values())
        .forEach(
            (attribute, after) -> {
              AttributeChange change =
                  compare(
                      known == null
                          ? new ToldFacts(attribute, List.of())
                          : known
                              .told()
                              .getOrDefault(attribute, new ToldFacts(attribute, List.of())),
                      reading.fact(read, after));
              if (change != null) {
                attributes.add(change);
              }
            });
    boolean matters = attributes.stream().anyMatch(change -> !change.kept());
    if (!isNew && !matters) {
      return null;
    }
    return new Change(
        isNew ? Type.NEW : Type.CHANGED,
        read.kind(),
        read.key(),
        read.place(),
        attributes,
        known == null ? duplicates.of(read) : null);
  }

  private static @Nullable AttributeChange compare(ToldFacts told, Fact next) {
    Fact before = told.counting().orElse(null);
    Fact last = told.lastOf(next);
    boolean same = before != null && before.value().equals(next.value());
    if (same || (last != null && last.value().equals(next.value()))) {
      return null;
    }
    return new AttributeChange(
        told.attribute(), before, next.value(), told.countingWith(next) != next);
  }

  public long count(Type type) {
    return changes.stream().filter(change -> change.type() == type).count();
  }

  /** How many of the new objects may be known ones under another name. */
  public long doubtful() {
    return changes.stream().filter(change -> change.doubt() != null).count();
  }
}

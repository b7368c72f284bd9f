package org.transitum.core.inventory;

/** What names one object of the estate. Ordered by kind, then key. */
public record ObjectId(ObjectKind kind, String key) implements Comparable<ObjectId> {

  @Override
  public int compareTo(ObjectId other) {
    int byKind = kind.compareTo(other.kind);
    return byKind != 0 ? byKind : key.compareTo(other.key);
  }
}

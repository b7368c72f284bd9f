package org.transitum.core.inventory;

import java.time.Instant;

/**
 * One attribute's value with its provenance.
 *
 * @param id orders facts told at the same time; 0 for one that is not kept yet
 * @param value canonical text, see {@link AttributeType#canonical}
 * @param source the file, server or person it came from
 * @param place where in the source: a row, a query; empty where there is none
 * @param at when the source first told this value
 * @param seenAt when the source last told it, {@code at} or later
 * @param pinned whether a person fixed it, so that no reading replaces it
 */
public record Fact(
    long id,
    String value,
    Origin origin,
    String source,
    String place,
    Instant at,
    Instant seenAt,
    boolean pinned) {

  /** Whether a later fact of {@code other}'s source takes this one's place. */
  boolean sameSource(Fact other) {
    return origin == other.origin() && (origin == Origin.STATED || source.equals(other.source()));
  }
}

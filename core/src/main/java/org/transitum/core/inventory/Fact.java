package org.transitum.core.inventory;

import java.time.Instant;

/**
 * One attribute's value with its provenance.
 *
 * @param value canonical text, see {@link AttributeType#canonical}
 * @param source the file, server or person it came from
 * @param place where in the source: a row, a query; empty where there is none
 * @param pinned whether a person fixed it, so that no reading replaces it
 */
public record Fact(
    String value, Origin origin, String source, String place, Instant at, boolean pinned) {}

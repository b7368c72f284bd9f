package org.transitum.core.dependencies;

/**
 * A dependency between two databases.
 *
 * @param from key of the database that depends, or for an ordered tie the one that goes first
 * @param to key of the other database
 * @param weight cost for each day a loose tie is split, at least 0
 */
public record Tie(String from, String to, TieKind kind, double weight) {}

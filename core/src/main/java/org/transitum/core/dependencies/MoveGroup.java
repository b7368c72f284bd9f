package org.transitum.core.dependencies;

import java.util.List;

/**
 * Databases that must cross together.
 *
 * @param key the first member's key, so that it stays the same while that member stays
 * @param members ascending, at least one
 */
public record MoveGroup(String key, List<String> members) {}

package org.transitum.core.waves;

import java.util.Map;

/**
 * A planner's answer.
 *
 * @param placement group key to wave key, for the groups that found one
 * @param unplaced group key to the sentence that says why it found none
 * @param converged whether the search ended by itself rather than at its limit
 */
public record Plan(
    Map<String, String> placement,
    Map<String, String> unplaced,
    Assessment assessment,
    boolean converged) {}

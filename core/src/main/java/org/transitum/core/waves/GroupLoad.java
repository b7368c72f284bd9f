package org.transitum.core.waves;

/**
 * What a move group asks of a wave.
 *
 * @param bytes to copy; an unknown size counts as 0 and {@code sizeKnown} is false
 * @param outageMinutes the longest outage of its databases
 * @param permittedMinutes the shortest outage its applications allow
 * @param risk 0 (lowest criticality) to 3 (critical)
 */
public record GroupLoad(
    String key,
    int databases,
    long bytes,
    boolean sizeKnown,
    long outageMinutes,
    long permittedMinutes,
    int risk) {}

package org.transitum.core.sizing;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The tier chosen for a database.
 *
 * @param chosen null where the demand is too little known or nothing fits
 * @param runnerUp the next feasible configuration by price; null where there is none
 * @param nextCheaper the dearest configuration that is cheaper than the chosen one and falls short
 * @param ladder every configuration considered, by price
 * @param turnsAtPercentile the lowest percentile above today's at which another tier is chosen;
 *     null where none is
 * @param reason in words; empty for a fit that was found and not explained
 */
public record Fit(
    @Nullable Configuration chosen,
    @Nullable Configuration runnerUp,
    @Nullable Configuration nextCheaper,
    List<Configuration> ladder,
    @Nullable Double turnsAtPercentile,
    String reason) {}

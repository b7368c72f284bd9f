/** Measured series: counters, alignment to a grid, coverage. */
@NullMarked
package org.transitum.core.counters;

import org.jspecify.annotations.NullMarked;

/** Reads counters from CSV files and samples live servers. */
@NullMarked
package org.transitum.sources.counters;

import org.jspecify.annotations.NullMarked;

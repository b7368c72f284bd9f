/** Fennmark Water, the made-up demo estate: its files and the seeded generator of its counters. */
@NullMarked
package org.transitum.demo;

import org.jspecify.annotations.NullMarked;
